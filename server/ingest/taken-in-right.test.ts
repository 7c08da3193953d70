import { describe, expect, test } from '@jest/globals';
import { AppError } from '../errors';
import { docx, mhtml, PIXEL, warc, zip } from '../testing/files';
import type { Ingested } from './ingested';
import { ingest } from './ingest';

const OPEN = { names: [], privateHosts: [] };
const file = (name: string, content: string | Uint8Array): Promise<Ingested> =>
  ingest({ type: 'file', name, bytes: Buffer.from(content) }, OPEN);
const code = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'kept',
    (e: unknown) => (e instanceof AppError ? e.code : String(e)),
  );
const words =
  '<p>The tide turns at seven, and the ferry leaves with whoever is there on the bank; nobody waits.</p>'.repeat(6);

describe('pages', () => {
  test('links within the page lead to their places, whatever these are called', async () => {
    const names = ['name', 'location', 'title', 'body', 'forms', 'getElementById'];
    const { snapshot } = await file(
      'a.html',
      `<h1>Marsh</h1>${names.map((n) => `<a href="#${n}">to</a><h2 id="${n}">${n}</h2>${words}`).join('')}<img name="body" src="data:image/png;base64,${PIXEL.toString('base64')}">`,
    );
    for (const name of names)
      expect([name, snapshot.includes(`id="${name}"`), snapshot.includes(`href="#${name}"`)]).toEqual([
        name,
        true,
        true,
      ]);
    expect(snapshot).not.toContain('name="body"');
  });

  test('a page keeps the rules it was written for: without a document type as without one', async () => {
    expect((await file('old.html', `<html><body><table><tr><td>${words}</table>`)).snapshot).not.toMatch(/<!doctype/i);
    expect((await file('new.html', `<!DOCTYPE html><html><body>${words}`)).snapshot).toMatch(/^<!doctype html>/i);
  });

  test.each([
    [
      'a sign by which a heading links to itself',
      `<h1>The Salt Pans<a class="headerlink" href="#x">¶</a></h1>${words}`,
      'The Salt Pans',
    ],
    ['that sign in the words of the page’s title', `<title>The Salt Pans ¶</title>${words}`, 'The Salt Pans'],
    [
      'several headings of the first level',
      `<title>Handbook of the Marsh</title><h1>Tools</h1>${words}<h1>Boots</h1>${words}`,
      'Handbook of the Marsh',
    ],
    ['one heading', `<title>Handbook of the Marsh: Boots</title><h1>Boots</h1>${words}`, 'Boots'],
  ])('the title, where there is %s', async (_, html, title) =>
    expect((await file('a.html', html)).meta.title).toBe(title),
  );

  test.each([
    ['letters as escapes', 'p { background: u\\72l(http://tracker.invalid/a.png) }'],
    ['an import in escapes', '@\\69mport "http://tracker.invalid/b.css";'],
    ['an image set', 'p { background: image-set("http://tracker.invalid/c.png" 1x) }'],
    ['a property of one’s own', ':root { --x: url(http://tracker.invalid/d.png) } p { background: var(--x) }'],
    ['such a property that cannot be read', ':root { --x: { url(http://tracker.invalid/e.png } }'],
  ])('a style sheet with %s loads nothing', async (_, css) => {
    for (const html of [`<style>${css}</style>`, `<svg><style>${css}</style></svg>`])
      expect((await file('a.html', html + words)).snapshot).not.toContain('tracker.invalid');
    expect(
      (await file('a.html', `<p style="${css.replace(/^[^{]*\{|\}[^}]*$/g, '').replaceAll('"', "'")}">x</p>${words}`))
        .snapshot,
    ).not.toContain('tracker.invalid');
  });

  test('a filter’s picture from elsewhere goes', async () => {
    const { snapshot } = await file(
      'a.html',
      `<svg><filter id="f"><feImage xlink:href="http://tracker.invalid/f.png" href="http://tracker.invalid/g.png"/></filter><rect filter="url(#f)"/></svg>${words}`,
    );
    expect(snapshot).not.toContain('tracker.invalid');
  });

  test('a style sheet within a drawing is one, and not the page itself', async () => {
    expect(
      (await file('a.html', `<svg><style>rect { fill: #0e5a60 }</style><rect/></svg>${words}`)).snapshot,
    ).toContain('fill:#0e5a60');
  });
});

describe('files', () => {
  test.each([
    ['a table', 'a.csv', 'b.csv', 'peg,mm\n1,4\n2,5'],
    ['a short text', 'a.txt', 'b.txt', 'The tide turns.'],
    ['a short note', 'a.md', 'b.md', '*The* tide'],
  ])('%s is known again under another name', async (_, first, second, content) => {
    const [one, other] = [await file(first, content), await file(second, content)];
    expect([one.fingerprint !== '', other.fingerprint]).toEqual([true, one.fingerprint]);
  });

  test('code in a word-processor document stays code', async () => {
    const made = await docx([
      ['', 'Say:'],
      ['SourceCode', 'tide = 7'],
      ['SourceCode', 'ebb = 13'],
    ]);
    const archive = await (await import('jszip')).default.loadAsync(made);
    const styles = await archive.file('word/styles.xml')!.async('string');
    archive.file(
      'word/styles.xml',
      styles.replace(
        '</w:styles>',
        '<w:style w:type="paragraph" w:styleId="SourceCode"><w:name w:val="Source Code"/></w:style></w:styles>',
      ),
    );
    expect((await file('a.docx', await archive.generateAsync({ type: 'nodebuffer' }))).snapshot).toContain(
      '<pre>tide = 7\nebb = 13</pre>',
    );
  });

  test('what is cut off is told, and not kept as if it were whole', async () => {
    const page = mhtml();
    const archive = await warc([{ address: 'http://x.test/', type: 'text/html', body: `<h1>Tide</h1>${words}` }]);
    expect([await code(file('a.mhtml', page)), await code(file('a.mhtml', page.slice(0, page.length - 60)))]).toEqual([
      'kept',
      'cut_off',
    ]);
    expect([await code(file('a.png', PIXEL)), await code(file('a.png', PIXEL.subarray(0, PIXEL.length - 14)))]).toEqual(
      ['kept', 'cut_off'],
    );
    expect([
      await code(file('a.warc', archive)),
      await code(file('a.warc', archive.subarray(0, archive.length - 200))),
    ]).toEqual(['kept', expect.stringMatching(/cut_off|bad_archive/)]);
  });

  test('a text too large to be read and a table of too many cells say which, and how many can be read', async () => {
    await expect(file('a.txt', Buffer.alloc(21 * 1024 * 1024, 'tide '))).rejects.toThrow(/“a.txt” has more than 20 MB/);
    await expect(
      file('wide.csv', Array.from({ length: 21 }, () => Array.from({ length: 20_000 }, (_, n) => n).join()).join('\n')),
    ).rejects.toThrow(/“wide.csv” cannot be read as one page: it has [\d,]+ elements; 400,000 can be read/);
  });

  test('a page that is zipped with nothing else still is one', async () => {
    expect(await code(file('a.zip', await zip({ 'a.html': `<h1>Tide</h1>${words}` })))).toBe('kept');
  });
});

describe('letters', () => {
  const head =
    'From: Ines Kestle <ines@x.test>\r\nSubject: Pegs\r\nDate: Fri, 02 Oct 2026 10:00:00 +0000\r\nMIME-Version: 1.0\r\n';
  test('keep their words, whatever type these are said to be of', async () => {
    expect(
      (await file('a.eml', `${head}Content-Type: text/x-web-markdown; charset=utf-8\r\n\r\nThe third peg is gone.\r\n`))
        .text,
    ).toContain('The third peg is gone.');
    expect(
      (await file('b.eml', `${head}Content-Type: application/x-unknown\r\n\r\nThe fourth peg is gone.\r\n`)).text,
    ).toContain('The fourth peg is gone.');
  });
  test('keep the letters they forward or collect', async () => {
    const inner = (n: number) =>
      `From: Tomas Rell <tomas@x.test>\r\nSubject: Reading ${n}\r\n\r\nPeg ${n} stands at ${n} mm.\r\n`;
    const forwarded = await file(
      'f.eml',
      `${head}Content-Type: multipart/mixed; boundary=b\r\n\r\n--b\r\nContent-Type: text/plain\r\n\r\nSee below.\r\n--b\r\nContent-Type: message/rfc822\r\n\r\n${inner(3)}--b--\r\n`,
    );
    for (const part of ['See below.', 'Reading 3', 'Tomas Rell', 'Peg 3 stands at 3 mm.'])
      expect(forwarded.text).toContain(part);
    const digest = await file(
      'd.eml',
      `${head}Content-Type: multipart/digest; boundary=b\r\n\r\n--b\r\n\r\n${inner(4)}--b\r\n\r\n${inner(5)}--b--\r\n`,
    );
    for (const part of ['Reading 4', 'Peg 4 stands at 4 mm.', 'Reading 5', 'Peg 5 stands at 5 mm.'])
      expect(digest.text).toContain(part);
  });
});

describe('the direction of a page', () => {
  const ARABIC = '<p>المد يعلو مرتين كل يوم، ثم ينحسر الماء عن الطين.</p><p>Peg 7 stands there.</p>';
  const rootOf = async (html: string): Promise<string> => /<html[^>]*>/.exec((await file('a.html', html)).snapshot)![0];
  const bodyOf = async (html: string): Promise<string> => /<body[^>]*>/.exec((await file('a.html', html)).snapshot)![0];

  test('is as the page says it', async () => {
    expect(await rootOf(`<html lang="ar" dir="RTL"><title>t</title><body>${ARABIC}`)).toContain('dir="rtl"');
    expect(await bodyOf(`<html><title>t</title><body dir="rtl">${ARABIC}`)).toContain('dir="rtl"');
    expect(await rootOf(`<html dir="ltr"><title>t</title><body>${ARABIC}`)).toContain('dir="ltr"');
    expect((await file('a.html', `<title>t</title><p dir="rtl">${'كلمة '.repeat(9)}</p>`)).snapshot).toContain(
      '<p dir="rtl">',
    );
  });

  test('is that of most of its letters, where it says none', async () => {
    expect(await rootOf(`<title>An English title</title>${ARABIC}`)).toContain('dir="rtl" data-avrelle-dir="guessed"');
    expect(await rootOf('<title>t</title><p>הגאות עולה פעמיים ביום</p>')).toContain('dir="rtl"');
    expect(await rootOf('<title>t</title><p>潮水一天涨两次。Peg 7.</p>')).not.toContain('dir=');
    expect(await rootOf('<title>t</title><p>The word מים is water.</p>')).not.toContain('dir=');
  });
});
