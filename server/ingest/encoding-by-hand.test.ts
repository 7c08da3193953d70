import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import { ENCODINGS, type Job, type SourceDetail, type SourceText } from '@avrelle/core/wire';
import { labelToName } from 'whatwg-encoding';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let me: Client;
beforeAll(async () => {
  server = await startServer();
  me = await server.person('Reader');
});
afterAll(() => server.close());

/** "Прилив" in KOI8-R; its letters are others in windows-1251 (values from the Encoding Standard's indexes). */
const KOI = Buffer.from([0xf0, 0xd2, 0xc9, 0xcc, 0xc9, 0xd7, 0x20]);
const textOf = async (id: string): Promise<string> =>
  (await me.send<SourceText>('GET', `/api/sources/${id}/text`)).body.text;
const again = async (id: string, encoding: string): Promise<Job | undefined> => {
  const job = v7();
  const answer = await me.send<Job>('POST', `/api/sources/${id}/again`, { id: job, encoding });
  expect(answer.status).toBe(200);
  return (await me.done(job)) as unknown as Job;
};

test.each([
  ['notes.txt', ''],
  ['notes.md', ''],
  ['notes.csv', 'a,'],
  ['notes.html', '<html><body><p>'],
])('%s is read again as its reader says, from the same bytes', async (name, before) => {
  const { sourceId } = await me.keepFile(name, Buffer.concat([Buffer.from(before), KOI, KOI]));
  await again(sourceId!, 'windows-1251');
  expect(await textOf(sourceId!)).toContain('рТЙМЙЧ');
  await again(sourceId!, 'KOI8-R');
  expect(await textOf(sourceId!)).toContain('Прилив');
  const detail = (await me.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).body;
  expect(detail.facts.encoding).toBe('KOI8-R');
  expect(detail.versionNumber).toBeGreaterThan(1);
});

test('only what the Encoding Standard names is offered and taken', async () => {
  expect(Object.keys(ENCODINGS).filter((name) => labelToName(name) !== name)).toEqual([]);
  const { sourceId } = await me.keepFile('a.txt', KOI);
  expect((await me.send('POST', `/api/sources/${sourceId}/again`, { id: v7(), encoding: 'EBCDIC' })).status).toBe(400);
});
