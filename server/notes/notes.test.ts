import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import { linkAddress } from '@avrelle/core/note';
import type { Annotation, ClassDetail, Desk, Linked, Person, SourceDetail } from '@avrelle/core/wire';
import { startServer, type Client, type Server } from '../testing/harness';

/** A PNG of one pixel (ISO/IEC 15948). */
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
  'base64',
);
let server: Server;
let author: Client;
let mate: Client;
let stranger: Client;
let classId: string;
let source: SourceDetail;

beforeAll(async () => {
  server = await startServer();
  [author, mate, stranger] = await Promise.all([
    server.person('author'),
    server.person('mate'),
    server.person('stranger'),
  ]);
  classId = v7();
  await author.send('PUT', `/api/classes/${classId}`, { name: 'Field Course A', tint: 'tide' });
  await mate.send('POST', '/api/classes/join', {
    code: (await author.send<ClassDetail>('GET', `/api/classes/${classId}`)).body.code,
  });
  const id = await author.keepText('marsh', 'The marsh keeps its height above the tide.');
  await author.send('PUT', `/api/classes/${classId}/sources/${id}`, {});
  source = (await author.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
});
afterAll(() => server.close());

const write = async (by: Client, note: string, shared = true): Promise<string> => {
  const id = v7();
  const { status } = await by.send('PUT', `/api/annotations/${id}`, {
    sourceId: source.id,
    versionId: source.versionId,
    kind: 'note',
    note,
    tags: [],
    anchor: { quote: { exact: 'marsh', prefix: '', suffix: '' }, position: { start: 4, end: 9 } },
    classIds: shared ? [classId] : [],
  });
  expect(status).toBe(200);
  return id;
};
const upload = (by: Client, bytes: Buffer, type = 'image/png') =>
  server.app.inject({
    method: 'POST',
    url: '/api/pictures',
    headers: { cookie: by.cookie, 'content-type': type },
    payload: bytes,
  });
const mentions = async (who: Client): Promise<number> =>
  (await who.send<Desk>('GET', '/api/desk')).body.notices.filter((n) => n.why === 'mention').length;

test('whoever is meant is told once, and only of what they may see', async () => {
  const mean = (who: Client): string => `Ask [@${who.me.name}](${linkAddress({ type: 'person', id: who.me.id })}).`;
  const secret = await write(author, mean(mate), false);
  await write(author, mean(stranger));
  expect([await mentions(mate), await mentions(stranger)]).toEqual([0, 0]);
  const { body } = await author.send<Annotation>('PATCH', `/api/annotations/${secret}`, {
    version: 1,
    classIds: [classId],
  });
  expect(await mentions(mate)).toBe(1);
  await author.send('PATCH', `/api/annotations/${secret}`, { version: body.version, note: `${body.note} Please.` });
  expect(await mentions(mate)).toBe(1);
});

test('whose note is linked to is told once, where they see the link; an answer stays an answer', async () => {
  const why = async (who: Client, id: string): Promise<string[]> =>
    (await who.send<Desk>('GET', '/api/desk')).body.notices.filter((n) => n.annotationId === id).map((n) => n.why);
  const target = await write(mate, 'The pegs sank.');
  const to = linkAddress({ type: 'annotation', id: target });
  const open = await write(author, `See [this](${to}).`);
  const secret = await write(author, `See [this](${to}), too.`, false);
  expect([await why(mate, open), await why(mate, secret), await why(author, open)]).toEqual([['link'], [], []]);
  const { body } = await author.send<Annotation>('GET', `/api/annotations/${open}`);
  await author.send('PATCH', `/api/annotations/${open}`, { version: body.version, note: `${body.note} Again.` });
  expect(await why(mate, open)).toEqual(['link']);
  const answer = v7();
  await author.send('PUT', `/api/replies/${answer}`, { parentId: target, note: `As [here](${to}).` });
  expect(await why(mate, answer)).toEqual(['answer']);
});

test('what links to an annotation or source is told to those who see the link, and changes with the note', async () => {
  const target = await write(mate, 'Here it is.');
  const to = linkAddress({ type: 'annotation', id: target });
  const open = await write(author, `See [this](${to}).`);
  const hidden = await write(
    author,
    `And [that](${to}), of [all](${linkAddress({ type: 'source', id: source.id })}).`,
    false,
  );
  const links = async (who: Client, address: string): Promise<string[]> =>
    (await who.send<Linked[]>('GET', `/api/links?to=${address}`)).body.map((l) => l.id).sort();
  expect([await links(author, to), await links(mate, to), await links(stranger, to)]).toEqual([
    [open, hidden].sort(),
    [open],
    [],
  ]);
  expect([
    await links(author, linkAddress({ type: 'source', id: source.id })),
    await links(mate, linkAddress({ type: 'source', id: source.id })),
  ]).toEqual([[hidden], []]);
  await author.send('PATCH', `/api/annotations/${open}`, { version: 1, note: 'No longer.' });
  expect(await links(mate, to)).toEqual([]);
  expect((await mate.send('GET', '/api/links?to=http://elsewhere.test/')).status).toBe(400);
});

test('a picture is seen by whoever sees a note of its owner that holds it', async () => {
  const { hash } = (await upload(author, PNG)).json<{ hash: string }>();
  const see = (who: Client) => who.send('GET', `/pictures/${hash}`).then((a) => a.status);
  expect([await see(author), await see(mate), await see(server.nobody)]).toEqual([200, 404, 401]);
  await write(mate, `![mine?](${linkAddress({ type: 'picture', id: hash })})`);
  expect(await see(mate)).toBe(404);
  await write(author, `![a peg](${linkAddress({ type: 'picture', id: hash })})`);
  expect([await see(mate), await see(stranger)]).toEqual([200, 404]);
});

test.each([
  ['an SVG', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'), 'image/svg+xml'],
  ['words', Buffer.from('nothing to see'), 'image/png'],
  ['nothing', Buffer.alloc(0), 'image/png'],
])('%s is no picture for a note', async (_, bytes, type) => {
  expect([400, 422]).toContain((await upload(author, bytes, type)).statusCode);
});

test('those can be meant who read the source with me', async () => {
  const names = async (who: Client) => (await who.send<Person[]>('GET', `/api/sources/${source.id}/readers`)).body;
  expect((await names(mate)).map((p) => p.name)).toEqual(['author', 'mate']);
  expect((await stranger.send('GET', `/api/sources/${source.id}/readers`)).status).toBe(404);
});

test('study notes lead back from outside', async () => {
  const target = await write(author, 'The end of it.');
  await write(author, `From [there](${linkAddress({ type: 'annotation', id: target })}).`);
  expect((await author.send('GET', `/api/sources/${source.id}/study-notes.md`)).text).toMatch(
    new RegExp(`From \\[there\\]\\(http://[^)]+/to/annotation/${target}\\)`),
  );
});
