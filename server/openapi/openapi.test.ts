import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Validator } from '@seriousme/openapi-schema-validator';
import { ENDPOINTS } from '@avrelle/core/api';
import { startServer, type Server } from '../testing/harness';

let server: Server;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

type Document = { readonly openapi: string; readonly paths: Record<string, Record<string, { operationId: string }>> };

test('anybody can read the description, and it is OpenAPI 3.1 (its published schema, by a validator)', async () => {
  const { status, body } = await server.nobody.send<Document>('GET', '/api/openapi.json');
  expect(status).toBe(200);
  const found = await new Validator().validate(structuredClone(body));
  expect(found.errors ?? []).toEqual([]);
  expect([found.valid, body.openapi]).toEqual([true, '3.1.0']);
});

test('it describes every route there is, each once, and no other', async () => {
  const { paths } = (await server.nobody.send<Document>('GET', '/api/openapi.json')).body;
  const described = Object.entries(paths).flatMap(([path, of]) =>
    Object.keys(of).map((method) => `${method.toUpperCase()} ${path.replace(/\{(\w+)\}/g, ':$1')}`),
  );
  const routes = server.routes
    .filter(({ method, url }) => method !== 'HEAD' && method !== 'OPTIONS' && !url.includes('*'))
    .map(({ method, url }) => `${method} ${url}`);
  expect(described.sort()).toEqual([...new Set(routes)].sort());
  const operations = Object.values(paths).flatMap((of) => Object.values(of).map((o) => o.operationId));
  expect(new Set(operations).size).toBe(ENDPOINTS.length);
});
