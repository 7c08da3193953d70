import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import { writeInput } from '../jobs/job-input';
import { ENDPOINTS, STANDINGS, type NamedEndpoint, type Thing } from '@avrelle/core/api';
import type { ClassDetail, Problem, SourceDetail } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';
import { can } from './access';

const NOW = '2026-10-02T08:00:00.000Z';
const PEOPLE = ['owner', 'teacher', 'assistant', 'student', 'stranger'] as const;
type Someone = (typeof PEOPLE)[number];
type Case = readonly [thing: Thing, name: string];

let server: Server;
const people = {} as Record<Someone, Client>;
/** Ids of things, by what they are called in the table below. */
const ids: Record<string, string> = {};

/** What everybody is to everything; who is not named is nothing to it. Written down by hand, from the rules of the house. */
const TABLE: readonly (readonly [...Case, Readonly<Partial<Record<Someone, string>>>])[] = [
  ['source', 'shared source', { owner: 'owner', teacher: 'reader', assistant: 'reader', student: 'reader' }],
  ['source', 'own source', { owner: 'owner' }],
  ['source', 'deleted source', {}],
  ['deleted source', 'deleted source', { owner: 'owner' }],
  ['deleted source', 'own source', {}],
  ['version', 'shared version', { owner: 'reader', teacher: 'reader', assistant: 'reader', student: 'reader' }],
  ['version', 'own version', { owner: 'reader' }],
  [
    'collection',
    'open collection',
    { owner: 'owner', teacher: 'contributor', assistant: 'contributor', student: 'contributor' },
  ],
  ['collection', 'shown collection', { owner: 'owner', teacher: 'reader', assistant: 'reader', student: 'reader' }],
  ['collection', 'own collection', { owner: 'owner' }],
  ['saved search', 'shown search', { owner: 'owner', teacher: 'reader', assistant: 'reader', student: 'reader' }],
  ['saved search', 'own search', { owner: 'owner' }],
  ['class', 'class', { owner: 'student', teacher: 'teacher', assistant: 'assistant', student: 'student' }],
  ['class', 'deleted class', {}],
  ['deleted class', 'deleted class', { teacher: 'teacher' }],
  ['deleted class', 'class', {}],
  ['kinds', 'class', { owner: 'reader', teacher: 'owner', assistant: 'owner', student: 'reader' }],
  ['kinds', 'owner', { owner: 'owner' }],
  ['job', 'job', { owner: 'owner' }],
  ['draft', 'draft', { owner: 'owner' }],
  ['feed', 'feed', { owner: 'owner' }],
  ['list', 'list', { owner: 'owner' }],
  ['study note', 'note', { owner: 'owner' }],
  ['study note', 'deleted note', {}],
  ['deleted study note', 'deleted note', { owner: 'owner' }],
  ['deleted study note', 'note', {}],
  ['card', 'card', { owner: 'owner' }],
  ['card', 'class card', { teacher: 'owner', owner: 'learner', student: 'learner' }],
  ['card', 'deleted card', {}],
  ['deleted card', 'deleted card', { owner: 'owner' }],
  ['deleted card', 'card', {}],
];

beforeAll(async () => {
  server = await startServer();
  for (const name of PEOPLE) people[name] = await server.person(name);
  for (const name of ['class', 'deleted class']) await makeClass(name);
  await makeSources();
  await makeShelves();
  await makeNotes();
  await people.teacher.send('DELETE', `/api/classes/${ids['deleted class']}`);
  makeRows();
  ids.owner = people.owner.me.id;
});
afterAll(() => server.close());

async function makeClass(name: string): Promise<void> {
  const { teacher, assistant, student, owner } = people;
  const id = (ids[name] = v7());
  await teacher.send('PUT', `/api/classes/${id}`, { name: 'Field Course', tint: 'tide' });
  const { code } = (await teacher.send<ClassDetail>('GET', `/api/classes/${id}`)).body;
  for (const member of [assistant, student, owner]) await member.send('POST', '/api/classes/join', { code });
  await teacher.send('PUT', `/api/classes/${id}/members/${assistant.me.id}`, { role: 'assistant' });
}

async function makeSources(): Promise<void> {
  const { owner } = people;
  for (const name of ['shared', 'own', 'deleted']) {
    const id = (ids[`${name} source`] = await owner.keepText(name, `The ${name} tide turns at seven.`));
    ids[`${name} version`] = (await owner.send<SourceDetail>('GET', `/api/sources/${id}`)).body.versionId;
  }
  await owner.send('PUT', `/api/classes/${ids.class}/sources/${ids['shared source']}`);
  await owner.send('DELETE', `/api/sources/${ids['deleted source']}`);
}

async function makeShelves(): Promise<void> {
  const { owner } = people;
  for (const [name, more] of [
    ['open', { classId: ids.class, may: 'add' }],
    ['shown', { classId: ids.class }],
    ['own', {}],
  ] as const) {
    ids[`${name} collection`] = v7();
    ids[`${name} search`] = v7();
    await owner.send('PUT', `/api/collections/${ids[`${name} collection`]}`, { name, ...more });
    const shown = 'classId' in more ? { classId: more.classId } : {};
    await owner.send('PUT', `/api/searches/${ids[`${name} search`]}`, { name, query: 'tide', ...shown });
  }
}

async function makeNotes(): Promise<void> {
  for (const name of ['note', 'deleted note']) {
    ids[name] = v7();
    await people.owner.send('PUT', `/api/notes/${ids[name]}`, { title: name, markdown: 'Mud.' });
  }
  await people.owner.send('PATCH', `/api/notes/${ids['deleted note']}`, { version: 2, deleted: true });
  for (const name of ['card', 'deleted card']) {
    ids[name] = v7();
    await people.owner.send('PUT', `/api/cards/${ids[name]}`, { question: name, answer: 'Mud.' });
  }
  await people.owner.send('PATCH', `/api/cards/${ids['deleted card']}`, { version: 1, deleted: true });
  const card = (ids['class card'] = v7());
  await people.teacher.send('PUT', `/api/cards/${card}`, { question: 'Of the class', answer: 'Mud.' });
  await people.teacher.send('PUT', `/api/classes/${ids.class}/cards`, { cardIds: [card] });
}

/** What only work of its own would make. */
function makeRows(): void {
  const { db } = server.context;
  const me = people.owner.me.id;
  for (const name of ['job', 'draft', 'feed', 'list']) ids[name] = v7();
  const { snapshotHash: hash } = db.get<{ snapshotHash: string }>('SELECT snapshot_hash FROM source_version LIMIT 1')!;
  const input = writeInput({
    origin: { type: 'address', address: 'http://tide.saltmere.test/' },
    target: { type: 'draft' },
  });
  const made: Readonly<Record<string, Readonly<Record<string, string | number>>>> = {
    job: { id: ids.job!, label: 'Tide', input, state: 'done', step: '', progress: 1, created_at: NOW },
    draft: { id: ids.draft!, content: '{}', snapshot_hash: hash, created_at: NOW },
    feed: { id: ids.feed!, address: 'http://tide.saltmere.test/', title: '', site: '', added_at: NOW, checked_at: NOW },
    batch: { id: ids.list!, label: 'Tides', created_at: NOW },
  };
  for (const [table, row] of Object.entries(made)) {
    const names = [...Object.keys(row), 'person_id'];
    db.run(`INSERT INTO ${table} (${names}) VALUES (${names.map((n) => `@${n}`)})`, { ...row, person_id: me });
  }
}

test('everybody is to everything what the table says, and no more', () => {
  const found = TABLE.map(([thing, name]) => [
    thing,
    name,
    Object.fromEntries(PEOPLE.flatMap((who) => highest(who, thing, name).map((standing) => [who, standing]))),
  ]);
  expect(found).toEqual(TABLE.map((row) => [...row]));
});

const highest = (who: Someone, thing: Thing, name: string): readonly string[] =>
  STANDINGS[thing]
    .filter((as) => can(server.context.db, people[who].me.id, { thing, as } as never, ids[name]!))
    .slice(-1);

const rank = (thing: Thing, standing: string | undefined): number =>
  standing === undefined ? -1 : (STANDINGS[thing] as readonly string[]).indexOf(standing);

describe('every endpoint about a thing refuses whoever is not enough to it, and changes nothing', () => {
  for (const endpoint of ENDPOINTS.filter((e) => e.may))
    test(`${endpoint.method} ${endpoint.path}`, async () => {
      const before = changes();
      let asked = 0;
      for (const [thing, name, of] of TABLE.filter(([t]) => t === endpoint.may!.thing))
        for (const who of PEOPLE.filter((w) => rank(thing, of[w]) < rank(thing, endpoint.may!.as))) {
          asked++;
          const { status, body } = await people[who].send<Problem>(endpoint.method, urlOf(endpoint, ids[name]!), {});
          const seen = of[who] !== undefined;
          expect([who, name, status, body.code]).toEqual([
            who,
            name,
            seen ? 403 : 404,
            seen ? expect.stringMatching(/^(not_yours|teachers_only)$/) : 'not_found',
          ]);
        }
      expect([asked > 0, changes()]).toEqual([true, before]);
    });
});

describe('every endpoint that is not public refuses strangers before all else', () => {
  for (const endpoint of ENDPOINTS.filter((e) => e.who !== 'public'))
    test(`${endpoint.method} ${endpoint.path}`, async () => {
      const { status, body } = await server.nobody.send<Problem>(endpoint.method, urlOf(endpoint, 'no id'), { no: 1 });
      expect([status, body.code]).toEqual([401, 'signed_out']);
    });
});

const changes = (): unknown => server.context.db.get('SELECT total_changes() AS n');

const urlOf = ({ path }: NamedEndpoint, id: string): string =>
  path.replace(':id', encodeURIComponent(id)).replace(':hash', 'a'.repeat(64)).replace(/:\w+/g, people.student.me.id);
