import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { v7 } from 'uuid';
import { OTHERS_SEEN, type SourceDetail } from '@avrelle/core/wire';
import { insertAnnotation, setHidden } from '../annotations/queries';
import { setDeleted } from '../sources/queries';
import { startServer, type Server } from '../testing/harness';
import { canRead } from './access-queries';
import { seesAnnotation, seesSource, type AnnotationInWorld, type AssignmentInWorld, type World } from './rule';
import { REACH, sees, seesByReach } from './visible-queries';

const NOW = '2026-10-02T08:00:00.000Z';
const ANNOTATIONS = 8;
let server: Server;
let people: string[];
let classes: string[];
/** Two groups of each class. */
let groups: Readonly<Record<string, readonly string[]>>;
let sources: { id: string; ownerId: string; versionId: string }[];

beforeAll(async () => {
  server = await startServer();
  const clients = await Promise.all(['One', 'Two', 'Three', 'Four'].map((name) => server.person(name)));
  people = clients.map((c) => c.me.id);
  classes = [v7(), v7(), v7()];
  for (const id of classes) await clients[0]!.send('PUT', `/api/classes/${id}`, { name: 'Field Course', tint: 'moss' });
  groups = Object.fromEntries(classes.map((id) => [id, [v7(), v7()]]));
  for (const id of classes) {
    const made = groups[id]!.map((one, n) => ({ id: one, name: `Group ${n}`, personIds: [] }));
    await clients[0]!.send('PUT', `/api/classes/${id}/groups`, { version: 0, groups: made });
  }
  sources = [];
  for (const client of clients.slice(0, 2)) {
    const id = await client.keepText('tide', 'The tide turns at seven.');
    const { versionId } = (await client.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
    sources.push({ id, versionId, ownerId: client.me.id });
  }
});
afterAll(() => server.close());

/** Any memberships, readings, deletions and annotations of these people, classes and sources. */
const worlds = (): fc.Arbitrary<World> => {
  const annotation = fc.record({
    authorId: fc.constantFrom(...people),
    sourceId: fc.constantFrom(...sources.map((s) => s.id)),
    answers: fc.option(fc.nat({ max: ANNOTATIONS - 1 })),
    classIds: fc.subarray(classes),
    teachersOnlyIn: fc.subarray(classes),
    heldIn: fc.subarray(classes),
    groups: fc
      .subarray(classes)
      .chain((some) =>
        fc.tuple(...some.map((id) => fc.constantFrom(...groups[id]!).map((group) => [id, group] as const))),
      )
      .map((some) => Object.fromEntries(some)),
    hiddenIn: fc.subarray(classes),
    deleted: fc.boolean(),
  });
  return fc
    .record({
      members: fc
        .subarray(classes.flatMap((classId) => people.map((personId) => ({ classId, personId }))))
        .chain((some) =>
          fc.tuple(
            ...some.map((m) =>
              fc.record({ teaches: fc.boolean(), groupId: groupIn(m.classId) }).map((as) => ({ ...m, ...as })),
            ),
          ),
        ),
      readings: fc.subarray(classes.flatMap((classId) => sources.map(({ id }) => ({ classId, sourceId: id })))),
      assignments: fc
        .subarray(classes.flatMap((classId) => sources.map(({ id }) => ({ classId, sourceId: id }))))
        .chain((some) => fc.tuple(...some.map((place) => setting(place.classId).map((set) => ({ ...place, ...set }))))),
      deleted: fc.subarray(sources),
      written: fc.array(annotation, { minLength: 1, maxLength: ANNOTATIONS }),
    })
    .map(({ deleted, written, ...rest }) => ({
      ...rest,
      sources: sources.map((s) => ({ ...s, deleted: deleted.includes(s) })),
      annotations: threads(written),
    }));
};

const groupIn = (classId: string) => fc.constantFrom(null, ...groups[classId]!);

const setting = (classId: string) =>
  fc.record({
    groupIds: fc.oneof(fc.constant([]), fc.subarray([...groups[classId]!])),
    isOpen: fc.boolean(),
    othersSeen: fc.constantFrom(...OTHERS_SEEN),
    shown: fc.boolean(),
    given: fc.subarray(people),
    extended: fc.subarray(people),
  });

interface Written extends Omit<AnnotationInWorld, 'id' | 'rootId'> {
  readonly answers: number | null;
}

/** An answer is to an earlier one that stands in the text, of the same source. */
function threads(written: readonly Written[]): readonly AnnotationInWorld[] {
  const made: AnnotationInWorld[] = [];
  for (const { answers, ...one } of written) {
    const root = answers === null ? undefined : made[answers];
    const isRoot = root === undefined || root.rootId !== null;
    made.push({ ...one, id: v7(), rootId: isRoot ? null : root.id, sourceId: isRoot ? one.sourceId : root.sourceId });
  }
  return made;
}

/** Stores a world, asks, and leaves the database as it was. */
function inWorld<T>(world: World, ask: () => T): T {
  const { db } = server.context;
  db.raw.exec('SAVEPOINT world');
  try {
    db.run('DELETE FROM membership');
    for (const { classId, personId, teaches, groupId } of world.members)
      db.run(
        'INSERT INTO membership (class_id, person_id, role, joined_at, group_id) VALUES (?, ?, ?, ?, ?)',
        classId,
        personId,
        teaches ? 'assistant' : 'student',
        NOW,
        groupId,
      );
    for (const { classId, sourceId } of world.readings)
      db.run(
        'INSERT INTO class_source (class_id, source_id, added_by, added_at) VALUES (?, ?, ?, ?)',
        classId,
        sourceId,
        people[0]!,
        NOW,
      );
    world.assignments.forEach(store);
    for (const { id, deleted } of world.sources) setDeleted(db, id, deleted ? NOW : null);
    for (const a of world.annotations) {
      const { versionId } = sources.find((s) => s.id === a.sourceId)!;
      const rest = { versionId, kind: 'note', note: 'A note.', tags: [], anchor: null, parentId: a.rootId };
      const forWhom = (classId: string) => ({
        classId,
        teachersOnly: a.teachersOnlyIn.includes(classId),
        held: a.heldIn.includes(classId),
        groupId: a.groups[classId] ?? null,
      });
      const hide = (classId: string) => setHidden(db, { id: a.id, classId }, { reason: 'No.', by: people[0]! });
      insertAnnotation(db, { ...a, ...rest, classes: a.classIds.map(forWhom) }, NOW);
      for (const classId of a.hiddenIn) hide(classId);
      if (a.deleted) db.run('UPDATE annotation SET deleted_at = ? WHERE id = ?', NOW, a.id);
    }
    return ask();
  } finally {
    db.raw.exec('ROLLBACK TO world; RELEASE world');
  }
}

function store({ classId, sourceId, groupIds, isOpen, othersSeen, shown, given, extended }: AssignmentInWorld): void {
  const { db } = server.context;
  const place = { classId, sourceId };
  db.run(
    `INSERT INTO assignment (class_id, source_id, instructions, marks, answers, is_open, others_seen, shown_at,
       comments, set_by, set_at, for_groups)
     VALUES (@classId, @sourceId, '', '[]', 0, @isOpen, @othersSeen, @shownAt, 1, @me, @now, @forGroups)`,
    {
      ...place,
      isOpen: isOpen ? 1 : 0,
      othersSeen,
      shownAt: shown ? NOW : null,
      me: people[0]!,
      now: NOW,
      forGroups: Number(groupIds.length > 0),
    },
  );
  for (const group of groupIds)
    db.run('INSERT INTO assignment_group VALUES (@classId, @sourceId, @group)', { ...place, group });
  for (const me of given)
    db.run('INSERT INTO own_given VALUES (@classId, @sourceId, @me, @now)', { ...place, me, now: NOW });
  for (const me of extended)
    db.run('INSERT INTO extension VALUES (@classId, @sourceId, @me, @now, 0)', { ...place, me, now: NOW });
}

test('the database sees what the rule says, whoever asks, in any world', () => {
  const { db } = server.context;
  const seen = (condition: string, me: string): string[] =>
    db.all<{ id: string }>(`SELECT x.id FROM annotation x WHERE ${condition}`, { me }).map((r) => r.id);
  const byReach = `x.seq IN (WITH reach AS (${REACH}) SELECT a.seq FROM annotation a WHERE ${seesByReach('a', 'reach')})`;
  fc.assert(
    fc.property(worlds(), (world) =>
      inWorld(world, () => {
        for (const me of people) {
          const expected = world.annotations.filter((a) => seesAnnotation(world, me, a)).map((a) => a.id);
          expect(new Set(seen(sees('x'), me))).toEqual(new Set(expected));
          expect(new Set(seen(byReach, me))).toEqual(new Set(expected));
          for (const { id } of world.sources) expect(canRead(db, me, id)).toBe(seesSource(world, me, id));
        }
      }),
    ),
    { numRuns: 200 },
  );
});
