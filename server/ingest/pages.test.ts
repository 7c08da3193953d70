import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mainText } from '@avrelle/core/text';
import type { LittleWeb } from '../../standins/web/serve';
import { littleWeb } from '../testing/harness';
import type { Ingested } from './ingested';
import { fetchPage, ingest, wantedParts } from './ingest';
import { fetchParts } from './page-fetch';
import { looksScripted } from './scripted';
import { parseTree, select } from './page-tree';
import { parseHtml } from './parse-html';

let web: LittleWeb;
beforeAll(async () => {
  web = await littleWeb();
});
afterAll(() => web.close());
const keep = (address: string): Promise<Ingested> =>
  ingest(
    { type: 'address', address: `http://${address}` },
    { names: [{ suffix: 'saltmere.test', host: '127.0.0.1', port: web.port }], privateHosts: [] },
  );
const asked = (path: string): number => web.asked.get(path) ?? 0;

test('a page whose parts were fetched beforehand, round by round, is kept as one that fetches them itself', async () => {
  const policy = { names: [{ suffix: 'saltmere.test', host: '127.0.0.1', port: web.port }], privateHosts: [] };
  const ask = { type: 'address' as const, address: 'http://studio.saltmere.test/kept-light' };
  const got = await fetchPage(ask, policy, () => undefined);
  const rounds: number[] = [];
  const parts = await fetchParts(policy, async (known) => {
    const wanted = await wantedParts({ ...ask, got }, known);
    rounds.push(wanted.length);
    return wanted;
  });
  const all = (): number => [...web.asked.values()].reduce((sum, n) => sum + n, 0);
  const before = all();
  const kept = await ingest({ ...ask, got, parts }, policy);
  expect([rounds.length > 1, all() - before]).toEqual([true, 0]);
  expect([kept.snapshot, kept.missing]).toEqual([(await keep('studio.saltmere.test/kept-light')).snapshot, []]);
});

describe('a page with every way of bringing something along', () => {
  let kept: Ingested;
  beforeAll(async () => {
    kept = await keep('studio.saltmere.test/kept-light');
  });

  test('each picture is there once, in the size that fits, lazy ones too', () => {
    const bytes = (src: string | undefined): string =>
      Buffer.from(kept.assets.find((a) => src === `asset/${a.hash}`)?.bytes ?? []).toString();
    const words = select(parseTree(kept.snapshot), 'img').map(
      ({ attribs }) => /<text[^>]*>([^<]*)/.exec(bytes(attribs.src))?.[1],
    );
    expect(words).toEqual(['High water', 'Evening', 'Ice', 'A year at the window']);
    expect(kept.missing).toEqual([]);
    expect([
      asked('studio.saltmere.test/pictures/huge.svg'),
      asked('studio.saltmere.test/pictures/narrow.svg'),
    ]).toEqual([0, 0]);
  });

  test('style sheets, imports, fonts, backgrounds and image sets are inside', () => {
    expect(kept.snapshot).toMatch(/@font-face\{[^}]*url\(asset\/[0-9a-f]{64}\)/);
    expect(kept.snapshot).toMatch(/@media \(min-width: ?900px\)\{article\{border-left/);
    expect(kept.snapshot).toMatch(/image-set\("asset\/[0-9a-f]{64}"/);
    expect(kept.snapshot).toMatch(/<body[^>]*>/);
    expect(kept.snapshot).not.toMatch(/@import|url\((?!asset\/|#|about:invalid)/);
    expect(kept.assets.map((a) => a.mediaType)).toContain('font/woff2');
  });

  test('symbols of another file are drawn where they are used, and the site’s sign is there', () => {
    expect(kept.snapshot).toMatch(/<svg[^>]*viewBox="0 0 16 16"[^>]*><g><path[^>]* d="M1 9c/);
    expect(kept.snapshot).toMatch(/<link rel="icon" href="asset\/[0-9a-f]{64}">/);
  });

  test('a film becomes its still and a link, a frame a link, a tracker nothing; a form stands as it was', () => {
    expect(kept.text).toContain('Film: A year at the window');
    expect(kept.text).toContain('Embedded page: Map of the creek');
    expect(kept.snapshot).not.toMatch(/tracker\.invalid|<iframe|<video|<form/);
    expect(kept.snapshot).toMatch(/<input[^>]*value="2"[^>]*inert/);
    expect(kept.snapshot).toContain('<mfrac>');
  });

  test('its main text keeps figures, code and the notes it points to; who made it and when is known', () => {
    const main = mainText(kept.text, kept.outline);
    for (const words of ['High water, 24 March', 'oak gall, from the marsh edge', 'They have not tried it in January.'])
      expect(main).toContain(words);
    expect(kept.meta).toMatchObject({
      title: 'Kept Light',
      author: 'Maren Tolle',
      site: 'Studio on the Quay',
      publishedAt: '2026-09-12T00:00:00.000Z',
    });
    expect(kept.assets.map((a) => a.hash)).toContain(kept.lead);
  });
});

test.each([
  ['lagoon.saltmere.test/headered', 'Το αλάτι μένει'],
  ['lagoon.saltmere.test/unsaid', 'wer hätte es für möglich gehalten'],
  ['packet.saltmere.test/who-pays', 'used the word “voluntary” nine times'],
])('%s is read in its own encoding', async (address, words) => {
  expect((await keep(address)).text).toContain(words);
});

test('a thread of short posts is one source, its posts in order of time with author and hour', async () => {
  const { kind, text, meta } = await keep('posts.saltmere.test/line-e');
  expect(kind).toBe('thread');
  expect(meta).toMatchObject({
    title: 'Line E in November',
    author: 'Sten Hagen; Luz Varga; Odile Farrant',
    publishedAt: '2026-11-02T16:05:00.000Z',
  });
  expect(text.split('\n').filter((line) => line.includes('·'))).toEqual([
    'Sten Hagen · 2026-11-02 16:05',
    'Sten Hagen · 2026-11-02 16:09',
    'Luz Varga · 2026-11-02 16:31',
    'Odile Farrant · 2026-11-02 18:12',
    'Sten Hagen · 2026-11-03 08:40',
  ]);
  expect(text).not.toContain('All threads');
});

test('a page that only a script makes is kept as it stands, and says so', async () => {
  const { facts, text } = await keep('scripted.saltmere.test/board');
  expect([facts.scripted, text]).toEqual([true, 'Boat Club']);
  expect(
    looksScripted(parseHtml('<p>A short page with a counter.</p><script>count()</script>', 'http://x.test/')),
  ).toBe(true);
  expect(looksScripted(parseHtml('<p>A short page.</p>', 'http://x.test/'))).toBe(false);
  expect(
    looksScripted(
      parseHtml(
        `<div id="app"></div><p>${'Much to read. '.repeat(60)}</p><script src="a.js"></script>`,
        'http://x.test/',
      ),
    ),
  ).toBe(false);
});

test('a hostile page keeps its words and loses its means', async () => {
  const { snapshot, text } = await keep('trouble.saltmere.test/hostile');
  expect(text).toContain('Free mud');
  expect(snapshot).not.toMatch(/<script|onclick|onerror|onload|javascript:|srcdoc|http-equiv|<form|tracker\.invalid/i);
});

test('a page that is sent as something else is known by its bytes, one cut short is refused', async () => {
  expect((await keep('trouble.saltmere.test/wrong-type')).kind).toBe('page');
  await expect(keep('trouble.saltmere.test/wrong-length')).rejects.toMatchObject({ code: 'unreachable' });
});
