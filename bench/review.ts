import { chromium, type Page } from '@playwright/test';
import { v7 } from 'uuid';
import type { CardTableResult, Review, ReviewCard } from '@avrelle/core/wire';
import { CHROMIUM_ARGS } from '../e2e/constants';
import { atMost, figure, percentile, time, type Bench } from './measure';
import { startWhole } from './whole-server';

const CARDS = 10_000;
const ANSWERS = 15;
const ROUNDS = 5;

/** Milliseconds from the key of an answer to the next question on the screen. */
const answered = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const asked = () => document.querySelector('main h2')?.textContent;
    const press = (key: string, code = key) =>
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, code, bubbles: true }));
    press(' ', 'Space');
    await new Promise(requestAnimationFrame);
    const before = asked();
    const start = performance.now();
    press('ArrowUp');
    while (asked() === before) await new Promise(requestAnimationFrame);
    return performance.now() - start;
  });

/** Practising with ten thousand cards, half of them due. */
export const review: Bench = async () => {
  const server = await startWhole();
  const rows = Array.from({ length: CARDS }, (_, n) => `What is word ${n}?,The meaning of word ${n}`);
  const table = ['question,answer', ...rows].join('\n');
  const bring = await time(() => server.send<CardTableResult>('POST', '/api/cards/import', { table }));
  await server.send('PUT', '/api/review/wish', { retention: 0.9, newPerDay: 1_000, answersPerDay: 10_000 });
  const { cards } = await server.send<Review>('GET', '/api/review');
  const times = { review: [] as number[], answer: [] as number[], desk: [] as number[], hard: [] as number[] };
  for (let n = 0; n < ROUNDS; n++) {
    times.review.push(await time(() => server.send<Review>('GET', '/api/review')));
    times.desk.push(await time(() => server.send('GET', '/api/desk')));
    times.hard.push(await time(() => server.send('GET', `/api/cards?source=${v7()}&forgotten=1&limit=500`)));
    const url = `/api/cards/${cards[n]!.id}/answers/${v7()}`;
    times.answer.push(await time(() => server.send<ReviewCard>('PUT', url, { rating: 'easily', seen: 0 })));
  }
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS });
  const page = await (await browser.newContext({ baseURL: server.base })).newPage();
  const { email, password } = server.account;
  await page.request.post('/api/session', { data: { email, password } });
  await page.goto('/review');
  await page.locator('main h2').waitFor();
  const nexts: number[] = [];
  for (let n = 0; n < ANSWERS; n++) nexts.push(await answered(page));
  await browser.close();
  await server.close();
  const of = `of ${CARDS.toLocaleString('en')} cards`;
  return [
    atMost(`${of}: the next card after an answer, p95`, percentile(nexts, 0.95), 'ms', 50),
    figure(`${of}: what is to be practised, by the server`, percentile(times.review, 0.5), 'ms'),
    figure(`${of}: an answer stored`, percentile(times.answer, 0.5), 'ms'),
    figure(`${of}: the Desk, by the server`, percentile(times.desk, 0.5), 'ms'),
    figure(`${of}: the hard ones of a source that is opened`, percentile(times.hard, 0.5), 'ms'),
    figure(`a table ${of} brought in`, bring, 'ms'),
  ];
};
