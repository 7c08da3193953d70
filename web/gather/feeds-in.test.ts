import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { JSDOM } from 'jsdom';
import { opmlFile } from '@avrelle/core/export';
import { feedsIn } from './feeds-in';

const before = globalThis.DOMParser;
beforeAll(() => {
  globalThis.DOMParser = new JSDOM('').window.DOMParser;
});
afterAll(() => {
  globalThis.DOMParser = before;
});

// OPML 2.0: outlines may stand in one another; xmlUrl names the feed.
test('feeds are read from an OPML file, also from folders in it, each once', () => {
  const opml =
    '<opml version="2.0"><body><outline text="Bank"><outline text="A" xmlUrl="http://a.test/feed"/><outline text="A again" xmlUrl="http://a.test/feed"/></outline><outline text="No feed"/><outline text="Odd" xmlUrl="javascript:alert(1)"/></body></opml>';
  expect(feedsIn(opml)).toEqual(['http://a.test/feed']);
  expect(
    feedsIn(opmlFile('F', [{ title: 'B & C', address: 'http://b.test/?a=1&b=2' }], '2026-11-25T00:00:00Z')),
  ).toEqual(['http://b.test/?a=1&b=2']);
});
test('what is no OPML names none', () => {
  for (const text of ['', 'words', '<html><body>x</body></html>', '<opml><outline']) expect(feedsIn(text)).toEqual([]);
});
