import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { PNG } from 'pngjs';
import { v7 } from 'uuid';
import type { Annotation, SourceDetail } from '@avrelle/core/wire';
import { hashOf } from '../db/blobs';
import { openDatabase } from '../db/database';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let owner: Client;
let mate: Client;
let stranger: Client;
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-pictures-'));
const file = path.join(folder, 'a.db');

/** Noise does not shrink: its bytes can be looked for. */
function noise(seed: number): Buffer {
  const png = new PNG({ width: 60, height: 40 });
  let state = seed;
  for (let n = 0; n < png.data.length; n++)
    png.data[n] = n % 4 === 3 ? 255 : (state = (state * 1_103_515_245 + 12_345) & 0x7fffffff) >> 16;
  return PNG.sync.write(png);
}
const first = noise(1);
const second = noise(2);

beforeAll(async () => {
  server = await startServer({ db: openDatabase(file) });
  [owner, mate, stranger] = [
    await server.person('Owner'),
    await server.person('Mate'),
    await server.person('Stranger'),
  ];
});
afterAll(async () => {
  await server.close();
  fs.rmSync(folder, { recursive: true });
});

const put = (who: Client, id: string, from: string, bytes: Buffer, crop = '') =>
  server.app.inject({
    method: 'PUT',
    url: `/api/sources/${id}/picture?from=${from}${crop}`,
    headers: { cookie: who.cookie, 'content-type': 'image/png' },
    payload: bytes,
  });
const onDisk = (bytes: Buffer): boolean =>
  fs.readdirSync(folder).some((name) => fs.readFileSync(path.join(folder, name)).includes(bytes.subarray(200, 400)));

test('what was blacked out is nowhere any more; marks keep their place, and only its owner may do it', async () => {
  const { sourceId } = await owner.keepFile('gate.png', first);
  const id = sourceId!;
  const classId = v7();
  await owner.send('PUT', `/api/classes/${classId}`, { name: 'Field Course', tint: 'tide' });
  await mate.send('POST', '/api/classes/join', {
    code: (await owner.send<{ code: string }>('GET', `/api/classes/${classId}`)).body.code,
  });
  await owner.send('PUT', `/api/classes/${classId}/sources/${id}`, {});
  const before = (await owner.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
  const mark = v7();
  const from = hashOf(first);
  const area = { type: 'area', on: { picture: from }, x: 0.5, y: 0.25, width: 0.25, height: 0.25 };
  expect(
    (
      await mate.send('PUT', `/api/annotations/${mark}`, {
        sourceId: id,
        versionId: before.versionId,
        kind: 'claim',
        note: 'the hinge',
        tags: [],
        classIds: [classId],
        anchor: { quote: { exact: 'Gate', prefix: '', suffix: '' }, position: { start: 0, end: 4 }, spot: area },
      })
    ).status,
  ).toBe(200);
  expect(onDisk(first)).toBe(true);
  expect([
    (await put(mate, id, from, second)).statusCode,
    (await put(stranger, id, from, second)).statusCode,
    (await put(owner, id, from, Buffer.from('no picture'))).statusCode,
  ]).toEqual([403, 404, 422]);
  const done = await put(owner, id, from, second, '&x=0.5&y=0&width=0.5&height=0.5');
  expect(done.statusCode).toBe(200);
  const after = done.json<SourceDetail>();
  expect([after.versionId === before.versionId, after.newest]).toEqual([false, 2]);
  expect((await owner.send('GET', `/snapshots/${before.versionId}/`)).status).toBe(404);
  expect(
    (
      await server.app.inject({ url: `/files/${after.versionId}`, headers: { cookie: owner.cookie } })
    ).rawPayload.equals(second),
  ).toBe(true);
  expect((await owner.send('GET', `/snapshots/${after.versionId}/`)).text).toContain(`asset/${hashOf(second)}`);
  expect(onDisk(second)).toBe(true);
  expect(onDisk(first)).toBe(false);
  const [kept] = (await mate.send<Annotation[]>('GET', `/api/sources/${id}/annotations`)).body;
  expect(kept).toMatchObject({
    id: mark,
    note: 'the hinge',
    version: 2,
    place: { state: 'exact', start: 0 },
    anchor: { spot: { on: { picture: hashOf(second) }, x: 0, y: 0.5, width: 0.5, height: 0.5 } },
  });
});

test('a picture that somebody else keeps too stays theirs', async () => {
  const mine = await owner.keepFile('sluice.png', first);
  const theirs = await stranger.keepFile('sluice.png', first);
  expect((await put(owner, mine.sourceId!, hashOf(first), noise(3))).statusCode).toBe(200);
  const { body } = await stranger.send<SourceDetail>('GET', `/api/sources/${theirs.sourceId}`);
  expect(
    (
      await server.app.inject({ url: `/files/${body.versionId}`, headers: { cookie: stranger.cookie } })
    ).rawPayload.equals(first),
  ).toBe(true);
});

test('a picture that stands in a note stays there', async () => {
  const bytes = noise(4);
  const posted = await server.app.inject({
    method: 'POST',
    url: '/api/pictures',
    headers: { cookie: owner.cookie, 'content-type': 'image/png' },
    payload: bytes,
  });
  const { sourceId } = await owner.keepFile('bank.png', bytes);
  expect((await put(owner, sourceId!, hashOf(bytes), noise(5))).statusCode).toBe(200);
  expect(
    (
      await server.app.inject({
        url: `/pictures/${posted.json<{ hash: string }>().hash}`,
        headers: { cookie: owner.cookie },
      })
    ).rawPayload.equals(bytes),
  ).toBe(true);
});

test('a drawing on the picture keeps its place and size through a crop; the same picture once more changes nothing', async () => {
  const bytes = noise(6);
  const { sourceId } = await owner.keepFile('creek.png', bytes);
  const id = sourceId!;
  const from = hashOf(bytes);
  const mark = v7();
  const { versionId } = (await owner.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
  const spot = {
    type: 'drawn',
    tool: 'line',
    colour: '#a92e28',
    width: 4,
    tied: {
      to: 'picture',
      on: { picture: from },
      strokes: [
        [
          [0.5, 0.25, 0.5],
          [0.75, 0.5, 0.5],
        ],
      ],
    },
  };
  await owner.send('PUT', `/api/annotations/${mark}`, {
    sourceId: id,
    versionId,
    kind: 'note',
    note: '',
    tags: [],
    classIds: [],
    anchor: { quote: { exact: 'Creek', prefix: '', suffix: '' }, position: { start: 0, end: 5 }, spot },
  });
  expect((await put(owner, id, from, bytes)).json<SourceDetail>().newest).toBe(1);
  await put(owner, id, from, noise(7), '&x=0.5&y=0&width=0.5&height=0.5');
  const [kept] = (await owner.send<Annotation[]>('GET', `/api/sources/${id}/annotations`)).body;
  expect(kept!.anchor!.spot).toEqual({
    ...spot,
    width: 8,
    tied: {
      to: 'picture',
      on: { picture: hashOf(noise(7)) },
      strokes: [
        [
          [0, 0.5, 0.5],
          [0.5, 1, 0.5],
        ],
      ],
    },
  });
  expect((await put(owner, id, from, noise(8))).statusCode).toBe(409);
});
