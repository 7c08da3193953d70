import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { FindResult, Library, SourceDetail } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';
import { ftsQuery, toSnippet } from './find';
import { CLOSE, CUT, OPEN } from './queries';

let server: Server, me: Client, source: SourceDetail;
const TEXT = 'Levées\n\nNear the creeks the water slows. A levée is a low bank of coarser silt.\n\nThe surface gains almost nothing behind the sea-lavender.';
beforeAll(async () => {
  server = await startServer();
  me = await server.person('Finder');
  source = (await me.send<SourceDetail>('GET', `/api/sources/${await me.keepText('levees', TEXT)}`)).body;
  await me.keepText('other', 'Another text about the brickfield.');
});
afterAll(() => server.close());
const find = async (q: string): Promise<FindResult> => (await me.send<FindResult>('GET', `/api/find?q=${encodeURIComponent(q)}`)).body;

test('a word is found in a text at its very place, also without its accents and by its beginning', async () => {
  const text = TEXT.replace(/\n\n/g, '\n');
  for (const q of ['coarser', 'COARS', 'silt coarser']) {
    const [hit] = (await find(q)).passages;
    expect(hit?.sourceId).toBe(source.id);
    expect(text.slice(hit!.start, hit!.end)).toMatch(/^(coarser|silt)$/);
  }
  expect((await find('levee')).passages).toHaveLength(1);
  expect((await find('"water slows"')).passages).toHaveLength(1);
  expect((await find('"slows water"')).passages).toHaveLength(0);
});

test('signs that mean something to the search engine are only signs', async () => {
  for (const q of ['"', '*', 'AND', 'NEAR(', 'a OR', '(', "'; DROP TABLE person; --", 'title:x', '^', '-silt', 'sea-lavender', '\u0000']) {
    expect((await me.send('GET', `/api/find?q=${encodeURIComponent(q)}`)).status).toBe(200);
  }
  expect((await find('sea-lavender')).passages).toHaveLength(1);
});

test('a note is found while it stands, and no more when it is changed or deleted', async () => {
  const id = v7();
  await me.send('PUT', `/api/annotations/${id}`, { sourceId: source.id, versionId: source.versionId, kind: 'term', note: 'glossary entry', tags: ['words'], anchor: { quote: { exact: 'Levées', prefix: '', suffix: '' }, position: { start: 0, end: 6 } }, classIds: [] });
  expect([(await find('glossary')).annotations.length, (await find('#words')).annotations.length]).toEqual([1, 1]);
  await me.send('PATCH', `/api/annotations/${id}`, { version: 1, note: 'rewritten' });
  expect([(await find('glossary')).annotations.length, (await find('rewritten')).annotations.length]).toEqual([0, 1]);
  await me.send('PATCH', `/api/annotations/${id}`, { version: 2, deleted: true });
  expect([(await find('rewritten')).annotations.length, (await find('#words')).annotations.length]).toEqual([0, 0]);
});

test('the library filters by words and by tag, and counts', async () => {
  await me.send('PUT', `/api/sources/${source.id}/tags`, { tags: ['accretion'] });
  const titles = async (query: string) => (await me.send<Library>('GET', `/api/sources?${query}`)).body.sources.map((s) => s.title);
  expect([await titles('words=lev'), await titles('words=%25'), await titles('tag=accretion'), await titles('state=reading')]).toEqual([['Levées'], [], ['Levées'], []]);
  await me.send('PUT', `/api/sources/${source.id}/shelf`, { state: 'reading', spans: [[0, 40]], position: 20 });
  const { body } = await me.send<Library>('GET', '/api/sources?state=reading');
  expect(body.counts).toEqual({ all: 2, states: { to_read: 1, reading: 1, finished: 0, set_aside: 0 }, tags: [{ tag: 'accretion', count: 1 }] });
  expect(body.sources[0]).toMatchObject({ readShare: expect.closeTo(40 / source.length, 2), state: 'reading' });
});

test('queries and snippets are taken apart', () => {
  expect(ftsQuery('salt marsh')).toBe('"salt" "marsh"*');
  expect(ftsQuery('"salt marsh" mud')).toBe('"salt marsh" "mud"*');
  expect(ftsQuery('" ( *')).toBeUndefined();
  expect(toSnippet(`${CUT}by ${OPEN}catching${CLOSE}\nmud`)).toEqual([{ text: '…by ', hit: false }, { text: 'catching', hit: true }, { text: ' mud', hit: false }]);
});
