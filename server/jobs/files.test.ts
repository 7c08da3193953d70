import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { SourceDetail, SourceText } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';
import { pdf, PIXEL, wave } from '../testing/files';

let server: Server;
let me: Client;
let other: Client;
beforeAll(async () => {
  server = await startServer();
  [me, other] = [await server.person('Ines'), await server.person('Cal')];
});
afterAll(() => server.close());

const source = async (id: string | null, who = me): Promise<SourceDetail> =>
  (await who.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
const textOf = async (id: string | null): Promise<string> =>
  (await me.send<SourceText>('GET', `/api/sources/${id}/text`)).body.text;

describe('files', () => {
  test('a recording is read by ranges, by those who may read it', async () => {
    const bytes = wave(80);
    const kept = await me.keepFile('walk.wav', bytes, {
      transcript: ['walk.vtt', Buffer.from('WEBVTT\n\n00:01.000 --> 00:02.000\nMud.\n')],
    });
    const { versionId } = await source(kept.sourceId);
    const part = async (range: string, cookie = me.cookie) => {
      const a = await server.app.inject({ method: 'GET', url: `/files/${versionId}`, headers: { cookie, range } });
      return [a.statusCode, a.headers['content-range'], a.rawPayload.equals(bytes.subarray(262_100, 262_200))];
    };
    expect(await part('bytes=262100-262199')).toEqual([206, `bytes 262100-262199/${bytes.length}`, true]);
    expect((await part('bytes=0-'))[0]).toBe(206);
    expect((await part('bytes=99999999-'))[0]).toBe(416);
    expect((await part('bytes=0-', other.cookie))[0]).toBe(404);
    expect(
      (
        await server.app.inject({ method: 'GET', url: `/files/${versionId}`, headers: { cookie: me.cookie } })
      ).rawPayload.equals(bytes),
    ).toBe(true);
  });

  test('the words of a recording can come later, as a new version', async () => {
    const kept = await me.keepFile('gulls.wav', wave(3));
    expect((await source(kept.sourceId)).facts.transcript).toBe(false);
    const job = await me.keepFile('', Buffer.alloc(0), {
      fields: { source: kept.sourceId! },
      transcript: ['gulls.srt', Buffer.from('1\n00:00:01,000 --> 00:00:02,000\nA gull.\n')],
    });
    expect([job.step, await textOf(kept.sourceId)]).toEqual(['Kept as version 2', 'Gulls\nA gull.']);
  });

  test('a locked PDF waits for its password, which is written down with no job', async () => {
    const failed = await me.keepFile(
      'locked.pdf',
      await pdf((doc) => doc.text('Behind a lock.'), { userPassword: 'low tide' }),
    );
    expect(failed.error).toMatchObject({ code: 'password_needed', field: 'password' });
    await me.send('POST', `/api/jobs/${failed.id}/again`, { password: 'high tide' });
    expect((await me.done(failed.id)).error?.code).toBe('password_mismatch');
    await me.send('POST', `/api/jobs/${failed.id}/again`, { password: 'low tide' });
    expect((await me.done(failed.id)).state).toBe('done');
    expect(server.context.db.all("SELECT 1 FROM job WHERE input LIKE '%low tide%'")).toEqual([]);
  });

  test('what is known of a source can be corrected, in its own way of writing', async () => {
    const { sourceId } = await me.keepFile('gate.png', PIXEL);
    const { version } = await source(sourceId);
    const patch = (body: object) =>
      me.send<SourceDetail & { field: string }>('PATCH', `/api/sources/${sourceId}`, { version, ...body });
    expect((await patch({ doi: 'not one' })).body.field).toBe('doi');
    expect((await patch({ publishedAt: 'last spring' })).body.field).toBe('publishedAt');
    expect((await patch({ language: 'Klingonese!' })).body.field).toBe('language');
    expect(
      (await patch({ doi: '10.5555/gate.1', publishedAt: '2026-05', language: 'en', remark: 'For the poster' })).body,
    ).toMatchObject({ doi: '10.5555/gate.1', publishedAt: '2026-05', remark: 'For the poster', title: 'Gate' });
  });
});
