import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Annotation, BroughtIn, SourceDetail } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let owner: Client;
let reader: Client;
let source: SourceDetail;
const TEXT = 'The tide turns at seven. Nobody sees it turn.';
const on = { picture: 'c'.repeat(64) };
const stroke = [
  [0.1, 0.2, 0.5],
  [0.5, 0.2, 0.5],
];
const tied = {
  to: 'words',
  words: [
    [0, 3],
    [4, 8],
  ],
  strokes: [
    [
      [0, 0, 1.1, 0.5],
      [1, 1, 1.1, 0.5],
    ],
  ],
};
const SPOTS = {
  whole: { type: 'whole' },
  area: { type: 'area', on, x: 0.25, y: 0.25, width: 0.5, height: 0.5 },
  time: { type: 'time', from: 10, to: 20 },
  words: { type: 'drawn', tool: 'pen', colour: 'ink', width: 0.1, tied },
  page: {
    type: 'drawn',
    tool: 'line',
    colour: 'ink',
    width: 5,
    tied: { to: 'picture', on: { page: 2 }, strokes: [stroke] },
  },
  picture: { type: 'drawn', tool: 'line', colour: 'ink', width: 5, tied: { to: 'picture', on, strokes: [stroke] } },
};
type Name = keyof typeof SPOTS;
interface Taken {
  readonly id: string;
  readonly target: {
    readonly source: string;
    readonly selector?: readonly {
      readonly type: string;
      readonly value?: string;
      readonly refinedBy?: { readonly type: string; readonly value: string };
    }[];
  };
}
const ids = Object.fromEntries(Object.keys(SPOTS).map((name) => [name, v7()])) as Record<Name, string>;

beforeAll(async () => {
  server = await startServer();
  [owner, reader] = [await server.person('Owner'), await server.person('Reader')];
  const id = await owner.keepText('tide', TEXT);
  source = (await owner.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
  for (const [name, spot] of Object.entries(SPOTS)) {
    const { status } = await owner.send('PUT', `/api/annotations/${ids[name as Name]}`, {
      sourceId: id,
      versionId: source.versionId,
      kind: 'note',
      note: `on ${name}`,
      tags: [],
      classIds: [],
      anchor: { quote: { exact: 'The tide', prefix: '', suffix: ' turns' }, position: { start: 0, end: 8 }, spot },
    });
    expect([name, status]).toEqual([name, 200]);
  }
});
afterAll(() => server.close());

const taken = async (): Promise<Taken[]> =>
  JSON.parse((await owner.send('GET', `/api/sources/${source.id}/annotations.jsonld`)).text) as Taken[];
const selectorsOf = async (name: Name) =>
  (await taken()).find((a) => a.id === `urn:uuid:${ids[name]}`)!.target.selector;

// Web Annotation Data Model (Recommendation of 23 February 2017): 4.2.1 fragments, 4.2.7 SVG, 4.2.9 refinement; 3.1 for a target that is no part.
describe('what is no words is taken out', () => {
  test('as a target without a selector where all of the source is meant', async () =>
    expect(await selectorsOf('whole')).toBeUndefined());
  test('as fragments of media, for an area and a time', async () => {
    expect((await selectorsOf('area'))![0]).toEqual({
      type: 'FragmentSelector',
      conformsTo: 'http://www.w3.org/TR/media-frags/',
      value: 'xywh=percent:25,25,50,50',
    });
    expect((await selectorsOf('time'))![0]!.value).toBe('t=10,20');
  });
  test('as a drawing that refines its words, or its page; on a picture as it is', async () => {
    expect(await selectorsOf('words')).toEqual([
      {
        type: 'TextQuoteSelector',
        exact: 'The tide',
        prefix: '',
        suffix: ' turns',
        refinedBy: { type: 'SvgSelector', value: expect.stringContaining('d="M0 1.1L4 1.1"') },
      },
    ]);
    expect((await selectorsOf('page'))![0]).toMatchObject({
      type: 'FragmentSelector',
      value: 'page=2',
      refinedBy: {
        type: 'SvgSelector',
        value: expect.stringMatching(/^<svg xmlns="http:\/\/www.w3.org\/2000\/svg" viewBox="0 0 1 1">/),
      },
    });
    expect((await selectorsOf('picture'))![0]).toMatchObject({
      type: 'SvgSelector',
      value: expect.stringContaining('M0.1 0.2L0.5 0.2'),
    });
  });
  test('with its words beside it, so that any program finds the place', async () => {
    for (const name of ['area', 'time', 'page', 'picture'] as const)
      expect((await selectorsOf(name))!.at(-1)).toMatchObject({ type: 'TextQuoteSelector', exact: 'The tide' });
  });
});

test('in study notes it is called what it is', async () => {
  const { text } = await owner.send('GET', `/api/sources/${source.id}/study-notes.md`);
  for (const words of ['the whole source', 'an area of the picture', '0:10 to 0:20', 'drawn with the pen', 'a line'])
    expect(text).toContain(words);
});

test('brought in again by somebody else, everything has its note and its place; a note on the whole still means the whole', async () => {
  const file = await taken();
  const id = await reader.keepText('tide', TEXT);
  const { body } = await reader.send<BroughtIn>(
    'POST',
    `/api/sources/${id}/annotations.jsonld`,
    file.map((a) => ({ ...a, id: undefined })),
  );
  expect(body).toMatchObject({ brought: 6, refused: [] });
  const mine = (await reader.send<Annotation[]>('GET', `/api/sources/${id}/annotations`)).body;
  expect(mine.map((a) => a.note).sort()).toEqual(
    Object.keys(SPOTS)
      .map((name) => `on ${name}`)
      .sort(),
  );
  expect(mine.find((a) => a.note === 'on whole')!.anchor!.spot).toEqual({ type: 'whole' });
  for (const a of mine.filter((other) => other.note !== 'on whole')) expect(a.anchor!.quote.exact).toBe('The tide');
});

test('the same file twice adds nothing, also where its ids are somebody else’s; drawings and answers come back as they were', async () => {
  const answer = v7();
  await owner.send('PUT', `/api/replies/${answer}`, { parentId: ids.words, note: 'an answer' });
  const file = [
    ...(await taken()).reverse(),
    { type: 'Annotation', id: 'http://elsewhere.test/9', target: 'x', bodyValue: 'foreign' },
    { type: 'Annotation', target: 'x', bodyValue: 'nameless' },
  ];
  const id = await reader.keepText('tide, once more', `${TEXT} Once more.`);
  const bring = async () => (await reader.send<BroughtIn>('POST', `/api/sources/${id}/annotations.jsonld`, file)).body;
  const list = async () => (await reader.send<Annotation[]>('GET', `/api/sources/${id}/annotations`)).body;
  expect(await bring()).toEqual({ brought: 9, already: 0, refused: [] });
  const first = await list();
  expect(first.map((a) => a.note).sort()).toEqual(
    [...Object.keys(SPOTS).map((name) => `on ${name}`), 'Owner: an answer', 'foreign', 'nameless'].sort(),
  );
  for (const name of ['words', 'page', 'picture'] as const)
    expect(first.find((a) => a.note === `on ${name}`)!.anchor!.spot).toEqual(SPOTS[name]);
  expect(first.find((a) => a.note === 'Owner: an answer')!.parentId).toBe(first.find((a) => a.note === 'on words')!.id);
  const gone = first.find((a) => a.note === 'foreign')!;
  await reader.send('PATCH', `/api/annotations/${gone.id}`, { version: 1, deleted: true });
  expect(await bring()).toEqual({ brought: 0, already: 9, refused: [] });
  expect((await list()).map((a) => a.id).sort()).toEqual(first.map((a) => a.id).sort());
  // The one whose file it is has everything already.
  expect(
    (await owner.send<BroughtIn>('POST', `/api/sources/${source.id}/annotations.jsonld`, await taken())).body,
  ).toMatchObject({ brought: 0, already: 7 });
  await owner.send('PATCH', `/api/annotations/${answer}`, { version: 1, deleted: true });
});

test('in study notes every mark has its address, and a drawing on words has these', async () => {
  const { text } = await owner.send('GET', `/api/sources/${source.id}/study-notes.md`);
  for (const id of Object.values(ids)) expect(text).toContain(`/source/${source.id}?at=${id}`);
  expect(text).toMatch(/> The tide\n\n† \[\*Note\*\]\([^)]+\) · drawn with the pen/);
});

test('a note on the whole source stands in a version that has none of its words; a mark on words is told as lost', async () => {
  const words = v7();
  await owner.send('PUT', `/api/annotations/${words}`, {
    sourceId: source.id,
    versionId: source.versionId,
    kind: 'claim',
    note: '',
    tags: [],
    classIds: [],
    anchor: { quote: { exact: 'Nobody sees it turn', prefix: '', suffix: '' }, position: { start: 25, end: 44 } },
  });
  await owner.keepAgain(source.id, 'Eels wait below the sill until the water drops, and go out with it before dawn.');
  const now = (await owner.send<Annotation[]>('GET', `/api/sources/${source.id}/annotations`)).body;
  const place = (id: string) => now.find((a) => a.id === id)!.place;
  expect(place(ids.whole)).toMatchObject({ state: 'exact', start: 0, confidence: 1 });
  expect(place(words)).toMatchObject({ state: 'lost', start: null });
});
