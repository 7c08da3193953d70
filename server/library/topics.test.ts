import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { Problem, SourceDetail, TopicNews, TopicPage } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let me: Client;
let other: Client;
let note: string;
beforeAll(async () => {
  server = await startServer();
  [me, other] = [await server.person('Writer'), await server.person('Other')];
  const id = await me.keepText('tide', 'The tide turns at seven.');
  const source = (await me.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
  await me.send('PUT', `/api/sources/${id}/tags`, { tags: ['mud', 'essay', 'wet'] });
  note = v7();
  await me.send('PUT', `/api/annotations/${note}`, {
    sourceId: id,
    versionId: source.versionId,
    kind: 'claim',
    note: '',
    tags: ['mud', 'essay'],
    anchor: { quote: { exact: 'tide', prefix: '', suffix: '' }, position: { start: 4, end: 8 } },
    classIds: [],
  });
});
afterAll(() => server.close());
const topic = async (tag: string, who = me): Promise<TopicPage> =>
  (await who.send<TopicPage>('GET', `/api/topics?tag=${encodeURIComponent(tag)}`)).body;
const write = (tag: string, version: number, text: string, who = me) =>
  who.send<TopicPage & Problem>('PUT', `/api/topics?tag=${encodeURIComponent(tag)}`, { version, text });

test('a page about a tag is one’s own, and shows what stands beside the tag', async () => {
  expect(await topic('mud')).toEqual({
    tag: 'mud',
    text: '',
    writtenAt: null,
    version: 0,
    related: [
      { tag: 'essay', together: 1 },
      { tag: 'wet', together: 1 },
    ],
    pairs: [{ a: 'essay', b: 'wet', together: 1 }],
  });
  expect((await write('mud', 0, 'It holds everything.')).body).toMatchObject({
    text: 'It holds everything.',
    version: 1,
  });
  expect(await topic('mud', other)).toMatchObject({ text: '', version: 0, related: [], pairs: [] });
});

test('a stale text is refused with what stands, and nothing is lost', async () => {
  await write('mud', 1, 'Second.');
  const late = await write('mud', 1, 'Late.');
  expect([late.status, (late.body.current as TopicPage).text, (await topic('mud')).text]).toEqual([
    409,
    'Second.',
    'Second.',
  ]);
  expect((await write('mud', 0, 'From nothing.')).status).toBe(409);
  expect([
    (await me.send<Problem>('GET', '/api/topics?tag=two%20words')).status,
    (await write('mud', 2, 'x'.repeat(200_001))).status,
  ]).toEqual([400, 400]);
});

test('what bears the tag only since one wrote about it is news, also when it was kept long before', async () => {
  const old = await me.keepText('old', 'The old text of the marsh.');
  const later = await me.keepText('later', 'Kept with another tag.');
  const news = async (who = me) => (await who.send<TopicNews>('GET', '/api/topics/news?tag=mud')).body;
  await me.send('PUT', `/api/sources/${later}/tags`, { tags: ['mud'] });
  await write('mud', 2, 'Third.');
  expect(await news()).toEqual({ sourceIds: [], annotationIds: [] });
  await me.send('PUT', `/api/sources/${old}/tags`, { tags: ['mud/deep'] });
  // A tag that was there stays as old as it is, whatever comes beside it.
  await me.send('PUT', `/api/sources/${later}/tags`, { tags: ['mud', 'other'] });
  await me.send('PATCH', `/api/annotations/${note}`, { version: 1, tags: ['essay', 'mud', 'new'] });
  expect([await news(), await news(other)]).toEqual([
    { sourceIds: [old], annotationIds: [] },
    { sourceIds: [], annotationIds: [] },
  ]);
  await me.send('POST', '/api/sources/changes', {
    changes: [
      { id: old, deleted: true },
      { id: later, deleted: true },
    ],
  });
  await me.send('PATCH', `/api/annotations/${note}`, { version: 2, tags: ['mud', 'essay'] });
  await write('mud', 3, 'Second.');
});

test('what it leads to shows it', async () => {
  const leading = async (who = me) =>
    (await who.send<string[]>('GET', `/api/links/topics?to=avrelle:annotation/${note}`)).body;
  await write('mud', 4, `See [this](avrelle:annotation/${note}).`);
  expect([await leading(), await leading(other)]).toEqual([['mud'], []]);
  await write('mud', 5, 'No more.');
  expect(await leading()).toEqual([]);
});

test('it goes where its tag goes, and is added to the page that is there', async () => {
  await write('mud/deep', 0, 'Deeper.');
  await write('clay', 0, 'Clay first.');
  await me.send('POST', '/api/tags/change', { from: 'mud', to: 'clay' });
  expect([(await topic('clay')).text, (await topic('clay/deep')).text, (await topic('mud')).version]).toEqual([
    'Clay first.\n\nNo more.',
    'Deeper.',
    0,
  ]);
  await me.send('POST', '/api/tags/change', { from: 'clay', to: '' });
  expect((await topic('clay')).text).toBe('Clay first.\n\nNo more.');
});
