import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Annotation, Problem, SourceDetail } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';
import { tideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
let source: SourceDetail;
beforeAll(async () => {
  server = await startServer();
  teacher = await server.person('Teacher');
  const id = await teacher.keepText('tide', 'The tide turns at seven.');
  source = (await teacher.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
});
afterAll(() => server.close());

const put = (more: object) => tideMark(source.id, source.versionId, more);

test('the same annotation under the same id changes nothing', async () => {
  const id = v7();
  const [first, second] = [
    await teacher.send<Annotation>('PUT', `/api/annotations/${id}`, put({ note: 'once' })),
    await teacher.send<Annotation>('PUT', `/api/annotations/${id}`, put({ note: 'once' })),
  ];
  expect(second.body).toEqual(first.body);
  expect(
    (await teacher.send<Annotation[]>('GET', `/api/sources/${source.id}/annotations`)).body.filter((a) => a.id === id),
  ).toHaveLength(1);
});

test('a stale write is refused with what stands now, and nothing is lost', async () => {
  const id = v7();
  await teacher.send('PUT', `/api/annotations/${id}`, put({ note: 'first' }));
  await teacher.send('PATCH', `/api/annotations/${id}`, { version: 1, note: 'second' });
  const late = await teacher.send<Problem>('PATCH', `/api/annotations/${id}`, { version: 1, note: 'third' });
  expect([late.status, (late.body.current as Annotation).note, (late.body.current as Annotation).version]).toEqual([
    409,
    'second',
    2,
  ]);
  expect(
    (await teacher.send<Annotation>('PATCH', `/api/annotations/${id}`, { version: 2, note: 'third' })).body.note,
  ).toBe('third');
});
