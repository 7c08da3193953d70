import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { v7 } from 'uuid';
import type { CardPage, ClassCards, Desk, NamedAnswers, Problem, Review, ReviewCard } from '@avrelle/core/wire';
import { makeReadingClass, type ReadingClass } from '../testing/classes';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let now = '2026-11-20T08:00:00.000Z';
let people: readonly Client[];
let teacher: Client;
let student: Client;
let field: ReadingClass;
let card: ReviewCard;
let number = 0;
beforeAll(async () => {
  server = await startServer({ now: () => now });
});
afterAll(() => server.close());
/** Each test has a class of four students, who were given a card on a note only its teacher sees. */
beforeEach(async () => {
  teacher = await server.person(`Teacher ${++number}`);
  people = await Promise.all([1, 2, 3, 4].map((n) => server.person(`Student ${number} ${n}`)));
  student = people[0]!;
  field = await makeReadingClass(teacher, ...people);
  card = await make(await mark());
  await give();
});

const mark = async (more: object = {}, by = teacher): Promise<string> => {
  const id = v7();
  const quote = { exact: 'tide turns', prefix: '', suffix: '' };
  await by.send('PUT', `/api/annotations/${id}`, {
    sourceId: field.sourceId,
    versionId: field.versionId,
    kind: 'claim',
    note: 'Twice a day.',
    tags: [],
    anchor: { quote, position: { start: 4, end: 14 } },
    classIds: [],
    ...more,
  });
  return id;
};
const make = async (annotationId: string | null): Promise<ReviewCard> => {
  const body = { annotationId, question: 'What does the tide do?', ...(annotationId ? {} : { answer: 'It turns.' }) };
  return (await teacher.send<ReviewCard>('PUT', `/api/cards/${v7()}`, body)).body;
};
const give = (named = false, cardIds: readonly string[] = [card.id], by = teacher) =>
  by.send<ClassCards>('PUT', `/api/classes/${field.id}/cards`, { cardIds, named });
const cards = async (by = teacher): Promise<ClassCards> =>
  (await by.send<ClassCards>('GET', `/api/classes/${field.id}/cards`)).body;
const review = async (who: Client): Promise<Review> =>
  (await who.send<Review>('GET', `/api/review?day=${now.slice(0, 10)}`)).body;
const answer = async (who: Client, rating: string, seen = 0): Promise<number> =>
  (await who.send('PUT', `/api/cards/${card.id}/answers/${v7()}`, { rating, seen })).status;
const named = (by = teacher) => by.send<NamedAnswers[]>('GET', `/api/classes/${field.id}/cards/${card.id}/answers`);

describe('a card given to a class', () => {
  test('is practised by each student in their own time, with its passage and the note that answers it', async () => {
    const [due] = (await review(student)).cards;
    expect(due).toMatchObject({
      id: card.id,
      state: 'new',
      given: { by: teacher.me.name, className: 'Field Course', named: false },
      passage: { state: 'placed', note: 'Twice a day.' },
    });
    expect(await answer(student, 'easily')).toBe(200);
    expect((await review(student)).cards).toEqual([]);
    expect((await review(people[1]!)).cards).toHaveLength(1);
    expect((await review(teacher)).cards[0]).toMatchObject({ seen: 0, given: null });
    expect((await student.send<Desk>('GET', `/api/desk?day=${now.slice(0, 10)}`)).body.cards).toBe(0);
    expect((await people[1]!.send<Desk>('GET', `/api/desk?day=${now.slice(0, 10)}`)).body.cards).toBe(1);
  });

  test('is changed only by who made it, and changes for all; it rests for whom it rests', async () => {
    const { status, body } = await student.send<Problem>('PATCH', `/api/cards/${card.id}`, {
      version: 1,
      question: '',
    });
    expect([status, body.code]).toEqual([403, 'not_yours']);
    await student.send('PUT', `/api/cards/${card.id}/rest`, { resting: true });
    expect((await review(student)).cards).toEqual([]);
    await teacher.send('PATCH', `/api/cards/${card.id}`, { version: 1, question: 'What turns?' });
    expect((await review(people[1]!)).cards[0]!.question).toBe('What turns?');
    await teacher.send('PATCH', `/api/cards/${card.id}`, { version: 2, deleted: true });
    expect((await review(people[1]!)).total).toBe(0);
    expect(await answer(people[1]!, 'knew')).toBe(404);
    await teacher.send('POST', `/api/cards/${card.id}/restore`);
    expect((await review(people[1]!)).total).toBe(1);
    expect((await student.send<CardPage>('GET', '/api/cards')).body.cards).toMatchObject([
      { resting: true, classes: [] },
    ]);
    const id = `/api/cards/${card.id}`;
    expect((await student.send('PUT', id, { question: 'Mine?', answer: 'Yes.' })).status).toBe(409);
    expect((await student.send('GET', '/api/cards.csv')).text.trim().split('\n')).toHaveLength(1);
  });

  test('comes to whom joins later and to who becomes a student; who leaves has it no more', async () => {
    const late = await server.person(`Late ${number}`);
    expect((await late.send('GET', `/api/cards/${card.id}`)).status).toBe(404);
    const { code } = (await teacher.send<{ code: string }>('GET', `/api/classes/${field.id}`)).body;
    await late.send('POST', '/api/classes/join', { code });
    expect((await review(late)).cards).toHaveLength(1);
    await answer(student, 'easily');
    await student.send('DELETE', `/api/classes/${field.id}/membership`);
    expect((await review(student)).total).toBe(0);
    await student.send('POST', '/api/classes/join', { code });
    expect((await student.send<CardPage>('GET', '/api/cards')).body.cards).toMatchObject([{ seen: 1 }]);
    const assistant = people[1]!;
    const role = (to: string) =>
      teacher.send('PUT', `/api/classes/${field.id}/members/${assistant.me.id}`, { role: to });
    await role('assistant');
    const second = await make(null);
    await give(false, [second.id]);
    expect((await review(assistant)).total).toBe(1);
    await role('student');
    expect((await review(assistant)).total).toBe(2);
  });

  test('shows its words alone where the class does not read its source any more, and nothing once it is taken back', async () => {
    await teacher.send('DELETE', `/api/classes/${field.id}/sources/${field.sourceId}`);
    expect((await review(student)).cards[0]!.passage).toMatchObject({ state: 'deleted', note: '', versionId: null });
    await answer(student, 'easily');
    await teacher.send('DELETE', `/api/classes/${field.id}/cards/${card.id}`);
    expect((await review(people[1]!)).total).toBe(0);
    const refused = await give();
    expect([refused.status, (refused.body as unknown as Problem).code]).toEqual([409, 'source_not_in_class']);
    await teacher.send('PUT', `/api/classes/${field.id}/sources/${field.sourceId}`);
    await give();
    expect((await student.send<CardPage>('GET', '/api/cards')).body.cards).toMatchObject([{ seen: 1 }]);
  });

  test('is given by who teaches, of their own alone; all of them or none', async () => {
    const second = await make(null);
    expect((await give(false, [second.id], student)).status).toBe(403);
    const own = v7();
    await student.send('PUT', `/api/cards/${own}`, { question: 'Mine?', answer: 'Yes.' });
    expect((await give(false, [second.id, own])).status).toBe(404);
    expect((await cards()).cards.map(({ id }) => id)).toEqual([card.id]);
    expect((await cards()).mine.map(({ id }) => id)).toEqual([second.id]);
    expect((await student.send('GET', `/api/classes/${field.id}/cards`)).status).toBe(403);
  });

  test('does not tell the class what a student wrote for its teachers alone', async () => {
    const id = await mark({ note: 'I do not see why.', classIds: [field.id], teachersOnly: true }, student);
    const asked = await make(id);
    expect(asked.passage.note).toBe('I do not see why.');
    await give(false, [asked.id]);
    const passageFor = async (who: Client) =>
      (await who.send<ReviewCard>('GET', `/api/cards/${asked.id}`)).body.passage;
    expect(await passageFor(people[1]!)).toMatchObject({ state: 'placed', note: '' });
    expect(await passageFor(student)).toMatchObject({ state: 'placed', note: 'I do not see why.' });
  });

  test('with an answer of its own keeps the note of its giver to them; what the class sees, it sees beside own cards', async () => {
    await teacher.send('PATCH', `/api/cards/${card.id}`, { version: 1, answer: 'It turns.' });
    const note = async (who: Client, id: string) =>
      (await who.send<ReviewCard>('GET', `/api/cards/${id}`)).body.passage.note;
    expect([await note(student, card.id), await note(teacher, card.id)]).toEqual(['', 'Twice a day.']);
    const shared = await mark({ note: 'Seen by all.', classIds: [field.id] }, student);
    const asked = await make(shared);
    await give(false, [asked.id]);
    const mate = people[1]!;
    expect(await note(mate, asked.id)).toBe('Seen by all.');
    const own = { annotationId: shared, question: 'And mine?' };
    expect((await mate.send('PUT', `/api/cards/${v7()}`, own)).status).toBe(200);
    expect((await review(mate)).cards.map(({ passage }) => passage.note).sort()).toEqual([
      '',
      'Seen by all.',
      'Seen by all.',
    ]);
  });

  test('goes on in the next class, where nobody has answered it', async () => {
    const next = v7();
    const body = { id: next, name: 'Next course', tint: 'tide', weeks: null, zone: 'Europe/London' };
    expect((await teacher.send('POST', `/api/classes/${field.id}/next`, body)).status).toBe(200);
    const { body: there } = await teacher.send<ClassCards>('GET', `/api/classes/${next}/cards`);
    expect(there).toMatchObject({ students: 0, cards: [{ id: card.id, how: null, namedFrom: null }] });
  });
});

describe('how a card goes', () => {
  test('is told of three students together, and of nobody alone', async () => {
    await answer(student, 'forgot');
    await answer(people[1]!, 'knew');
    expect((await cards()).cards[0]!.how).toBeNull();
    await answer(people[2]!, 'easily');
    now = '2026-11-27T08:00:00.000Z';
    await answer(people[2]!, 'forgot', 1);
    expect((await cards()).cards[0]!.how).toEqual({
      people: 3,
      answers: 4,
      forgot: 2,
      knewAtOnce: 2,
      learnt: 0,
      remembered: 0,
    });
    const again = async (who: Client): Promise<void> => {
      const { seen } = (await who.send<ReviewCard>('GET', `/api/cards/${card.id}`)).body;
      expect(await answer(who, 'easily', seen)).toBe(200);
    };
    for (const who of [student, people[1]!]) await again(who);
    now = '2026-12-12T08:00:00.000Z';
    await again(student);
    expect((await cards()).cards[0]!.how).toMatchObject({ answers: 7, learnt: 0, remembered: 0 });
    await again(people[1]!);
    expect((await cards()).cards[0]!.how).toMatchObject({ people: 3, learnt: 3, remembered: 2 });
    expect((await named()).status).toBe(404);
  });

  test('is told of each only where that was said, to them as well, and of nothing before', async () => {
    await answer(student, 'forgot');
    now = new Date(Date.parse(now) + 60_000).toISOString();
    await give(true);
    expect((await review(people[1]!)).cards[0]!.given).toMatchObject({ named: true });
    expect((await named()).body).toEqual([]);
    await answer(people[1]!, 'knew');
    now = new Date(Date.parse(now) + 600_000).toISOString();
    await answer(people[1]!, 'partly', 1);
    expect((await named()).body).toMatchObject([
      { id: people[1]!.me.id, answers: 2, forgot: 0, last: 'partly', at: now },
    ]);
    expect((await named(student)).status).toBe(403);
    await give(false);
    expect((await named()).status).toBe(404);
  });
});
