import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Desk, SourceDetail } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';
import { dayBefore } from './day-before';

let server: Server;
let me: Client;
beforeAll(async () => {
  server = await startServer();
  me = await server.person('Reader');
});
afterAll(() => server.close());

test('the same day a while ago, in months that are shorter as well', () => {
  expect([
    dayBefore('2026-11-25', { days: 7 }),
    dayBefore('2026-03-31', { months: 1 }),
    dayBefore('2026-01-15', { months: 1 }),
    dayBefore('2024-02-29', { months: 12 }),
  ]).toEqual(['2026-11-18', '2026-02-28', '2025-12-15', '2023-02-28']);
});

test('the desk has something for a spare moment, and what was marked on this day before', async () => {
  const empty = (await me.send<Desk>('GET', '/api/desk')).body;
  expect([empty.begun, empty.waiting, empty.spare, empty.past]).toEqual([false, 0, null, null]);
  const long = await me.keepText('long', 'Many words of mud. '.repeat(2_000));
  const short = await me.keepText('short', 'A few words of mud.');
  const source = (await me.send<SourceDetail>('GET', `/api/sources/${long}`)).body;
  const id = v7();
  await me.send('PUT', `/api/annotations/${id}`, {
    sourceId: long,
    versionId: source.versionId,
    kind: 'claim',
    note: 'then',
    tags: [],
    anchor: { quote: { exact: 'Many', prefix: '', suffix: '' }, position: { start: 0, end: 4 } },
    classIds: [],
  });
  const today = new Date().toISOString().slice(0, 10);
  const desk = async () => (await me.send<Desk>('GET', `/api/desk?day=${today}`)).body;
  const { begun, waiting, spare, past } = await desk();
  expect([begun, waiting, spare?.id, past]).toEqual([true, 2, short, null]);
  server.context.db.run(
    'UPDATE annotation SET created_at = ? WHERE id = ?',
    `${dayBefore(today, { months: 1 })}T09:00:00.000Z`,
    id,
  );
  expect((await desk()).past).toMatchObject({ ago: 'a month', annotations: [{ id }] });
  // Late in the evening by UTC it is the next day already for somebody whose clocks are ahead.
  server.context.db.run(
    'UPDATE annotation SET created_at = ? WHERE id = ?',
    `${dayBefore(today, { months: 1 })}T23:30:00.000Z`,
    id,
  );
  const ahead = async (minutes: number) =>
    (await me.send<Desk>('GET', `/api/desk?day=${today}&ahead=${minutes}`)).body.past?.ago;
  expect([await ahead(0), await ahead(-300), await ahead(60)]).toEqual(['a month', 'a month', undefined]);
});
