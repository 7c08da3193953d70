import { describe, expect, test } from '@jest/globals';
import { namedFeed, parseFeed } from './feed';
import { parseHtml } from './parse-html';

const AT = 'http://example.org/feed';
const read = async (text: string, type = 'application/xml') => (await parseFeed(Buffer.from(text), type, AT))!;

// RFC 4287, section 1.1: the first, brief example, written down from memory.
test('the RFC’s brief Atom feed', async () => {
  const feed = await read(`<?xml version="1.0" encoding="utf-8"?>
   <feed xmlns="http://www.w3.org/2005/Atom">
     <title>Example Feed</title> <link href="http://example.org/"/> <updated>2003-12-13T18:30:02Z</updated> <author><name>John Doe</name></author> <id>urn:uuid:60a76c80-d399-11d9-b93C-0003939e0af6</id>
     <entry><title>Atom-Powered Robots Run Amok</title> <link href="http://example.org/2003/12/13/atom03"/> <id>urn:uuid:1225c695-cfb8-4ebb-aaaa-80da344efa6a</id> <updated>2003-12-13T18:30:02Z</updated> <summary>Some text.</summary></entry>
   </feed>`);
  expect(feed).toMatchObject({
    title: 'Example Feed',
    items: [
      {
        name: 'urn:uuid:1225c695-cfb8-4ebb-aaaa-80da344efa6a',
        address: 'http://example.org/2003/12/13/atom03',
        title: 'Atom-Powered Robots Run Amok',
        summary: 'Some text.',
      },
    ],
  });
});

// JSON Feed version 1.1, "A Simple Example", written down from memory.
test('the simple example of JSON Feed', async () => {
  const feed = await read(
    '{"version":"https://jsonfeed.org/version/1.1","title":"My Example Feed","home_page_url":"https://example.org/","feed_url":"https://example.org/feed.json","items":[{"id":"2","content_text":"This is a second item.","url":"https://example.org/second-item"},{"id":"1","content_html":"<p>Hello, world!</p>","url":"https://example.org/initial-post"}]}',
    'application/feed+json',
  );
  expect(feed.items.map((i) => [i.name, i.address, i.summary])).toEqual([
    ['2', 'https://example.org/second-item', 'This is a second item.'],
    ['1', 'https://example.org/initial-post', 'Hello, world!'],
  ]);
});

// RSS 2.0 specification: elements of item, with the date format of RFC 822 and a guid that is a permalink.
test('an item of RSS 2.0 without link is known by its permanent guid', async () => {
  const feed = await read(
    '<?xml version="1.0"?><rss version="2.0"><channel><title>Tides</title><link>http://x.test/</link><description>d</description><item><title>High</title><guid>http://x.test/2003/06/03.html#item573</guid><pubDate>Tue, 03 Jun 2003 09:39:21 GMT</pubDate><description>a &lt;b&gt;bold&lt;/b&gt; tide</description></item></channel></rss>',
  );
  expect(feed.items).toEqual([
    {
      name: 'http://x.test/2003/06/03.html#item573',
      address: 'http://x.test/2003/06/03.html#item573',
      title: 'High',
      author: '',
      summary: 'a bold tide',
      publishedAt: '2003-06-03T09:39:21.000Z',
    },
  ]);
});

describe('what a feed may get wrong', () => {
  test('items twice, without address, or with one that is no page’s', async () => {
    const items =
      '<item><title>a</title><link>http://x.test/a</link></item>'.repeat(2) +
      '<item><title>b</title></item><item><title>c</title><link>javascript:alert(1)</link></item><item><link>/relative</link></item>';
    const feed = await read(`<rss version="2.0"><channel>${items}</channel></rss>`);
    expect(feed.items.map((i) => [i.address, i.title])).toEqual([
      ['http://x.test/a', 'a'],
      ['http://example.org/relative', '/relative'],
    ]);
    expect(feed.title).toBe('example.org');
  });

  test('a document type, titles in XHTML, items without a title, and who wrote them', async () => {
    const rss = await read(
      '<?xml version="1.0"?><!-- made by hand --><!DOCTYPE rss PUBLIC "-//X//DTD RSS 0.91//EN" "http://x.test/rss.dtd"><rss version="2.0" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:content="http://purl.org/rss/1.0/modules/content/"><channel><title>Tides</title><item><link>http://x.test/a</link><description>Mud, mostly.</description><author>ines@x.test (Ines Kestle)</author></item><item><title>High &amp; low</title><link>http://x.test/b</link><dc:creator>Tomas Rell</dc:creator><content:encoded>&lt;p&gt;All of &lt;i&gt;it&lt;/i&gt;.&lt;/p&gt;</content:encoded></item></channel></rss>',
    );
    expect(rss.items.map((i) => [i.title, i.author, i.summary])).toEqual([
      ['Mud, mostly.', 'Ines Kestle', 'Mud, mostly.'],
      ['High & low', 'Tomas Rell', 'All of it.'],
    ]);
    const atom = await read(
      '<feed xmlns="http://www.w3.org/2005/Atom"><title type="xhtml"><div xmlns="http://www.w3.org/1999/xhtml">The <em>marsh</em></div></title><author><name>Odile Farrant</name></author><entry><title type="xhtml"><div xmlns="http://www.w3.org/1999/xhtml">Salt <b>pans</b></div></title><id>urn:x:1</id><link href="http://x.test/1"/><author><name>Lettice Marl</name></author></entry><entry><id>urn:x:2</id><link href="http://x.test/2"/></entry></feed>',
    );
    expect(atom.items.map((i) => [i.name, i.title.split(' ').sort().join(' '), i.author])).toEqual([
      ['urn:x:1', 'Salt pans', 'Lettice Marl'],
      ['urn:x:2', 'http://x.test/2', expect.any(String)],
    ]);
    const json = await read(
      '{"version":"https://jsonfeed.org/version/1.1","title":"T","items":[{"url":"http://x.test/1","content_text":"one"},{"id":"2","url":"http://x.test/2"}]}',
      'application/feed+json',
    );
    expect(json.items.map((i) => i.address)).toEqual(['http://x.test/1', 'http://x.test/2']);
  });

  test.each([
    '<rss version="2.0"><channel><item>',
    '{"version":"https://jsonfeed.org/version/1.1","items":"none"}',
    '{"version": broken',
  ])('%s says what is wrong', async (text) => {
    await expect(read(text)).rejects.toMatchObject({ code: 'bad_feed' });
  });

  test('what is no feed is none', async () => {
    expect(await read('<!doctype html><p>News')).toBeUndefined();
    expect(await read('{"some":"json"}')).toBeUndefined();
  });
});

test('a page names its feed by rel and type', () => {
  const named = (head: string): string | undefined =>
    namedFeed(parseHtml(head, 'http://x.test/a/'), 'http://x.test/a/');
  expect(
    named(
      '<link rel="alternate" hreflang="el" href="el"><link rel="alternate" type="application/atom+xml" href="../atom">',
    ),
  ).toBe('http://x.test/atom');
  expect(named('<link rel="stylesheet" href="a.css">')).toBeUndefined();
});
