import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import { STARTING_LEGEND, type Kind } from '@avrelle/core/legend';
import type {
  Annotation,
  AnnotationPage,
  ClassDetail,
  Legends,
  SourcePage,
  OwnedLegend,
  Replaced,
  SourceDetail,
} from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let author: Client;
let mate: Client;
let teacher: Client;
let classId: string;
let source: SourceDetail;

beforeAll(async () => {
  server = await startServer();
  [author, mate, teacher] = await Promise.all([
    server.person('author'),
    server.person('mate'),
    server.person('teacher'),
  ]);
  classId = v7();
  await teacher.send('PUT', `/api/classes/${classId}`, { name: 'Field Course A', tint: 'tide' });
  const { code } = (await teacher.send<ClassDetail>('GET', `/api/classes/${classId}`)).body;
  for (const who of [author, mate]) await who.send('POST', '/api/classes/join', { code });
  const id = await author.keepText('marsh', 'The marsh keeps its height above the tide.');
  await author.send('PUT', `/api/classes/${classId}/sources/${id}`, {});
  source = (await author.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
});
afterAll(() => server.close());

const mark = async (by: Client, kind: string, classIds: readonly string[] = [classId]): Promise<string> => {
  const id = v7();
  const answer = await by.send('PUT', `/api/annotations/${id}`, {
    sourceId: source.id,
    versionId: source.versionId,
    kind,
    note: 'seen',
    tags: [],
    anchor: { quote: { exact: 'marsh', prefix: 'The ', suffix: ' keeps' }, position: { start: 4, end: 9 } },
    classIds,
  });
  expect(answer.status).toBe(200);
  return id;
};
const legendsOf = async (who: Client): Promise<Legends> => (await who.send<Legends>('GET', '/api/legends')).body;
const put = (who: Client, owner: string, version: number, kinds: readonly object[]) =>
  who.send<OwnedLegend>('PUT', `/api/legends/${owner}`, { version, kinds });
const kindSeen = async (who: Client, id: string): Promise<Kind> =>
  (await who.send<Annotation>('GET', `/api/annotations/${id}`)).body.kind;
const own = (more: Partial<Kind>): Kind => ({
  code: v7(),
  name: 'Method',
  pigment: 'walnut',
  line: 'dotted',
  sign: '≈',
  ...more,
});

test('everybody begins with the starting Legend; what is changed is seen by whoever sees the mark, and nothing else changes', async () => {
  expect((await legendsOf(author)).mine).toMatchObject({ kinds: STARTING_LEGEND, version: 0, mayEdit: true });
  const [mine, theirs] = [await mark(author, 'claim'), await mark(mate, 'claim')];
  const kinds = [{ ...STARTING_LEGEND[1]! }, { ...STARTING_LEGEND[0]!, name: 'Thesis', pigment: 'lichen' as const }];
  expect((await put(author, author.me.id, 0, kinds)).body).toMatchObject({ kinds, version: 1, uses: { claim: 1 } });
  for (const who of [author, mate, teacher])
    expect([await kindSeen(who, mine), await kindSeen(who, theirs)]).toEqual([kinds[1], STARTING_LEGEND[0]]);
  expect(
    (await mate.send<AnnotationPage>('GET', '/api/annotations?q=seen')).body.annotations.map((h) => h.kind.name).sort(),
  ).toEqual(['Claim', 'Thesis']);
  const { body } = await author.send<SourcePage>('GET', '/api/sources');
  expect([
    body.sources[0]!.excerpts[0]!.kind.name,
    body.sources[0]!.strand.marks.map(([, pigment]) => pigment).sort(),
  ]).toEqual(['Thesis', ['lichen', 'weld']]);
  expect((await author.send('GET', `/api/sources/${source.id}/study-notes.md`)).text).toContain('§ [*Thesis*](');
});

test('a kind taken out of the Legend keeps the look of its marks, and comes back as it was', async () => {
  const made = own({ name: 'Aside' });
  const { version, kinds } = (await legendsOf(author)).mine;
  await put(author, author.me.id, version, [...kinds, made]);
  const id = await mark(author, made.code);
  await put(author, author.me.id, version + 1, kinds);
  expect((await legendsOf(author)).mine.kinds).toEqual(kinds);
  expect(await kindSeen(mate, id)).toEqual(made);
  expect(
    (
      await mate.send('PUT', `/api/annotations/${v7()}`, {
        sourceId: source.id,
        versionId: source.versionId,
        kind: made.code,
        note: '',
        tags: [],
        anchor: { quote: { exact: 'marsh', prefix: '', suffix: '' }, position: { start: 4, end: 9 } },
        classIds: [],
      })
    ).status,
  ).toBe(400);
});

test('a class brings a Legend of its own: its teacher makes it, its people mark with it, and only its teacher changes it', async () => {
  const kinds = [own({ name: 'Observed' }), own({ name: 'Inferred', line: 'wavy' })];
  expect((await put(mate, classId, 0, kinds)).status).toBe(403);
  expect((await put(teacher, classId, 0, kinds)).status).toBe(200);
  expect((await legendsOf(mate)).classes).toMatchObject([{ className: 'Field Course A', kinds, mayEdit: false }]);
  const id = await mark(mate, kinds[0]!.code);
  await put(teacher, classId, 1, [{ ...kinds[0]!, name: 'Seen by me' }]);
  expect([await kindSeen(author, id), await kindSeen(mate, id)]).toMatchObject([
    { name: 'Seen by me' },
    { name: 'Seen by me' },
  ]);
  const stranger = await server.person('stranger');
  expect([
    (await put(stranger, classId, 2, kinds)).status,
    (await stranger.send('PUT', `/api/legends/${author.me.id}`, { version: 0, kinds })).status,
  ]).toEqual([404, 404]);
  expect((await put(teacher, classId, 2, [{ ...STARTING_LEGEND[0]! }])).status).toBe(400);
});

test('a kind is replaced throughout, in one’s own marks alone, and that can be taken back', async () => {
  const [a, b, theirs] = [await mark(author, 'doubt'), await mark(author, 'doubt'), await mark(mate, 'doubt')];
  const replace = (from: string, to: string, ids?: readonly string[]) =>
    author.send<Replaced>('POST', `/api/legends/${author.me.id}/replace`, { from, to, ...(ids ? { ids } : {}) });
  const { ids } = (await replace('doubt', 'question')).body;
  expect([...ids].sort()).toEqual([a, b].sort());
  expect([(await kindSeen(author, a)).code, (await kindSeen(author, theirs)).code]).toEqual(['question', 'doubt']);
  await replace('question', 'doubt', [a]);
  expect([(await kindSeen(author, a)).code, (await kindSeen(author, b)).code]).toEqual(['doubt', 'question']);
  expect((await replace('doubt', v7())).status).toBe(400);
});

test.each([
  ['no kind', []],
  ['ten kinds', Array.from({ length: 10 }, (_, n) => own({ name: `k${n}` }))],
  ['a name twice', [own({}), own({ name: 'METHOD' })]],
  ['no name', [own({ name: ' ' })]],
  ['two signs', [own({ sign: '§§' })]],
  ['white space for a sign', [own({ sign: ' ' })]],
  ['a pigment there is not', [{ ...own({}), pigment: 'puce' }]],
  ['the plain note', [{ ...own({}), code: 'note' }]],
])('%s is refused', async (_, kinds) => {
  expect((await put(author, author.me.id, (await legendsOf(author)).mine.version, kinds)).status).toBe(400);
});

test('signs of several code points are one sign; an older version of the Legend does not overwrite a newer one', async () => {
  const { version } = (await legendsOf(author)).mine;
  expect(
    (await put(author, author.me.id, version, [own({ sign: '👩‍🌾' }), own({ name: 'Accent', sign: 'e\u0301' })])).status,
  ).toBe(200);
  expect((await put(author, author.me.id, version, [own({})])).status).toBe(409);
});
