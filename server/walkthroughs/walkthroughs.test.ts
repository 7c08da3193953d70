import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { JSDOM } from 'jsdom';
import { v7 } from 'uuid';
import type { Problem, StepNote, Walkthrough, WalkthroughRow } from '@avrelle/core/wire';
import { told } from '../events/messages';
import { makeClass, makeReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';
import { tideMark } from '../testing/tide-mark';

let server: Server;
let teacher: Client;
let other: Client;
let ines: Client;
let id: string;
let sourceId: string;
let versionId: string;
let first: string;
let second: string;
let walk: string;
beforeAll(async () => {
  server = await startServer();
  [teacher, other, ines] = (await Promise.all(['Teacher', 'Other', 'Ines'].map((name) => server.person(name)))) as [
    Client,
    Client,
    Client,
  ];
});
afterAll(() => server.close());
beforeEach(async () => {
  ({ id, sourceId, versionId } = await makeReadingClass(teacher, ines));
  first = await note(ines, { note: 'Why at *seven*?' });
  second = await note(teacher, { note: '', held: true });
  walk = v7();
});

async function note(by: Client, more: object = {}): Promise<string> {
  const made = v7();
  const put = tideMark(sourceId, versionId, { note: 'When?', classIds: [id], ...more });
  expect((await by.send('PUT', `/api/annotations/${made}`, put)).status).toBe(200);
  return made;
}

const url = (classId = id) => `/api/classes/${classId}/walkthroughs/${walk}`;
const step = (annotationId: string, words = '') => ({ annotationId, words });
const put = (steps: readonly object[], version = 0, name = 'From numbers', by = teacher) =>
  by.send<Walkthrough & Problem>('PUT', url(), { version, name, steps });
const summed = ({ steps }: Walkthrough) => steps.map(({ note, words }) => [note?.author.name, note?.seen, words]);

test('notes stand in an order with words to say; whether the class sees them is told', async () => {
  const { body } = await put([step(second, 'Look.'), step(first, 'Ask first.')]);
  expect(summed(body)).toEqual([
    ['Teacher', 'held', 'Look.'],
    ['Ines', 'seen', 'Ask first.'],
  ]);
  const mine = await note(teacher, { classIds: [] });
  const { body: after } = await put([step(first), step(mine)], body.version, 'Two');
  expect([after.name, summed(after)]).toEqual([
    'Two',
    [
      ['Ines', 'seen', ''],
      ['Teacher', 'unseen', ''],
    ],
  ]);
  const { body: rows } = await teacher.send<WalkthroughRow[]>('GET', `/api/classes/${id}/walkthroughs`);
  expect(rows.map((row) => [row.name, row.steps, row.by, row.version])).toEqual([['Two', 2, 'Teacher', 2]]);
});

test('students have no part in it, nor hear of it; nobody puts in what they do not see', async () => {
  const { db, events } = server.context;
  const since = events.seqOf(events.cursor())!;
  await put([step(first)]);
  const heard = [teacher, ines].map((who) => events.since(since, 9).filter((e) => told(db, e)(who.me.id)).length);
  expect(heard).toEqual([1, 0]);
  expect((await put([], 1, 'Mine', ines)).body.code).toBe('teachers_only');
  const secret = await note(ines, { classIds: [] });
  expect((await put([step(secret)], 1)).status).toBe(404);
  expect((await put([step(first), step(first)], 1)).body.code).toBe('invalid');
});

test('two who change it are told; the same sent again changes nothing', async () => {
  await put([step(first)]);
  expect((await put([step(first)])).body.version).toBe(1);
  await put([step(first, 'A')], 1);
  const stale = await put([step(first, 'B')], 1);
  expect([stale.body.code, (stale.body.current as Walkthrough).steps[0]!.words]).toEqual(['stale', 'A']);
});

test('a note that is deleted leaves its words to say; what is deleted comes back', async () => {
  await put([step(first, 'Still to say.')]);
  await ines.send('PATCH', `/api/annotations/${first}`, { version: 1, deleted: true });
  const { body } = await teacher.send<Walkthrough>('GET', url());
  expect(summed(body)).toEqual([[undefined, undefined, 'Still to say.']]);
  expect((await put([step(first, 'Longer.')], 1)).status).toBe(200);
  await teacher.send('DELETE', url());
  expect((await teacher.send('GET', url())).status).toBe(404);
  expect((await put([], 2)).status).toBe(404);
  await teacher.send('POST', `${url()}/restore`);
  expect(summed((await teacher.send<Walkthrough>('GET', url())).body)[0]![2]).toBe('Longer.');
});

test('copied to another class, the notes are the same, and those it does not see are told', async () => {
  await put([step(first, 'Ask.'), step(second)]);
  const to = await makeClass(teacher, 'Other class', other);
  await teacher.send('PUT', `/api/classes/${to}/sources/${sourceId}`);
  const copy = v7();
  const { body } = await teacher.send<Walkthrough>('POST', `${url()}/copy`, { id: copy, classId: to });
  expect([body.classId, body.steps.map(({ annotationId }) => annotationId)]).toEqual([to, [first, second]]);
  // What is held there would be held here, too: showing it would not show it.
  expect(body.steps.map(({ note }) => [note?.seen, note?.canShow])).toEqual([
    ['unseen', false],
    ['unseen', false],
  ]);
  await teacher.send('POST', `/api/classes/${id}/held/release`, { annotationIds: [second] });
  const there = `/api/classes/${to}/walkthroughs/${copy}`;
  expect((await teacher.send<Walkthrough>('GET', there)).body.steps[1]!.note?.canShow).toBe(true);
  await teacher.send('PATCH', `/api/annotations/${second}`, { version: 1, teachersOnly: true });
  expect((await teacher.send<Walkthrough>('GET', there)).body.steps[1]!.note?.canShow).toBe(false);
  const theirs = await makeClass(other, 'Not mine', ines);
  expect((await teacher.send('POST', `${url()}/copy`, { id: v7(), classId: theirs })).status).toBe(404);
  expect((await teacher.send('GET', `/api/classes/${to}/walkthroughs/${walk}`)).status).toBe(404);
});

test('a bare mark has a star in the text, which is my own', async () => {
  const mark = await note(ines, { note: '' });
  const stars = async (who: Client) => (await who.send<string[]>('GET', `/api/sources/${sourceId}/stars`)).body;
  await teacher.send('PUT', `/api/annotations/${mark}/star`, { starred: true });
  expect([await stars(teacher), await stars(ines)]).toEqual([[mark], []]);
  const { body } = await teacher.send<StepNote[]>('GET', `/api/classes/${id}/starred`);
  expect(body[0]).toMatchObject({ id: mark, words: '', quote: 'tide' });
});

test('what has my star can become a step, the newest first; not what nobody sees any more', async () => {
  for (const one of [first, second]) await teacher.send('PUT', `/api/annotations/${one}/star`, { starred: true });
  const starred = async () =>
    (await teacher.send<StepNote[]>('GET', `/api/classes/${id}/starred`)).body
      .filter((one) => one.source.id === sourceId)
      .map((one) => [one.id, one.seen, one.asks]);
  await teacher.send('PUT', `/api/annotations/${second}/question`, { form: 'open' });
  expect(await starred()).toEqual([
    [second, 'held', true],
    [first, 'seen', false],
  ]);
  await ines.send('PATCH', `/api/annotations/${first}`, { version: 1, classIds: [] });
  expect(await starred()).toHaveLength(1);
});

test('taken out as Markdown and as one page without scripts, whatever the notes say', async () => {
  const nasty = await note(ines, { note: '<script>alert(1)</script> [x](javascript:alert(1))' });
  await ines.send('PUT', `/api/replies/${v7()}`, { parentId: first, note: 'The moon.' });
  await put([step(first, 'Ask **first**.'), step(nasty)], 0, 'A & B');
  const markdown = await teacher.send('GET', `${url()}/steps.md`);
  expect(markdown.text).toContain('## 1. ');
  expect(markdown.text).toContain('> tide');
  expect(markdown.text).toContain('### To say\n\nAsk **first**.');
  const page = await teacher.send('GET', `${url()}/steps.html`);
  const { document } = new JSDOM(page.text).window;
  expect([document.title, document.querySelectorAll('h2').length]).toEqual(['A & B', 2]);
  expect([...document.querySelectorAll('strong')].map((e) => e.textContent)).toEqual(['Ines:', 'first']);
  expect(document.querySelectorAll('script, a[href^="javascript"]')).toHaveLength(0);
});
