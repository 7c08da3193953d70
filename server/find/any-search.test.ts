import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FIELDS, parseQuery } from '@avrelle/core/query';
import type { Problem } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';
import type { Asker } from './asker';
import { findAnnotations, findSources, readQuery } from './find';

let server: Server;
let me: Client;
let asker: Asker;
beforeAll(async () => {
  server = await startServer();
  me = await server.person('Ines Kestle');
  await me.keepText('Mud and marsh', 'Mud settles where the water is slow; today’s mud is next year’s marsh.');
  asker = { me: me.me.id, classes: [], taught: [], groups: [], today: '2026-11-23', ahead: 0 };
});
afterAll(() => server.close());

/** What searches are made of, and what could break out of one; `|` parts them. */
const SIGNS = `(|)|"|*|-| | OR |NEAR(|^|+|:|{title}:|'; DROP TABLE person; --|mud|\u0000|%|_|\\|today`.split('|');

test('any string is a search or a pointed error', async () => {
  const typed = fc.oneof(
    fc.string({ unit: 'binary', maxLength: 80 }),
    fc.array(fc.constantFrom(...SIGNS, ...FIELDS.map((f) => `${f}:`)), { maxLength: 14 }).map((p) => p.join('')),
  );
  fc.assert(
    fc.property(typed, (q) => {
      if (!parseQuery(q).ok) return;
      const query = readQuery(q);
      findSources(server.context.db, query, asker, { sort: 'best', offset: 0, limit: 5 });
      findAnnotations(server.context.db, query, asker, 'best');
    }),
    { numRuns: 600 },
  );
  for (const q of ['(mud', 'tg:x', 'minutes<ten', '"mud']) {
    const { status, body } = await me.send<Problem>('GET', `/api/sources?q=${encodeURIComponent(q)}`);
    expect([status, body.code, body.field]).toEqual([400, 'query', 'q']);
  }
  expect((await me.send<Problem>('GET', `/api/sources?q=tag:${'a'.repeat(10_000)}`)).body.detail).toMatch(
    /1,000 characters, this one has 10,004/,
  );
  for (const asked of [
    'offset=-1',
    'sort=no',
    'limit=99999',
    'day=tomorrow',
    'day=2026-02-30',
    'day=2026-99-99',
    'ahead=x',
  ]) {
    const { status, body } = await me.send<Problem>('GET', `/api/sources?${asked}`);
    expect([status, body.code, body.field]).toEqual([400, 'invalid', asked.split('=')[0]]);
  }
});
