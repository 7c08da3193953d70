import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { v7 } from 'uuid';
import type { Annotation } from '@avrelle/core/wire';
import { makeClass, makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { putTideMark } from '../testing/tide-mark';

/*
 * Whatever is done, in whatever order: the further classes in which a note stands are those that the rule in plain words
 * gives, and the note is found by just these.
 */
let server: Server;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

interface Row {
  readonly id: string;
  readonly authorId: string;
  readonly rootId: string | null;
  readonly createdAt: string;
  readonly audience: string;
  readonly classId: string;
  readonly plain: number;
  readonly fromClass: string | null;
  readonly hidden: number;
}
const ROWS = `
  SELECT a.id, a.author_id, a.root_id, a.created_at, a.audience, ac.class_id, ac.from_class, ac.hidden_reason IS NOT NULL AS hidden,
    ac.teachers_only = 0 AND ac.held = 0 AND ac.hidden_reason IS NULL AS plain
  FROM annotation a JOIN annotation_class ac ON ac.annotation_id = a.id WHERE a.source_id = ?`;

/** Two classes with a student each, both taught by one; and what is asked of the server for them. */
class World {
  readonly marks: string[] = [];
  private constructor(
    readonly teacher: Client,
    readonly classes: readonly { readonly id: string; readonly student: Client }[],
    readonly sourceId: string,
    readonly versionId: string,
  ) {}

  static async make(people: readonly [Client, Client, Client]): Promise<World> {
    const [teacher, one, two] = people;
    const { id, sourceId, versionId } = await makeReadingClass(teacher, one);
    const second = await makeClass(teacher, 'Second', two);
    await teacher.send('PUT', `/api/classes/${second}/sources/${sourceId}`);
    return new World(
      teacher,
      [
        { id, student: one },
        { id: second, student: two },
      ],
      sourceId,
      versionId,
    );
  }

  private readonly url = (n: number): string => `/api/classes/${this.classes[n]!.id}`;

  async together(on: boolean): Promise<void> {
    const url = `${this.url(0)}/assignments/${this.sourceId}`;
    if (on) await this.teacher.send('PUT', url, { alsoIn: [this.classes[1]!.id], together: true });
    else await this.teacher.send('DELETE', url);
  }
  async reads(n: number, on: boolean): Promise<void> {
    await this.teacher.send(on ? 'PUT' : 'DELETE', `${this.url(n)}/sources/${this.sourceId}`);
  }
  async write(n: number, isTeacher: boolean, more: object): Promise<void> {
    const { id, student } = this.classes[n]!;
    const place = { id, sourceId: this.sourceId, versionId: this.versionId };
    // Where the class does not read it, nothing is written for it.
    const made = await putTideMark(isTeacher ? this.teacher : student, place, more).catch(() => undefined);
    if (made) this.marks.push(made);
  }
  async answer(n: number, which: number): Promise<void> {
    const parentId = this.marks[which % Math.max(1, this.marks.length)];
    if (parentId) await this.classes[n]!.student.send('PUT', `/api/replies/${v7()}`, { parentId, note: 'Yes.' });
  }
  async change(which: number, fields: object): Promise<void> {
    const id = this.marks[which % Math.max(1, this.marks.length)];
    for (const who of [this.teacher, ...this.classes.map(({ student }) => student)]) {
      const { body, status } = await who.send<Annotation>('GET', `/api/annotations/${id}`);
      if (status === 200 && body.author.id === who.me.id)
        await who.send('PATCH', `/api/annotations/${id}`, { version: body.version, ...fields });
    }
  }
  async hide(n: number, which: number, reason: string | null): Promise<void> {
    const id = this.marks[which % Math.max(1, this.marks.length)];
    if (id) await this.teacher.send('PUT', `${this.url(n)}/annotations/${id}/hidden`, { reason });
  }

  /** What is not as the rule says, in words. */
  wrong(): readonly string[] {
    const { db } = server.context;
    const rows = db.all<Row>(ROWS, this.sourceId);
    const reading = new Set(
      db
        .all<{ classId: string }>('SELECT class_id FROM class_source WHERE source_id = ?', this.sourceId)
        .map((r) => r.classId),
    );
    const set = db.all<{ classId: string; togetherId: string | null; togetherSince: string }>(
      'SELECT class_id, together_id, together_since FROM assignment WHERE source_id = ?',
      this.sourceId,
    );
    const said = rows.filter((row) => row.fromClass === null);
    const further = (row: Row): string[] =>
      set.flatMap((own) => {
        if (own.classId !== row.classId || own.togetherId === null || !row.plain || !reading.has(own.classId))
          return [];
        // What students wrote before stays in their class.
        if (row.createdAt < own.togetherSince && row.authorId !== this.teacher.me.id) return [];
        return set
          .filter((o) => o.togetherId === own.togetherId && o.classId !== own.classId && reading.has(o.classId))
          .filter((o) => row.rootId === null || rows.some((r) => r.id === row.rootId && r.classId === o.classId))
          .filter((o) => !said.some((r) => r.id === row.id && r.classId === o.classId))
          .map((o) => `${row.id} in ${o.classId}`);
      });
    const due = new Set(said.flatMap(further));
    const there = rows.filter((r) => r.fromClass !== null && !r.hidden).map((r) => `${r.id} in ${r.classId}`);
    const hidden = new Set(rows.filter((r) => r.fromClass !== null && r.hidden).map((r) => `${r.id} in ${r.classId}`));
    return [
      ...there.filter((one) => !due.has(one)).map((one) => `${one} is not due`),
      ...[...due].filter((one) => !there.includes(one) && !hidden.has(one)).map((one) => `${one} is missing`),
      ...rows
        .filter((r) => r.plain && !r.audience.includes(`c${r.classId.replaceAll('-', '')}`))
        .map((r) => `${r.id} is not found by ${r.classId}`),
      ...rows
        .filter(
          (r) =>
            r.audience.split(' ').filter((token) => token.startsWith('c')).length >
            rows.filter((o) => o.id === r.id && o.plain).length,
        )
        .map((r) => `${r.id} is found by more than it is for`),
    ];
  }
}

const which = fc.nat(5);
const n = fc.integer({ min: 0, max: 1 });
const both = fc.boolean();
const STEPS = fc.oneof(
  fc.tuple(fc.constant('together'), both),
  fc.tuple(fc.constant('reads'), n, both),
  fc.tuple(fc.constant('write'), n, both, fc.constantFrom({}, { teachersOnly: true })),
  fc.tuple(fc.constant('answer'), n, which),
  fc.tuple(
    fc.constant('change'),
    which,
    fc.constantFrom({ note: 'Else.' }, { teachersOnly: true }, { teachersOnly: false }),
  ),
  fc.tuple(fc.constant('hide'), n, which, fc.constantFrom('Loud.', null)),
) as fc.Arbitrary<readonly [keyof World, ...unknown[]]>;

test('whatever is done, a note stands where the rule says, and is found by just these classes', async () => {
  const people = await Promise.all(['Teacher', 'One', 'Two'].map((name) => server.person(name)));
  await fc.assert(
    fc.asyncProperty(fc.array(STEPS, { minLength: 4, maxLength: 14 }), async (steps) => {
      const world = await World.make(people as [Client, Client, Client]);
      await world.together(true);
      for (const [name, ...given] of steps) {
        await (world[name] as (...of: unknown[]) => Promise<void>).apply(world, given);
        expect(world.wrong()).toEqual([]);
      }
    }),
    { numRuns: 100 },
  );
});
