import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import { describe, indexText } from '@avrelle/core/anchor';
import type { Annotation, BroughtIn, Comparison, SourceDetail, SourceText, VersionRow } from '@avrelle/core/wire';
import { littleWeb, finished, startServer, type Client, type Server } from '../testing/harness';

const FIRST = `The tide table hangs in the hall.
Read it before you walk to the pegs.
The bank is soft after rain and nobody walks it alone.
Write the height into the blue book.
Wash the boots in the trough.`;
const SECOND = `A new opening stands here.
The tide table hangs in the hall.
Read it twice before you ever walk to the pegs.
Write the height into the blue book.
Wash the boots in the trough.`;

let server: Server;
let owner: Client;
let other: Client;
let sourceId: string;
const ids = new Map<string, string>();

async function mark(by: Client, quote: string, classIds: string[] = []): Promise<string> {
  const source = (await by.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
  const { text } = (await by.send<SourceText>('GET', `/api/sources/${sourceId}/text`)).body;
  const id = v7();
  const start = text.indexOf(quote);
  const answer = await by.send('PUT', `/api/annotations/${id}`, {
    sourceId,
    versionId: source.versionId,
    kind: 'claim',
    note: '',
    tags: [],
    anchor: describe(indexText(text), { start, end: start + quote.length }),
    classIds,
  });
  expect(answer.status).toBe(200);
  return id;
}
const annotations = async (by = owner, query = ''): Promise<Annotation[]> =>
  (await by.send<Annotation[]>('GET', `/api/sources/${sourceId}/annotations${query}`)).body;
const placeOf = async (quote: string, query = ''): Promise<Annotation['place']> =>
  (await annotations(owner, query)).find((a) => a.id === ids.get(quote))!.place;

beforeAll(async () => {
  server = await startServer();
  [owner, other] = [await server.person('Owner'), await server.person('Other')];
  sourceId = await owner.keepText('table', FIRST);
  for (const quote of [
    'Read it before you walk to the pegs.',
    'The bank is soft after rain and nobody walks it alone.',
    'Write the height into the blue book.',
    'The tide table hangs in the hall.',
  ])
    ids.set(quote, await mark(owner, quote));
  await owner.send('PUT', `/api/sources/${sourceId}/shelf`, { spans: [[0, 33]], position: FIRST.indexOf('Write the') });
});
afterAll(() => server.close());

test('the same text again is no new version', async () => {
  expect(await owner.keepAgain(sourceId, FIRST)).toMatchObject({
    state: 'done',
    already: true,
    step: expect.stringContaining('Nothing has changed'),
  });
  expect((await owner.send<VersionRow[]>('GET', `/api/sources/${sourceId}/versions`)).body).toHaveLength(1);
});

test('a newer text is a dated version beside the old, and every annotation is followed to it', async () => {
  expect(await owner.keepAgain(sourceId, SECOND)).toMatchObject({
    state: 'done',
    already: false,
    step: 'Kept as version 2',
    sourceId,
  });
  const versions = (await owner.send<VersionRow[]>('GET', `/api/sources/${sourceId}/versions`)).body;
  expect(versions.map((v) => [v.number, v.length])).toEqual([
    [2, SECOND.length],
    [1, FIRST.length],
  ]);
  const at = (words: string) => ({ start: SECOND.indexOf(words), end: SECOND.indexOf(words) + words.length });
  expect(await placeOf('Write the height into the blue book.')).toMatchObject({
    state: 'shifted',
    ...at('Write the height into the blue book.'),
    byHand: false,
  });
  expect(await placeOf('Read it before you walk to the pegs.')).toMatchObject({
    state: 'edited',
    ...at('Read it twice before you ever walk to the pegs.'),
  });
  expect(await placeOf('The bank is soft after rain and nobody walks it alone.')).toMatchObject({
    state: 'lost',
    start: null,
    end: null,
  });
  expect((await annotations()).every((a) => a.anchor !== null)).toBe(true);
});

test('what was read and where one was is followed, too', async () => {
  const { body } = await owner.send<SourceDetail>('GET', `/api/sources/${sourceId}`);
  expect(body).toMatchObject({
    versionNumber: 2,
    newest: 2,
    length: SECOND.length,
    position: SECOND.indexOf('Write the'),
  });
  expect(body.spans).toEqual([[SECOND.indexOf('The tide table'), SECOND.indexOf('The tide table') + 33]]);
});

test('the old version stands as it stood', async () => {
  expect((await owner.send<SourceText>('GET', `/api/sources/${sourceId}/text?version=1`)).body.text).toBe(FIRST);
  expect((await owner.send<SourceDetail>('GET', `/api/sources/${sourceId}?version=1`)).body).toMatchObject({
    versionNumber: 1,
    newest: 2,
    length: FIRST.length,
  });
  expect(await placeOf('The bank is soft after rain and nobody walks it alone.', '?version=1')).toMatchObject({
    state: 'exact',
    start: FIRST.indexOf('The bank'),
  });
  for (const [asked, status] of [
    ['9', 404],
    ['x', 400],
    ['-1', 400],
  ] as const)
    expect((await owner.send('GET', `/api/sources/${sourceId}/text?version=${asked}`)).status).toBe(status);
});

test('what changed is told in words of both texts', async () => {
  const { from, to, before, after, changes } = (await owner.send<Comparison>('GET', `/api/sources/${sourceId}/changes`))
    .body;
  expect([from.number, to.number]).toEqual([1, 2]);
  const removed = changes
    .filter((c) => c.kind === 'removed')
    .map((c) => before.slice(...c.before))
    .join('|');
  const added = changes
    .filter((c) => c.kind === 'added')
    .map((c) => after.slice(...c.after))
    .join('|');
  expect(removed).toContain('The bank is soft after rain');
  expect(added).toMatch(/A new opening stands here\.[^|]*\|.*twice/);
});

test('its author places a lost one by hand, takes that back, and nobody else may', async () => {
  const id = ids.get('The bank is soft after rain and nobody walks it alone.')!;
  const { versionId } = (await owner.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
  expect(
    (await owner.send<Annotation>('PUT', `/api/annotations/${id}/place`, { versionId, start: 0, end: 26 })).body.place,
  ).toMatchObject({ start: 0, end: 26, byHand: true, state: 'lost' });
  expect(
    (await owner.send<Annotation>('PUT', `/api/annotations/${id}/place`, { versionId, start: null, end: null })).body
      .place,
  ).toMatchObject({ state: 'lost', start: null, byHand: false });
  expect((await other.send('PUT', `/api/annotations/${id}/place`, { versionId, start: 0, end: 26 })).status).toBe(404);
  for (const [start, end] of [
    [5, 5],
    [0, 99_999],
    [null, 4],
  ])
    expect((await owner.send('PUT', `/api/annotations/${id}/place`, { versionId, start, end })).status).toBe(400);
});

test('written on a page opened before the newest version: placed in that at once', async () => {
  const [, old] = (await owner.send<VersionRow[]>('GET', `/api/sources/${sourceId}/versions`)).body;
  const id = v7();
  const start = FIRST.indexOf('Wash the boots');
  const { body } = await owner.send<Annotation>('PUT', `/api/annotations/${id}`, {
    sourceId,
    versionId: old!.id,
    kind: 'claim',
    note: '',
    tags: [],
    anchor: describe(indexText(FIRST), { start, end: start + 14 }),
    classIds: [],
  });
  expect(body.place).toMatchObject({ state: 'shifted', start: SECOND.indexOf('Wash the boots') });
});

test('a stranger hears nothing of versions; a class reads them and only the owner keeps again', async () => {
  for (const path of ['versions', 'changes', 'text?version=1', 'annotations?version=1'])
    expect((await other.send('GET', `/api/sources/${sourceId}/${path}`)).status).toBe(404);
  const classId = v7();
  await owner.send('PUT', `/api/classes/${classId}`, { name: 'Field Course', tint: 'tide' });
  await other.send('POST', '/api/classes/join', {
    code: (await owner.send<{ code: string }>('GET', `/api/classes/${classId}`)).body.code,
  });
  await owner.send('PUT', `/api/classes/${classId}/sources/${sourceId}`, {});
  expect((await other.send<VersionRow[]>('GET', `/api/sources/${sourceId}/versions`)).body).toHaveLength(2);
  expect((await other.send('POST', `/api/sources/${sourceId}/again`, { id: v7() })).status).toBe(403);
  await expect(other.keepAgain(sourceId, 'Mine now.')).rejects.toThrow('belongs to Owner');
});

test('a page is fetched again from its address', async () => {
  const web = await littleWeb();
  const far = await startServer({ env: { AVRELLE_NAMES: `saltmere.test=127.0.0.1:${web.port}` } });
  const keeper = await far.person('Keeper');
  const cookie = async (id: string) =>
    finished(
      far.app,
      String(
        (
          await far.app.inject({
            method: 'POST',
            url: '/api/session',
            payload: { email: keeper.me.email, password: 'a long enough password' },
          })
        ).headers['set-cookie'],
      ).split(';')[0]!,
      id,
    );
  const [first, second, third] = [v7(), v7(), v7()];
  web.show('harbour.saltmere.test/sluice-nine', 1);
  await keeper.send('POST', '/api/keep', { id: first, address: 'http://harbour.saltmere.test/sluice-nine' });
  const { sourceId: id } = await cookie(first);
  await keeper.send('POST', `/api/sources/${id}/again`, { id: second });
  expect(await cookie(second)).toMatchObject({ already: true });
  web.show('harbour.saltmere.test/sluice-nine', 2);
  await keeper.send('POST', `/api/sources/${id}/again`, { id: third });
  expect(await cookie(third)).toMatchObject({ already: false, step: 'Kept as version 2' });
  await far.close();
  await web.close();
});

test('W3C annotations go out and come in again; the same file twice adds nothing; what cannot be read says why', async () => {
  const out = JSON.parse((await owner.send('GET', `/api/sources/${sourceId}/annotations.jsonld`)).text) as {
    target: { selector: { type: string }[] };
  }[];
  expect(new Set(out.flatMap((a) => a.target.selector.map((s) => s.type)))).toEqual(
    new Set(['TextQuoteSelector', 'TextPositionSelector', 'RangeSelector', 'FragmentSelector']),
  );
  const foreign = {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: 'http://elsewhere.test/anno/1',
    type: 'Annotation',
    bodyValue: 'From elsewhere',
    target: { source: 'http://elsewhere.test/', selector: { type: 'TextQuoteSelector', exact: 'Wash the boots' } },
  };
  const whole = { type: 'Annotation', target: 'http://x.test/', bodyValue: 'On all of it' };
  const bad = [
    { ...foreign, target: { selector: { type: 'ImageSelector' } } },
    { ...foreign, target: { selector: { type: 'TextQuoteSelector', exact: 'Never written anywhere' } } },
    7,
  ];
  const { body } = await owner.send<BroughtIn>('POST', `/api/sources/${sourceId}/annotations.jsonld`, [
    ...out,
    foreign,
    whole,
    ...bad,
  ]);
  expect(body).toMatchObject({
    brought: 2,
    already: out.length - body.refused.filter((r) => r.number <= out.length).length,
  });
  expect(body.refused.slice(-3).map((r) => r.why)).toEqual([
    expect.stringContaining('not understood'),
    expect.stringContaining('leads to a passage'),
    expect.stringContaining('not of the type'),
  ]);
  expect((await annotations()).find((a) => a.note === 'From elsewhere')).toMatchObject({
    place: { start: SECOND.indexOf('Wash the boots') },
    classIds: [],
  });
});
