import { expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Ingested } from '../ingest/ingested';
import { directIngester, type Ingester } from '../ingest/ingester';
import { JobRunner } from './job-runner';
import { openDatabase } from '../db/database';
import { migrate, readMigrations } from '../db/migrate';
import { readInput, type JobInput } from './job-input';
import { insertJob, jobOf } from './queries';
import { startServer } from '../testing/harness';

/** An ingester whose work ends when the test says so. */
function held(): { ingester: Ingester; started: string[]; release: () => void } {
  const started: string[] = [];
  const waiting: (() => void)[] = [];
  const real = directIngester({ names: [], privateHosts: [] });
  return {
    started,
    release: () => waiting.splice(0).forEach((go) => go()),
    ingester: {
      ...real,
      run: (input, progress) =>
        new Promise<Ingested>((resolve, reject) => {
          started.push(input.type);
          waiting.push(() => void real.run(input, progress).then(resolve, reject));
        }),
    },
  };
}

test('slow pages of one person leave room for others: nobody has more than a share under way', async () => {
  const work = held();
  const server = await startServer({ ingester: work.ingester });
  const [keeper, other, third] = [
    await server.person('Keeper'),
    await server.person('Other'),
    await server.person('Third'),
  ];
  for (let n = 0; n < 9; n++) await keeper.send('POST', '/api/keep', { id: v7(), address: `http://slow.test/${n}` });
  expect(work.started).toHaveLength(3);
  const id = v7();
  await other.send('POST', '/api/keep', { id, address: 'http://quick.test/' });
  expect(jobOf(server.context.db, other.me.id, id)).toMatchObject({ state: 'running' });
  for (const who of [other, third])
    for (let n = 0; n < 4; n++)
      await who.send('POST', '/api/keep', { id: v7(), address: `http://more.test/${who.me.id}/${n}` });
  const running = server.context.db.all<{ n: number }>(
    "SELECT count(*) AS n FROM job WHERE state = 'running' GROUP BY person_id",
  );
  expect([running.every(({ n }) => n <= 3), running.reduce((sum, { n }) => sum + n, 0)]).toEqual([true, 8]);
  await server.close();
});

test('what a crash interrupted is taken up again at the next start', async () => {
  const work = held();
  const server = await startServer({ ingester: work.ingester });
  const person = await server.person('Keeper');
  const id = v7();
  await person.send('POST', '/api/keep', { id, address: 'http://a.test/' });
  expect(jobOf(server.context.db, person.me.id, id)).toMatchObject({ state: 'running' });
  const again = held();
  new JobRunner({ ...server.context, ingester: again.ingester, log: () => undefined }).start();
  expect(again.started).toEqual(['address']);
  await server.close();
});

test('the same request under the same id is one job', async () => {
  const work = held();
  const server = await startServer({ ingester: work.ingester });
  const person = await server.person('Keeper');
  const id = v7();
  for (let n = 0; n < 2; n++)
    expect((await person.send('POST', '/api/keep', { id, address: 'http://a.test/' })).status).toBe(200);
  expect(work.started).toHaveLength(1);
  expect(
    insertJob(
      server.context.db,
      {
        id,
        personId: person.me.id,
        label: 'x',
        input: { origin: { type: 'address', address: 'http://a.test/' }, target: { type: 'draft' } },
      },
      '2026',
    ),
  ).toBe(false);
  await server.close();
});

test('one does not see another’s jobs', async () => {
  const work = held();
  const server = await startServer({ ingester: work.ingester });
  const [one, other] = [await server.person('One'), await server.person('Other')];
  const id = v7();
  await one.send('POST', '/api/keep', { id, address: 'http://a.test/' });
  expect([
    (await other.send('GET', `/api/jobs/${id}`)).status,
    (await other.send<unknown[]>('GET', '/api/jobs')).body,
  ]).toEqual([404, []]);
  await server.close();
});

test('jobs stored before their work was told apart in kinds are read as they were meant', () => {
  const db = openDatabase(':memory:');
  const migrations = readMigrations();
  migrate(db, migrations.slice(0, 12));
  db.run(
    "INSERT INTO person (id, email, name, password_hash, role, created_at) VALUES ('p', 'p', 'P', 'x', 'member', '2026')",
  );
  const before = {
    page: {
      sourceId: 's',
      address: 'http://a.test/',
      tags: ['tide'],
      remark: 'r',
      polite: true,
      choices: { amount: 'main', width: 800 },
    },
    file: {
      sourceId: 's',
      fileName: 'a.mp3',
      tags: [],
      author: 'A. Brandt',
      again: true,
      transcript: { name: 'a.vtt', hash: 'h' },
    },
    look: { sourceId: 's', address: 'http://a.test/', tags: [], look: true },
    draft: {
      sourceId: 's',
      address: 'http://a.test/',
      tags: [],
      apart: true,
      draft: { id: 'd', title: 'T', author: 'A' },
      choices: { amount: 'whole', width: null },
    },
  };
  for (const [id, input] of Object.entries(before))
    db.run(
      "INSERT INTO job (id, person_id, label, input, state, step, progress, created_at) VALUES (?, 'p', 'x', ?, 'queued', '', 0, '2026')",
      id,
      JSON.stringify(input),
    );
  migrate(db, migrations);
  const read = (id: string): JobInput =>
    readInput(db.get<{ input: string }>('SELECT input FROM job WHERE id = ?', id)!.input);
  expect(Object.keys(before).map(read)).toEqual([
    {
      origin: { type: 'address', address: 'http://a.test/', polite: true, choices: { amount: 'main', width: 800 } },
      target: { type: 'source', sourceId: 's', tags: ['tide'], remark: 'r' },
    },
    {
      origin: { type: 'file', name: 'a.mp3', transcript: { name: 'a.vtt', hash: 'h' } },
      target: { type: 'version', sourceId: 's' },
      overrides: { author: 'A. Brandt' },
    },
    { origin: { type: 'address', address: 'http://a.test/' }, target: { type: 'draft' } },
    {
      origin: { type: 'draft', draftId: 'd', choices: { amount: 'whole' } },
      target: { type: 'source', sourceId: 's', tags: [], apart: true },
      overrides: { title: 'T', author: 'A' },
    },
  ] satisfies JobInput[]);
});
