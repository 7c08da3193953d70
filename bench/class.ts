import fs from 'node:fs';
import path from 'node:path';
import { v7 } from 'uuid';
import { describe, indexText } from '@avrelle/core/anchor';
import { STARTING_LEGEND } from '@avrelle/core/legend';
import { range } from '@avrelle/core/text';
import type { Annotation, AssignmentDetail, SourceText } from '@avrelle/core/wire';
import { buildApp } from '../server/app';
import { putAnnotation } from '../server/annotations/write';
import { addClassSource } from '../server/classes/queries';
import type { Context } from '../server/context';
import { sourceDetail } from '../server/sources/queries';
import { classReading } from '../web/classes/reading/class-reading';
import { atMost, figure, prose, seeded, time, type Bench, type Result } from './measure';
import { folder, largeClass, open, store } from './server';

const NOW = '2026-11-23T10:00:00.000Z';
const LENGTH = 40_000;
const RUNS = 7;
const HELD = 500;

interface World {
  readonly context: Context;
  readonly people: readonly string[];
  readonly classId: string;
  readonly sourceId: string;
}

/** Marks of somebody for the class, dealt over the text. */
function marks({ context, people, classId, sourceId }: World, count: number, by: (n: number) => number, held = false) {
  const { db } = context;
  const { versionId, length } = sourceDetail(db, people[0]!, sourceId)!;
  const text = prose(LENGTH, seeded(11)).slice(0, length);
  const index = indexText(text);
  const random = seeded(12);
  return db.transaction(() =>
    Array.from({ length: count }, (_, n) => {
      const start = Math.floor(random() * (text.length - 80));
      const id = v7();
      const put = {
        ...{ sourceId, versionId, note: n % 3 === 0 ? 'Why here?' : '', tags: [], classIds: [classId], held },
        kind: STARTING_LEGEND[n % STARTING_LEGEND.length]!.code,
        anchor: describe(index, range(start, start + 60)),
      };
      const who = by(n);
      putAnnotation(context, { id: people[who]!, name: `Reader ${who}`, email: '', role: 'member' }, id, put);
      return id;
    }),
  );
}

const middle = (times: readonly number[]): number => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)]!;
async function median(work: () => Promise<unknown>): Promise<number> {
  const times: number[] = [];
  for (let n = 0; n < RUNS; n++) times.push(await time(work));
  return middle(times);
}

/** Opening a class's reading and how it was read, in a class of so many with so many marks; then 500 are released. */
async function ofClass(students: number, count: number, isBarred: boolean): Promise<readonly Result[]> {
  const dir = folder();
  const context = open(path.join(dir, 'a.db'));
  const { people, classId, cookies } = largeClass(context, students + 1);
  const sourceId = store(context, people[0]!, 'A reading', prose(LENGTH, seeded(11)));
  addClassSource(context.db, { classId, sourceId, personId: people[0]! }, NOW);
  const world = { context, people, classId, sourceId };
  const app = await buildApp(context);
  const ask = async (who: number, url: string, body?: object, method: 'GET' | 'POST' | 'PUT' = 'GET') => {
    const asked = { method, url, headers: { cookie: cookies[who]! } };
    const answer = await app.inject(body ? { ...asked, payload: body } : asked);
    if (answer.statusCode >= 300) throw new Error(answer.body);
    return answer;
  };
  const place = `/api/classes/${classId}/assignments/${sourceId}`;
  await ask(0, place, { answers: 1 }, 'PUT');
  // A teacher follows the source, so that their Desk has something to say of everybody.
  await ask(0, `/api/sources/${sourceId}/followed`, { following: true }, 'PUT');
  marks(world, count, (n) => 1 + (n % students));
  const opens = await median(() =>
    Promise.all(
      [
        `/api/sources/${sourceId}`,
        `/api/sources/${sourceId}/text`,
        `/api/sources/${sourceId}/annotations`,
        '/api/assignments',
      ].map((url) => ask(1, url)),
    ),
  );
  const reads = await median(() => ask(0, place));
  const table = await median(() => ask(0, `${place}/students.csv`));
  const text = (await ask(0, `/api/sources/${sourceId}/text`)).json<SourceText>();
  const all = (await ask(0, `/api/sources/${sourceId}/annotations`)).json<Annotation[]>();
  const { students: each } = (await ask(0, place)).json<AssignmentDetail>();
  const of = { classIds: [classId], students: each.map((s) => s.id), teachers: [people[0]!] };
  const picture = await median(() => Promise.resolve(classReading(text, all, of, 'en')));
  const desk = await median(() => ask(0, '/api/desk'));
  const page = await median(() => ask(0, `/api/classes/${classId}/assignments`));
  const annotationIds = marks(world, HELD, () => 0, true);
  const releasing = await time(() => ask(0, `/api/classes/${classId}/held/release`, { annotationIds }, 'POST'));
  await app.close();
  context.db.close();
  fs.rmSync(dir, { recursive: true });
  const what = `class of ${students}, ${count.toLocaleString('en')} annotations`;
  const of1 = (work: string, value: number, limit: number): Result =>
    isBarred ? atMost(`${what}: ${work}`, value, 'ms', limit) : figure(`${what}: ${work}`, value, 'ms');
  return [
    of1('what opening it asks the server for', opens, 1_000),
    of1('how the class read it, in the server', reads, 200),
    of1('the same as a table', table, 200),
    figure(`${what}: its picture computed in the browser`, picture, 'ms'),
    figure(`${what}: Desk of a teacher who follows the source`, desk, 'ms'),
    figure(`${what}: readings on the page of the class`, page, 'ms'),
    of1(`${HELD} held comments released, each student told once`, releasing, 1_000),
  ];
}

export const classReadings: Bench = async () => [
  ...(await ofClass(40, 2_000, true)),
  ...(await ofClass(300, 6_000, false)),
];
