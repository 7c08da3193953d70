import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { v7 } from 'uuid';
import type { InjectOptions } from 'fastify';
import type { SourceDetail } from '@avrelle/core/wire';
import * as wire from '@avrelle/core/wire';
import {
  Schema,
  type AnyObjectSchema,
  type SchemaFieldDescription,
  type SchemaInnerTypeDescription,
  type SchemaObjectDescription,
} from 'yup';
import { AppError } from './errors';
import { parse } from './parse';
import { tideMark } from './testing/tide-mark';
import { startServer, type Client, type Server } from './testing/harness';

let server: Server;
let person: Client;
let known: readonly string[];
const logged: unknown[][] = [];
const { error: print } = console;
beforeAll(async () => {
  server = await startServer();
  person = await server.person('Fuzz');
  const id = await person.keepText('tide', 'The tide turns at seven.');
  const { versionId } = (await person.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
  const classId = v7();
  await person.send('PUT', `/api/classes/${classId}`, { name: 'Field Course', tint: 'tide' });
  const annotation = v7();
  await person.send('PUT', `/api/annotations/${annotation}`, tideMark(id, versionId));
  known = [id, versionId, classId, annotation, v7()];
  console.error = (...words: unknown[]) => void logged.push(words);
});
afterAll(() => {
  console.error = print;
  return server.close();
});

/** Names that bodies of ours have, so that values get past the first check. */
const NAMES = [
  'id',
  'email',
  'password',
  'name',
  'tint',
  'code',
  'address',
  'tags',
  'text',
  'note',
  'kind',
  'anchor',
  'quote',
  'position',
  'start',
  'end',
  'exact',
  'prefix',
  'suffix',
  'spot',
  'type',
  'x',
  'y',
  'width',
  'height',
  'on',
  'page',
  'sourceId',
  'versionId',
  'parentId',
  'classIds',
  'version',
  'deleted',
  'changes',
  'ids',
  'sourceIds',
  'section',
  'sections',
  'items',
  'query',
  'from',
  'to',
  'tag',
  'state',
  'spans',
  'title',
  'author',
  'publishedAt',
  'amount',
  'removed',
  'passage',
  'kinds',
  'as',
  'paused',
  'putInto',
  'collectionId',
  'toString',
  '__proto__',
  'constructor',
  'length',
];
const hostile = fc.oneof(
  fc.constantFrom<unknown>(
    null,
    true,
    false,
    0,
    -1,
    1e308,
    -1e308,
    1.5,
    Number.MAX_SAFE_INTEGER,
    '',
    ' ',
    'a',
    '\0',
    '\uD800',
    'x'.repeat(5_000),
    '2026-11-27',
    '__proto__',
    [],
    {},
    [null],
    [[]],
    [{}],
    { toString: 1 },
    { toString: {} },
    { valueOf: 'x' },
    { length: 1e9 },
    { then: 1 },
  ),
  fc.string({ maxLength: 30 }),
  fc.double(),
  fc.integer(),
);
const body = (): fc.Arbitrary<unknown> =>
  fc.letrec<{ value: unknown }>((tie) => ({
    value: fc.oneof(
      { maxDepth: 4 },
      { arbitrary: hostile, weight: 3 },
      { arbitrary: fc.constantFrom(...NAMES), weight: 1 },
      { arbitrary: fc.array(tie('value'), { maxLength: 4 }), weight: 1 },
      { arbitrary: fc.dictionary(fc.constantFrom(...NAMES), tie('value'), { maxKeys: 6 }), weight: 3 },
    ),
  })).value;
const query = fc.dictionary(
  fc.constantFrom(
    'q',
    'sort',
    'offset',
    'limit',
    'passages',
    'day',
    'ahead',
    'version',
    'since',
    'from',
    'to',
    'whose',
    'tag',
    'kind',
    '__proto__',
  ),
  fc.oneof(
    fc.constantFrom('', '-1', '1e308', 'NaN', '(', '"', 'tag:', 'before:9999-99-99', 'minutes<1e999', '\0', '%'),
    fc.string({ maxLength: 20 }),
  ),
  { maxKeys: 4 },
);
const pathPart = fc.oneof(
  { arbitrary: fc.constantFrom('', '..', '%00', 'x', 'null', '%F0%28', 'a'.repeat(90)), weight: 1 },
  { arbitrary: fc.nat(4).map((n) => known[n]!), weight: 6 },
);

/** All that our routes are asked with, as it is described. */
const SCHEMAS = (Object.values(wire) as unknown[]).filter(
  (value): value is AnyObjectSchema => value instanceof Schema && value.describe().type === 'object',
);

/** A value as a schema wants it for the most part, with hostile ones in its places. */
function near(described: SchemaFieldDescription): fc.Arbitrary<unknown> {
  const odd = { arbitrary: hostile, weight: 1 };
  switch (described.type) {
    case 'object':
      return fc.oneof(
        {
          arbitrary: fc.record(
            Object.fromEntries(
              Object.entries((described as SchemaObjectDescription).fields).map(([name, field]) => [name, near(field)]),
            ),
          ),
          weight: 12,
        },
        odd,
      );
    case 'array': {
      const { innerType } = described as SchemaInnerTypeDescription;
      return fc.oneof(
        {
          arbitrary: fc.array(innerType && !Array.isArray(innerType) ? near(innerType) : hostile, {
            minLength: 1,
            maxLength: 3,
          }),
          weight: 5,
        },
        odd,
      );
    }
    case 'number':
      return fc.oneof({ arbitrary: fc.constantFrom<unknown>(0, 1, 2, 7, 0.5, -1), weight: 4 }, odd);
    case 'boolean':
      return fc.oneof({ arbitrary: fc.boolean(), weight: 4 }, odd);
    default: {
      const { oneOf = [] } = described as { oneOf?: unknown[] };
      return fc.oneof(
        {
          arbitrary:
            oneOf.length > 0
              ? fc.constantFrom(...oneOf)
              : fc.oneof(
                  fc.nat(4).map((n) => known[n]),
                  fc.constantFrom<unknown>('tide', 'claim', 'a@b.test', 'http://a.test/', '2026-11-27'),
                ),
          weight: 5,
        },
        odd,
      );
    }
  }
}

/** A request of any shape to one of our routes. */
const asked = (route: { method: string; url: string }): fc.Arbitrary<InjectOptions> =>
  fc
    .record({
      parts: fc.array(pathPart, { minLength: 2, maxLength: 2 }),
      query,
      twice: fc.boolean(),
      body: fc.oneof(
        { arbitrary: fc.constantFrom(...SCHEMAS).chain((schema) => near(schema.describe())), weight: 5 },
        { arbitrary: body(), weight: 1 },
      ),
      raw: fc.constantFrom(undefined, undefined, undefined, undefined, '{"a":', '"', '[', '\0', ''),
      type: fc.constantFrom(
        'application/json',
        'application/json',
        'application/json',
        'text/plain',
        'multipart/form-data; boundary=x',
        'multipart/form-data',
        'image/png',
        'x/y',
        '',
      ),
      signed: fc.constantFrom(true, true, true, false),
      header: fc.constantFrom(
        {},
        {},
        {},
        {},
        {},
        { range: 'bytes=9-1' },
        { 'last-event-id': 'x' },
        { origin: 'null' },
        { cookie: '%' },
        { 'content-length': '-1' },
        { accept: '\u00ff' },
      ),
    })
    .map(({ parts, query: q, twice, body: content, raw, type, signed, header }) => {
      let n = 0;
      const search = new URLSearchParams(q as Record<string, string>).toString();
      const path = route.url.replace(/:[a-zA-Z]+|\*/g, () => parts[(n += 1) - 1] ?? 'x');
      const sends = route.method !== 'GET' && route.method !== 'HEAD';
      return {
        method: route.method as 'GET',
        url: `${path}?${search}${twice && search ? `&${search}` : ''}`,
        remoteAddress: `10.${Math.floor(Math.random() * 250)}.${Math.floor(Math.random() * 250)}.1`,
        headers: {
          ...(signed ? { cookie: person.cookie } : {}),
          ...(sends && type ? { 'content-type': type } : {}),
          ...header,
        },
        ...(sends ? { payload: raw ?? JSON.stringify(content) } : {}),
      };
    });

test('whatever is asked of whichever route, the server does not break', async () => {
  const routes = server.routes.filter(
    ({ url, method }) =>
      (url.startsWith('/api/') || /^\/(snapshots|drafts|files|pictures)\//.test(url)) &&
      method !== 'HEAD' &&
      url !== '/api/events' &&
      !(url === '/api/session' && method === 'DELETE'),
  );
  expect(routes.length).toBeGreaterThan(60);
  const broken = new Map<string, string>();
  const counts: Record<string, number> = {};
  for (const route of routes) {
    await fc.assert(
      fc.asyncProperty(asked(route), async (request) => {
        const { statusCode, body: answer } = await server.app.inject(request);
        counts[statusCode] = (counts[statusCode] ?? 0) + 1;
        if (statusCode >= 500)
          broken.set(
            `${route.method} ${route.url}`,
            `${request.url} ${String(request.payload).slice(0, 300)} → ${answer.slice(0, 200)} ${String((logged.at(-1)?.[1] as Error | undefined)?.stack ?? '').slice(0, 400)}`,
          );
      }),
      { numRuns: 60, seed: 7 },
    );
  }
  // Most of it gets past the first check.
  expect(counts[200]! + counts[204]!).toBeGreaterThan(300);
  expect(Object.fromEntries(broken)).toEqual({});
});

test('whatever is checked against whichever schema, it is taken or refused in words', () => {
  expect(SCHEMAS.length).toBeGreaterThan(25);
  for (const schema of SCHEMAS) {
    fc.assert(
      fc.property(fc.oneof(near(schema.describe()), body()), (value) => {
        try {
          parse(schema, value);
        } catch (error) {
          if (!(error instanceof AppError)) throw error;
          expect(error.message).toMatch(/\S/);
        }
      }),
      { numRuns: 200, seed: 11 },
    );
  }
});

test.each<unknown>([
  { email: {} },
  { email: { toString: 1 }, password: 'x' },
  { email: ['a'] },
  { email: 'a@b.test', password: { toString: 'x' } },
  [null],
  'text',
])('signing in with %j is refused', async (payload) => {
  expect(
    (
      await server.app.inject({
        method: 'POST',
        url: '/api/session',
        headers: { 'content-type': 'application/json' },
        payload: JSON.stringify(payload),
      })
    ).statusCode,
  ).toBe(400);
});
