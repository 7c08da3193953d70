import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import Papa from 'papaparse';
import { v7 } from 'uuid';
import type {
  CardPage,
  CardPassage,
  CardTableResult,
  Desk,
  Problem,
  Review,
  ReviewCard,
  ReviewStatistics,
  SourceDetail,
} from '@avrelle/core/wire';
import { removeExpired } from '../library/remove-expired';
import { versionText } from '../sources/queries';
import { startServer, type Client, type Server } from '../testing/harness';

let server: Server;
let me: Client;
let now = '2026-11-20T08:00:00.000Z';
const DAY = 86_400_000;
const go = (milliseconds: number): void => {
  now = new Date(Date.parse(now) + milliseconds).toISOString();
};
beforeAll(async () => {
  server = await startServer({ now: () => now });
});
afterAll(() => server.close());
/** Each test has a person of its own, with a source. */
let source: SourceDetail;
let number = 0;
beforeEach(async () => {
  me = await server.person(`Reader ${++number}`);
  source = await kept();
});

const kept = async (): Promise<SourceDetail> => {
  const text = `A heading ${v7()}.\n\nThe tide turns at seven. The gap is 21 mm, and that is not small.\n\nThe creek turns.`;
  const id = await me.keepText(`Gauge ${v7()}`, text);
  return (await me.send<SourceDetail>('GET', `/api/sources/${id}`)).body;
};
const mark = async (words: string, more: object = {}): Promise<string> => {
  const text = versionText(server.context.db, source.versionId)!.stream;
  const start = text.indexOf(words);
  const id = v7();
  const { status } = await me.send('PUT', `/api/annotations/${id}`, {
    sourceId: source.id,
    versionId: source.versionId,
    kind: 'claim',
    note: '',
    tags: [],
    anchor: { quote: { exact: words, prefix: '', suffix: '' }, position: { start, end: start + words.length } },
    classIds: [],
    ...more,
  });
  expect(status).toBe(200);
  return id;
};
const make = async (body: object, id = v7()): Promise<ReviewCard> => {
  const made = await me.send<ReviewCard>('PUT', `/api/cards/${id}`, body);
  expect([made.status, made.text.slice(0, 90)]).toEqual([200, expect.stringContaining(id)]);
  return made.body;
};
const review = async (query = ''): Promise<Review> => {
  const { status, body } = await me.send<Review>('GET', `/api/review?day=${now.slice(0, 10)}${query}`);
  expect(status).toBe(200);
  return body;
};
const answer = (card: Pick<ReviewCard, 'id' | 'seen'>, rating: string, more: { id?: string; at?: string } = {}) => {
  const { id = v7(), ...rest } = more;
  return me.send<ReviewCard>('PUT', `/api/cards/${card.id}/answers/${id}`, { rating, seen: card.seen, ...rest });
};
const open = async (id: string): Promise<ReviewCard> => (await me.send<ReviewCard>('GET', `/api/cards/${id}`)).body;
const hidden = (passage: CardPassage): string[] =>
  passage.blocks.flatMap((block) => block.parts.filter((part) => part.slip !== null).map((part) => part.text));
const shown = (passage: CardPassage): string =>
  passage.blocks.flatMap((block) => block.parts.map((part) => (part.slip === null ? part.text : '___'))).join('');

describe('a card', () => {
  test('stands in its passage, with what is around it; its words are under slips', async () => {
    const id = await mark('The tide turns at seven.', { note: 'In *winter*.' });
    const { slips } = { slips: [{ at: 36, words: '21 mm' }] };
    const { passage, ...card } = await make({ annotationId: id, question: 'How much?', answer: '21', slips });
    expect(card).toMatchObject({
      question: 'How much?',
      state: 'new',
      seen: 0,
      chance: null,
      source: { id: source.id },
    });
    expect(passage).toMatchObject({
      state: 'placed',
      place: '¶ 2',
      lost: 0,
      note: 'In *winter*.',
      kind: { code: 'claim' },
    });
    expect(hidden(passage)).toEqual(['21 mm']);
    expect(passage.blocks.map((block) => block.holds)).toEqual([false, true, false]);
    expect(card.comesBack).toHaveLength(4);
    expect([...card.comesBack].sort()).toEqual(card.comesBack);
  });

  test('a question without slips hides the passage; a note as the answer shows it', async () => {
    const id = await mark('The tide turns at seven.', { note: 'As ever.' });
    const asked = await make({ annotationId: id, question: 'When does it turn?' });
    expect(shown(asked.passage)).toContain('___ The gap is 21 mm');
    const noted = await make({ annotationId: id });
    expect(hidden(noted.passage)).toEqual([]);
    expect(noted.passage.note).toBe('As ever.');
  });

  test('has to ask something and to have an answer; nothing is made of what does not', async () => {
    const bare = await mark('The creek turns.');
    const refused = async (body: object): Promise<[number, string | undefined]> => {
      const { status, body: problem } = await me.send<Problem>('PUT', `/api/cards/${v7()}`, body);
      return [status, problem.field];
    };
    expect(await refused({ annotationId: bare })).toEqual([400, 'question']);
    expect(await refused({ question: 'Why?' })).toEqual([400, 'answer']);
    expect(await refused({ answer: 'Mud.' })).toEqual([400, 'question']);
    expect(await refused({ question: 'x'.repeat(3_000), answer: 'y' })).toEqual([400, 'question']);
    expect((await refused({ annotationId: v7(), question: 'Of what?' }))[0]).toBe(404);
    expect((await me.send<CardPage>('GET', '/api/cards')).body.total).toBe(0);
  });

  test('follows its passage into a new text, and says where words of it are gone', async () => {
    const id = await mark('The tide turns at seven.');
    const card = await make({
      annotationId: id,
      slips: [
        { at: 36, words: '21 mm' },
        { at: 0, words: 'The tide' },
      ],
    });
    server.context.db.run(
      'UPDATE version_text SET stream = replace(stream, ?, ?) WHERE version_id = ?',
      '21 mm',
      '22 mm',
      source.versionId,
    );
    const { passage } = await open(card.id);
    expect(passage.lost).toBe(1);
    expect(hidden(passage)).toEqual(['The tide']);
  });

  test('keeps the words of a passage that is deleted, also with its source', async () => {
    const id = await mark('The tide turns at seven.');
    const card = await make({ annotationId: id, question: 'When?', answer: 'At seven.' });
    await me.send('PATCH', `/api/annotations/${id}`, { version: 1, deleted: true });
    expect((await open(card.id)).passage).toMatchObject({ state: 'deleted' });
    await me.send('DELETE', `/api/sources/${source.id}`);
    const { passage, source: of } = await open(card.id);
    expect(of).toEqual({ id: null, title: source.title, language: '' });
    expect(hidden(passage)).toEqual(['The tide turns at seven.']);
    expect((await review()).cards.map((c) => c.id)).toEqual([card.id]);
  });

  test('is changed on the version one saw, deleted, brought back, and gone for good after thirty days', async () => {
    const card = await make({ question: 'Why?', answer: 'Mud.' });
    const url = `/api/cards/${card.id}`;
    expect((await me.send<ReviewCard>('PATCH', url, { version: 1, answer: 'Silt.' })).body).toMatchObject({
      answer: 'Silt.',
      version: 2,
    });
    expect((await me.send('PATCH', url, { version: 1, answer: 'Sand.' })).status).toBe(409);
    expect((await me.send('PATCH', url, { version: 2, question: '' })).status).toBe(400);
    await me.send('PATCH', url, { version: 2, deleted: true });
    expect([(await me.send('GET', url)).status, (await review()).due]).toEqual([404, 0]);
    expect((await me.send<ReviewCard>('POST', `${url}/restore`)).body.answer).toBe('Silt.');
    await me.send('PATCH', url, { version: 4, deleted: true });
    go(31 * DAY);
    removeExpired(server.context);
    expect(server.context.db.get<{ n: number }>('SELECT count(*) AS n FROM card WHERE id = ?', card.id)!.n).toBe(0);
  });

  test('that is made twice under one id is there once; under the id of somebody else it is refused', async () => {
    const id = v7();
    await make({ question: 'Why?', answer: 'Mud.' }, id);
    await make({ question: 'Why?', answer: 'Mud.' }, id);
    expect((await review()).total).toBe(1);
    const other = await server.person('Somebody else');
    expect((await other.send('PUT', `/api/cards/${id}`, { question: 'Mine?', answer: 'No.' })).status).toBe(409);
    expect((await other.send('GET', `/api/cards/${id}`)).status).toBe(404);
  });
});

describe('practising', () => {
  const three = async (): Promise<void> => {
    const tide = await mark('The tide turns at seven.', { tags: ['gauge'] });
    const creek = await mark('The creek turns.');
    await make({ annotationId: creek, question: 'What turns?' });
    await make({ annotationId: tide, question: 'When?' });
    await make({ question: 'Why?', answer: 'Mud.' });
  };

  test('cards of one source come together, in the order of its text', async () => {
    await three();
    const { cards, due, sources, days, total } = await review();
    expect(cards.map((card) => card.question)).toEqual(['When?', 'What turns?', 'Why?']);
    expect([due, total, days[0]]).toEqual([3, 3, 3]);
    expect(sources.map((of) => [of.id, of.count])).toEqual([
      [source.id, 2],
      [null, 1],
    ]);
    expect((await me.send<Desk>('GET', '/api/desk')).body.cards).toBe(3);
  });

  test('only what is of a source, a tag, a note or a class', async () => {
    await three();
    const ask = async (query: string) => (await review(query)).cards.map((card) => card.question);
    expect(await ask(`&source=${source.id}`)).toEqual(['When?', 'What turns?']);
    expect(await ask('&tag=gauge')).toEqual(['When?']);
    const note = v7();
    await me.send('PUT', `/api/notes/${note}`, { title: 'Note' });
    const [, creek] = (await me.send<CardPage>('GET', '/api/cards')).body.cards
      .map((row) => row.annotationId)
      .reverse();
    await me.send('POST', `/api/notes/${note}/excerpts`, { annotationIds: [creek] });
    expect(await ask(`&note=${note}`)).toEqual(['When?']);
    const id = v7();
    await me.send('PUT', `/api/classes/${id}`, { name: 'Field Course', tint: 'tide' });
    expect(await ask(`&class=${id}`)).toEqual([]);
    await me.send('PUT', `/api/classes/${id}/sources/${source.id}`);
    expect(await ask(`&class=${id}`)).toEqual(['When?', 'What turns?']);
  });

  test('an answer brings a card back later, is counted, and is taken back whole', async () => {
    const card = await make({ question: 'Why?', answer: 'Mud.' });
    const id = v7();
    const after = (await answer(card, 'easily', { id })).body;
    expect(after).toMatchObject({ seen: 1, state: 'review' });
    expect(after.due).toBe(card.comesBack[3]);
    expect((await review()).due).toBe(0);
    // The same again changes nothing.
    expect((await answer(card, 'easily', { id })).body).toEqual(after);
    expect((await review()).answeredToday).toBe(1);
    const back = (await me.send<ReviewCard>('DELETE', `/api/cards/${card.id}/answers/${id}`)).body;
    expect(back).toEqual(card);
    expect((await me.send('DELETE', `/api/cards/${card.id}/answers/${id}`)).status).toBe(200);
    expect([(await review()).due, (await review()).answeredToday]).toEqual([1, 0]);
  });

  test('two windows answer one card once; only the last answer is taken back', async () => {
    const card = await make({ question: 'Why?', answer: 'Mud.' });
    const first = v7();
    await answer(card, 'forgot', { id: first });
    const late = await me.send<Problem & { current: ReviewCard }>('PUT', `/api/cards/${card.id}/answers/${v7()}`, {
      rating: 'easily',
      seen: 0,
    });
    expect([late.status, late.body.current.seen]).toEqual([409, 1]);
    go(60_000);
    await answer({ id: card.id, seen: 1 }, 'knew');
    expect((await me.send('DELETE', `/api/cards/${card.id}/answers/${first}`)).status).toBe(409);
    expect((await open(card.id)).seen).toBe(2);
  });

  test('what was forgotten comes back within minutes; who is through with the rest need not wait', async () => {
    const card = await make({ question: 'Why?', answer: 'Mud.' });
    const other = await make({ question: 'Whence?', answer: 'Sea.' });
    await answer(card, 'forgot');
    const first = await review();
    expect(first.cards.map((c) => c.id)).toEqual([other.id]);
    expect(Date.parse(first.next!) - Date.parse(now)).toBeLessThan(11 * 60_000);
    await answer(other, 'easily');
    expect((await review()).cards.map((c) => c.id)).toEqual([card.id]);
  });

  test('an answer that is sent later counts from when it was given, never from a time to come', async () => {
    const [early, ahead] = [
      await make({ question: 'Why?', answer: 'Mud.' }),
      await make({ question: 'Whence?', answer: 'Sea.' }),
    ];
    go(DAY);
    const given = new Date(Date.parse(now) - 3_600_000).toISOString();
    const first = (await answer(early, 'forgot', { at: given })).body;
    expect(Date.parse(first.due)).toBeLessThan(Date.parse(now));
    const wrong = new Date(Date.parse(now) + 40 * DAY).toISOString();
    expect(Date.parse((await answer(ahead, 'forgot', { at: wrong })).body.due) - Date.parse(now)).toBeLessThan(600_000);
    // The clock of the server is set back: nothing breaks.
    const then = now;
    go(-10 * DAY);
    expect((await answer({ id: early.id, seen: 1 }, 'knew')).status).toBe(200);
    now = then;
  });

  test('a day brings no more than one wants; what rests does not come', async () => {
    const cards = [];
    for (let n = 0; n < 5; n++) cards.push(await make({ question: `Why ${n}?`, answer: 'Mud.' }));
    const wish = { retention: 0.85, newPerDay: 2, answersPerDay: 10 };
    expect((await me.send('PUT', '/api/review/wish', wish)).body).toEqual(wish);
    expect((await me.send('PUT', '/api/review/wish', { ...wish, retention: 0.2 })).status).toBe(400);
    const some = await review();
    expect([some.due, some.held, some.total]).toEqual([2, 3, 5]);
    await me.send('PUT', `/api/cards/${cards[0]!.id}/rest`, { resting: true });
    for (const card of (await review()).cards) await answer(card, 'easily');
    expect([(await review()).due, (await review()).held, (await review()).resting]).toEqual([0, 2, 1]);
    go(DAY);
    expect((await review()).due).toBe(2);
    await me.send('PUT', `/api/cards/${cards[0]!.id}/rest`, { resting: false });
    expect((await me.send<CardPage>('GET', '/api/cards?resting=true')).body.total).toBe(0);
  });

  test('a day is the day it is where they are', async () => {
    const card = await make({ question: 'Why?', answer: 'Mud.' });
    await answer(card, 'easily');
    const { due } = await open(card.id);
    const ask = async (at: string, day: string, ahead: number): Promise<number> => {
      const then = now;
      now = at;
      const { body } = await me.send<Review>('GET', `/api/review?day=${day}&ahead=${ahead}`);
      now = then;
      return body.due;
    };
    const day = due.slice(0, 10);
    const before = new Date(Date.parse(day) - DAY).toISOString().slice(0, 10);
    expect(await ask(`${before}T23:00:00.000Z`, before, 0)).toBe(0);
    expect(await ask(`${day}T00:10:00.000Z`, day, 0)).toBe(1);
    // Where clocks are twelve hours ahead, that day has begun at noon of the one before.
    expect(await ask(`${before}T13:00:00.000Z`, day, 720)).toBe(1);
  });

  test('how it went is told by week, and the hardest cards', async () => {
    const [hard, easy] = [
      await make({ question: 'Hard?', answer: 'Mud.' }),
      await make({ question: 'Easy?', answer: 'Sea.' }),
    ];
    for (const card of [hard, easy]) await answer(card, 'easily');
    go(29 * DAY);
    await answer({ id: hard.id, seen: 1 }, 'forgot');
    await answer({ id: easy.id, seen: 1 }, 'knew');
    const { weeks, hardest, learnt, total, days } = (
      await me.send<ReviewStatistics>('GET', `/api/review/statistics?day=${now.slice(0, 10)}`)
    ).body;
    expect(weeks).toHaveLength(12);
    expect(weeks.at(-1)).toMatchObject({ answers: 2, learnt: 2, remembered: 1 });
    expect(weeks.at(-1)!.expected).toBeGreaterThan(0.5);
    expect(weeks.reduce((sum, week) => sum + week.answers, 0)).toBe(4);
    expect(hardest.map((row) => row.words)).toEqual(['Hard?']);
    expect([learnt, total, days.length]).toEqual([1, 2, 30]);
  });
});

describe('as a table', () => {
  const bring = (table: string) => me.send<CardTableResult>('POST', '/api/cards/import', { table });

  test('cards come in, leave, and come in again without doubling; what is wrong is said by its line', async () => {
    const first = await bring(
      'question,answer\r\n"What, in one word?","Mud\nand sea"\r\n,Nothing\r\nWhy?,\r\n=2+3?,5\r\n',
    );
    expect(first.body).toEqual({
      added: 2,
      changed: 0,
      refused: [
        { line: 3, why: 'Write a question, or put words under a slip.' },
        { line: 4, why: 'Write the answer.' },
      ],
    });
    const id = await mark('The tide turns at seven.');
    await make({ annotationId: id, slips: [{ at: 0, words: 'The tide' }] });
    const table = (await me.send('GET', '/api/cards.csv')).text;
    const { data } = Papa.parse<Record<string, string>>(table, { header: true, skipEmptyLines: true });
    expect(data.map((row) => [row.question, row.answer, row.slips, row.passage]).sort()).toEqual([
      ["'=2+3?", '5', '', ''],
      ['', '', 'The tide', 'The tide turns at seven.'],
      ['What, in one word?', 'Mud\nand sea', '', ''],
    ]);
    expect((await bring(table)).body).toEqual({ added: 0, changed: 0, refused: [] });
    expect((await bring(table.replace('Mud\nand sea', 'Silt'))).body).toEqual({ added: 0, changed: 1, refused: [] });
    expect((await review()).total).toBe(3);
  });

  test('a table without its columns is refused, and says what is missing', async () => {
    const { status, body } = await me.send<Problem>('POST', '/api/cards/import', { table: 'front,back\na,b' });
    expect([status, body.detail]).toEqual([400, expect.stringContaining('question and answer')]);
  });
});
