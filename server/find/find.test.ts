import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { v7 } from 'uuid';
import { NAMES, writeQuery, type Query } from '@avrelle/core/query';
import { ANNOTATION_GROUPINGS, type AnnotationPage, type SourceDetail, type SourcePage } from '@avrelle/core/wire';
import { NOTES, TEXTS } from '../testing/search-texts';
import { slowMarks, slowSources, worldOf } from '../testing/slow-search';
import { startServer, type Client, type Server } from '../testing/harness';
import { askerOf } from './asker-of';
import { findAnnotations, findSources } from './find';

let server: Server;
let me: Client;
let other: Client;
const ids: Record<string, string> = {};
const TODAY = new Date().toISOString().slice(0, 10);

beforeAll(async () => {
  server = await startServer();
  [me, other] = [await server.person('Ines Kestle'), await server.person('Tomas Rell')];
  const classId = v7();
  const hidden = v7();
  await other.send('PUT', `/api/classes/${classId}`, { name: 'Course B', tint: 'tide' });
  const { code } = (await other.send<{ code: string }>('GET', `/api/classes/${classId}`)).body;
  await me.send('POST', '/api/classes/join', { code });
  for (const [title, text, mine] of TEXTS) {
    const who = mine ? me : other;
    const id = (ids[title] = await who.keepText(title, text));
    await who.send('PUT', `/api/classes/${classId}/sources/${id}`, {});
  }
  ids.hidden = await other.keepText('Hidden', 'Only its owner reads of mud and eels here.');
  for (const [title, quote, note, kind, tags, shared] of NOTES) {
    const who = TEXTS.find(([t]) => t === title)![2] ? me : other;
    const source = (await who.send<SourceDetail>('GET', `/api/sources/${ids[title]}`)).body;
    const at = TEXTS.find(([t]) => t === title)![1].indexOf(quote);
    const sent = await who.send('PUT', `/api/annotations/${v7()}`, {
      sourceId: source.id,
      versionId: source.versionId,
      kind,
      note,
      tags,
      anchor: { quote: { exact: quote, prefix: '', suffix: '' }, position: { start: at, end: at + quote.length } },
      classIds: shared ? [classId] : [],
    });
    expect([sent.status, title]).toEqual([200, title]);
  }
  const [root] = (await me.send<AnnotationPage>('GET', '/api/annotations?q=eels')).body.annotations;
  await me.send('PUT', `/api/replies/${v7()}`, { parentId: root!.id, note: 'Bram says there are more of them again' });
  await me.send('PUT', `/api/sources/${ids.Levées}/tags`, { tags: ['accretion', 'essay'] });
  await me.send('PUT', `/api/sources/${ids.Levées}/shelf`, { state: 'reading', spans: [[0, 60]], position: 20 });
  await me.send('PUT', `/api/sources/${ids['Mud and marsh']}/shelf`, { state: 'finished' });
  const before = (await me.send<SourceDetail>('GET', `/api/sources/${ids['Mud and marsh']}`)).body;
  await me.send('PATCH', `/api/sources/${before.id}`, {
    version: before.version,
    author: 'Odile Farrant',
    site: 'Estuary Review',
    language: 'en-GB',
    publishedAt: '2025',
    remark: 'kept for the essay',
  });
  server.context.db.run(
    "INSERT INTO collection (id, owner_id, name, created_at) VALUES ('c1', ?, 'Oral history', '2026')",
    me.me.id,
  );
  server.context.db.run("INSERT INTO collection_item VALUES ('c1', ?, -1, 0, ?, '2026')", ids.Eels!, me.me.id);
  server.context.db.run(
    "INSERT INTO collection (id, owner_id, name, created_at) VALUES (?, ?, 'Not mine', '2026')",
    hidden,
    other.me.id,
  );
});
afterAll(() => server.close());

const asker = () => askerOf(server.context, me.me.id, { day: TODAY, ahead: 0 });
const sources = async (q: string, more = ''): Promise<SourcePage> =>
  (await me.send<SourcePage>('GET', `/api/sources?q=${encodeURIComponent(q)}${more}`)).body;
const titles = async (q: string): Promise<string[]> => (await sources(q)).sources.map((s) => s.title).sort();
const notes = async (q: string): Promise<AnnotationPage> =>
  (await me.send<AnnotationPage>('GET', `/api/annotations?q=${encodeURIComponent(q)}`)).body;

describe('sources', () => {
  test.each<[string, string[]]>([
    ['marsh', ['Eels', 'Mud and marsh']],
    ['levee', ['Levées']],
    ['LEV', ['Levées']],
    ['"lev"', []],
    ['"salt pan"', ['Levées']],
    ['"pan salt"', []],
    ['sea-lavender', ['Mud and marsh']],
    ['strasse', []],
    ['straße', ['Straße am Ufer']],
    ['泥', ['潮と泥']],
    ['干潟', ['潮と泥']],
    ['潟干', []],
    ['glossary', ['Levées']],
    ['title:eels', ['Eels']],
    ['text:eels', ['Eels', 'The keeper’s book']],
    ['quote:eels', ['The keeper’s book']],
    ['note:bram', ['The keeper’s book']],
    ['essay', ['Mud and marsh']],
    ['tag:essay', ['Levées']],
    ['tag:plants', ['Mud and marsh']],
    ['in:"course b" -is:mine', ['Eels', 'The keeper’s book']],
    ['in:"Oral history"', ['Eels']],
    ['in:"Not mine"', []],
    ['by:farrant', ['Mud and marsh']],
    ['by:%', []],
    ['by:_d', []],
    ['site:\\', []],
    ['site:review lang:en', ['Mud and marsh']],
    ['kind:doubt', []],
    ['kind:question', ['Mud and marsh', 'The keeper’s book']],
    ['is:reading OR is:finished', ['Levées', 'Mud and marsh']],
    ['published:2025', ['Mud and marsh']],
    ['has:remark', ['Mud and marsh']],
    ['has:answer', ['The keeper’s book']],
    ['progress:1..99', ['Levées']],
    ['marks>=2', ['Mud and marsh']],
    ['marsh & mud', ['Mud and marsh']],
    ['saved:today -eels', ['Levées', 'Mud and marsh', 'Straße am Ufer', '潮と泥']],
  ])('%s', async (q, expected) => expect(await titles(q)).toEqual([...expected].sort()));

  test('what bears words in its title comes before what only holds them in its text', async () =>
    expect((await sources('eels')).sources.map((s) => s.title)).toEqual(['Eels', 'The keeper’s book']));
  test('the first passage in which words stand is given with its place in the text', async () => {
    const [found] = (await sources('coarser silt', '&passages=yes')).sources;
    const { snippet, start, end } = found!.passage!;
    expect(TEXTS[0]![1].slice(start, end)).toBe('coarser');
    expect(snippet.filter((s) => s.hit).map((s) => s.text)).toEqual(['coarser', 'silt']);
  });
  test('pages of a list hold each source once, in the order that was asked for', async () => {
    const order = (await sources('', '&sort=title')).sources.map((s) => s.id);
    const paged = await Promise.all([0, 2, 4, 6].map((offset) => sources('', `&sort=title&limit=2&offset=${offset}`)));
    expect(paged.flatMap((p) => p.sources.map((s) => s.id))).toEqual(order);
    expect(paged.map((p) => p.total)).toEqual([6, 6, 6, 6]);
  });
});

describe('annotations', () => {
  test.each<[string, number]>([
    ['', 6],
    ['eels', 1],
    ['bram', 2],
    ['kind:term', 2],
    ['tag:essay', 2],
    ['has:answer', 1],
    ['by:tomas', 1],
    ['is:mine', 5],
    ['note:泥', 1],
    ['title:levees', 1],
    ['is:finished', 2],
    ['in:"Course B"', 4],
  ])('%s', async (q, total) => expect((await notes(q)).total).toBe(total));
  test('an answer opens at what it answers and is found by its own words', async () => {
    const [hit] = (await notes('"more of them"')).annotations;
    expect(hit).toMatchObject({ rootId: hit!.openAt, kind: { code: 'question' }, author: { name: 'Ines Kestle' } });
    expect(hit!.note.filter((s) => s.hit).map((s) => s.text)).toEqual(['more of them']);
  });
  test('are listed group by group, every group with how many it has in all, part by part', async () => {
    const listed = async (by: string, more = '') =>
      (
        await me.send<AnnotationPage>(
          'GET',
          `/api/annotations?q=${encodeURIComponent('has:mark')}${by && `&by=${by}`}${more}`,
        )
      ).body;
    const all = (await listed('')).annotations.map((a) => a.id);
    for (const by of ANNOTATION_GROUPINGS) {
      const page = await listed(by);
      const totals = Object.fromEntries(page.groups.map((g) => [g.key, g.total]));
      expect([page.by, page.total, page.listed]).toEqual([by, 5, by === 'tag' ? 6 : 5]);
      // Each group stands together, and holds as many as it says.
      const keys = page.annotations.map((a) => a.group!);
      const runs = keys.filter((key, n) => key !== keys[n - 1]);
      expect(runs).toEqual(page.groups.map((g) => g.key));
      expect(Object.fromEntries(runs.map((key) => [key, keys.filter((k) => k === key).length]))).toEqual(totals);
      expect(new Set(page.annotations.map((a) => a.id))).toEqual(new Set(all));
      // The same, a part at a time.
      const parts = await Promise.all(
        Array.from({ length: page.listed }, (_, n) => listed(by, `&limit=1&offset=${n}`)),
      );
      expect(parts.flatMap((p) => p.annotations.map((a) => `${a.group} ${a.id}`))).toEqual(
        page.annotations.map((a) => `${a.group} ${a.id}`),
      );
      expect(parts.every((p) => p.groups.length === 1 && p.groups[0]!.total === totals[p.groups[0]!.key])).toBe(true);
    }
    expect((await listed('tag')).groups.map((g) => g.key)).toEqual(['essay', 'essay/opening', 'plants', 'words', '']);
    expect((await listed('person')).groups.map((g) => g.name).toSorted()).toEqual(['Ines Kestle', 'Tomas Rell']);
  });
  test('of people and sources that only share a name, each has a group of its own; days go backwards', async () => {
    const twin = await server.person('Ines Twin');
    const name = await twin.keepText('Levées', 'Another text of that name.');
    const { versionId } = (await twin.send<SourceDetail>('GET', `/api/sources/${name}`)).body;
    const classId = (await me.send<SourceDetail>('GET', `/api/sources/${ids.Levées}`)).body.classes[0]!.id;
    const { code } = (await other.send<{ code: string }>('GET', `/api/classes/${classId}`)).body;
    await twin.send('POST', '/api/classes/join', { code });
    await twin.send('PUT', `/api/classes/${classId}/sources/${name}`, {});
    const mark = v7();
    await twin.send('PUT', `/api/annotations/${mark}`, {
      sourceId: name,
      versionId,
      kind: 'claim',
      note: 'zzz',
      tags: [],
      anchor: { quote: { exact: 'Another', prefix: '', suffix: '' }, position: { start: 0, end: 7 } },
      classIds: [classId],
    });
    server.context.db.run("UPDATE person SET name = 'Ines Kestle' WHERE id = ?", twin.me.id);
    server.context.db.run("UPDATE annotation SET created_at = '2026-01-01T23:30:00.000Z' WHERE id = ?", mark);
    const groups = async (by: string, more = '') =>
      (await me.send<AnnotationPage>('GET', `/api/annotations?by=${by}${more}`)).body.groups;
    expect((await groups('person')).filter((g) => g.name === 'Ines Kestle')).toHaveLength(2);
    expect((await groups('source')).filter((g) => g.name === 'Levées')).toHaveLength(2);
    expect([(await groups('day')).at(-1)!.key, (await groups('day', '&ahead=60')).at(-1)!.key]).toEqual([
      '2026-01-01',
      '2026-01-02',
    ]);
    await twin.send('PATCH', `/api/annotations/${mark}`, { version: 1, deleted: true });
  });
  test('a note is found while it stands, and no more when it is changed, deleted, or for others', async () => {
    const id = v7();
    const source = (await me.send<SourceDetail>('GET', `/api/sources/${ids.Levées}`)).body;
    const class1 = source.classes[0]!.id;
    await me.send('PUT', `/api/annotations/${id}`, {
      sourceId: source.id,
      versionId: source.versionId,
      kind: 'term',
      note: 'ephemeral',
      tags: [],
      anchor: { quote: { exact: 'Near', prefix: '', suffix: '' }, position: { start: 0, end: 4 } },
      classIds: [class1],
    });
    const seen = async (q: string) => [
      (await notes(q)).total,
      (await other.send<AnnotationPage>('GET', `/api/annotations?q=${q}`)).body.total,
    ];
    expect(await seen('ephemeral')).toEqual([1, 1]);
    await me.send('PATCH', `/api/annotations/${id}`, { version: 1, note: 'rewritten', classIds: [] });
    expect([await seen('ephemeral'), await seen('rewritten')]).toEqual([
      [0, 0],
      [1, 0],
    ]);
    await me.send('PATCH', `/api/annotations/${id}`, { version: 2, deleted: true });
    expect(await seen('rewritten')).toEqual([0, 0]);
  });
});

test('a misspelt word is offered as it was probably meant, never a word of what one may not see', async () => {
  const meant = async (q: string) => [(await sources(q)).meant, (await notes(q)).meant];
  expect([await meant('glosary'), await meant('lavendr is:mine'), await meant('-"xyz" "coarsr silt"')]).toEqual([
    ['glossary', 'glossary'],
    ['lavender is:mine', 'lavender is:mine'],
    [undefined, undefined],
  ]);
  await other.keepText('Secret', 'The word quincunx stands in nobody else’s text.');
  expect([
    await meant('quincunz'),
    (await other.send<SourcePage>('GET', '/api/sources?q=quincunz')).body.meant,
  ]).toEqual([[undefined, undefined], 'quincunx']);
  expect((await sources('mud')).meant).toBeUndefined();
});

test('a search finds exactly what a slow, plain reading of the same rows finds', () => {
  const { db } = server.context;
  const world = worldOf(db, me.me.id);
  const who = asker();
  const word = fc.constantFrom(
    'mud',
    'MUD',
    'eel',
    'levee',
    'salt',
    'the',
    'pan',
    'a',
    '泥',
    '干潟',
    'straße',
    '417',
    'lavender',
    'nobody',
    'bram',
    'x',
  );
  const value = {
    tag: ['essay', 'plants', 'essay/opening', 'none'],
    in: ['Course B', 'oral history', 'Not mine'],
    by: ['Farrant', 'ines', 'rell'],
    kind: ['claim', 'Term', 'question', 'odd'],
    site: ['review', 'x'],
    lang: ['en', 'de'],
    type: ['text', 'plain text', 'pdf'],
    is: NAMES.is,
    has: NAMES.has,
  } as const;
  const term = fc.oneof(
    {
      weight: 3,
      arbitrary: fc
        .record({
          type: fc.constant('words' as const),
          words: fc.oneof(
            word,
            fc.tuple(word, word).map((w) => w.join(' ')),
          ),
          phrase: fc.boolean(),
          scope: fc.constantFrom('title' as const, 'text' as const, 'note' as const, 'quote' as const, undefined),
        })
        .map(({ scope, ...t }) => ({ ...t, ...(scope ? { scope } : {}), start: 0, end: 0 })),
    },
    {
      weight: 3,
      arbitrary: fc
        .constantFrom(...(Object.keys(value) as (keyof typeof value)[]))
        .chain((field) =>
          fc.constantFrom(...value[field]).map((v) => ({ type: 'name' as const, field, value: v, start: 0, end: 0 })),
        ),
    },
    fc
      .record({
        type: fc.constant('number' as const),
        field: fc.constantFrom('minutes' as const, 'progress' as const, 'marks' as const),
        least: fc.nat(3),
        open: fc.constantFrom('least' as const, undefined),
      })
      .map(({ open, ...t }) => ({ ...t, ...(open ? { open } : {}), start: 0, end: 0 })),
    fc.record({
      type: fc.constant('date' as const),
      field: fc.constantFrom('saved' as const, 'published' as const),
      operator: fc.constantFrom('=' as const, '<' as const, '>=' as const),
      days: fc.constantFrom(
        { from: '2025-01-01', to: '2025-12-31' },
        { from: TODAY, to: TODAY },
        { last: 2, unit: 'day' as const },
      ),
      start: fc.constant(0),
      end: fc.constant(0),
    }),
  );
  const { query } = fc.letrec<{ query: Query }>((tie) => ({
    query: fc.oneof(
      { maxDepth: 3, withCrossShrink: true },
      term as fc.Arbitrary<Query>,
      tie('query').map((of): Query => ({ type: 'not', of })),
      fc.record({
        type: fc.constantFrom('all' as const, 'any' as const),
        of: fc.array(tie('query'), { minLength: 2, maxLength: 3 }),
      }),
    ),
  }));
  fc.assert(
    fc.property(query, (made) => {
      expect([
        writeQuery(made),
        ...findSources(db, made, who, { sort: 'touched', offset: 0, limit: 50 }).ids.toSorted(),
      ]).toEqual([writeQuery(made), ...slowSources(world, made, TODAY).toSorted()]);
      expect([writeQuery(made), ...findAnnotations(db, made, who, 'best').toSorted((a, b) => a - b)]).toEqual([
        writeQuery(made),
        ...slowMarks(world, made, TODAY).toSorted((a, b) => a - b),
      ]);
    }),
    { numRuns: 1_500 },
  );
});
