import { chromium, type Page } from '@playwright/test';
import { v7 } from 'uuid';
import { describe, indexText } from '@avrelle/core/anchor';
import { blocksOf } from '@avrelle/core/study';
import { range } from '@avrelle/core/text';
import type { ExcerptsPut, SourceDetail, SourceText, StudyNote, StudyNoteRow } from '@avrelle/core/wire';
import { CHROMIUM_ARGS } from '../e2e/constants';
import { atMost, figure, percentile, prose, seeded, time, word, type Bench } from './measure';
import { startWhole } from './whole-server';

const EXCERPTS = 500;
const WORDS = 20_000;
const KEYS = 120;
const ROUNDS = 5;
const MANY_NOTES = 5_000;

type Server = Awaited<ReturnType<typeof startWhole>>;

/** A source with as many marks as a long note has excerpts, and how to mark more. */
async function marked(server: Server) {
  const form = new FormData();
  const jobId = v7();
  form.append('file', new Blob([prose(200_000, seeded(31))]), 'long.txt');
  await server.send('POST', `/api/uploads/${jobId}`, form);
  const { sourceId } = await server.ended(jobId);
  const { versionId } = await server.send<SourceDetail>('GET', `/api/sources/${sourceId}`);
  const { text, outline } = await server.send<SourceText>('GET', `/api/sources/${sourceId}/text`);
  const index = indexText(text, outline);
  const mark = async (n: number): Promise<string> => {
    const id = v7();
    const at = Math.floor((n / (EXCERPTS + ROUNDS)) * (text.length - 200));
    const anchor = describe(index, range(at, at + 80));
    const put = { sourceId, versionId, kind: 'claim', note: '', tags: [], classIds: [], anchor };
    await server.send('PUT', `/api/annotations/${id}`, put);
    return id;
  };
  const ids: string[] = [];
  for (let n = 0; n < EXCERPTS; n++) ids.push(await mark(n));
  return { sourceId: sourceId!, ids, mark };
}

/** 20,000 words of one's own with 500 excerpts between them, as the note of the source. */
async function longNote(server: Server, sourceId: string): Promise<StudyNote> {
  const note = await server.send<StudyNote>('POST', `/api/sources/${sourceId}/note`);
  const random = seeded(32);
  const words = (): string => Array.from({ length: WORDS / EXCERPTS }, () => word(random())).join(' ');
  const markdown = blocksOf(note.markdown)
    .map(({ text }) => `${text}\n\n${words()}`)
    .join('\n\n');
  return server.send<StudyNote>('PATCH', `/api/notes/${note.id}`, { version: note.version, markdown });
}

const editor = (page: Page) => page.getByRole('textbox', { name: 'The note', exact: true });

/** Milliseconds from a key to the frame that shows its letter, measured in the page. */
const keyTimes = (page: Page): Promise<number[]> =>
  page.evaluate(() => (globalThis as unknown as { keyTimes: number[] }).keyTimes);

async function watchKeys(page: Page): Promise<void> {
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(globalThis, { keyTimes: times });
    addEventListener(
      'keydown',
      () => {
        const start = performance.now();
        requestAnimationFrame(() => setTimeout(() => times.push(performance.now() - start)));
      },
      true,
    );
  });
}

/** A long study note in the server and in a real browser, and the list of many. */
export const study: Bench = async () => {
  const server = await startWhole();
  const { sourceId, mark } = await marked(server);
  const note = await longNote(server, sourceId);
  const open = () => server.send<StudyNote>('GET', `/api/notes/${note.id}`);
  const inServer: number[] = [];
  for (let n = 0; n < ROUNDS; n++) inServer.push(await time(open));
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS });
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: server.base });
  const page = await context.newPage();
  const { email, password } = server.account;
  await page.request.post('/api/session', { data: { email, password } });
  const opens: number[] = [];
  for (let n = 0; n < ROUNDS; n++) {
    await page.goto('/notes');
    await page.locator(`a[href="/notes/${note.id}"]`).waitFor();
    const start = performance.now();
    await page.locator(`a[href="/notes/${note.id}"]`).click();
    await page.waitForFunction((count) => document.querySelectorAll('.excerpt').length >= count, EXCERPTS);
    opens.push(performance.now() - start);
  }
  await editor(page).locator('p').first().click();
  await watchKeys(page);
  for (let n = 0; n < KEYS; n++) await page.keyboard.type('mud '[n % 4]!);
  const keys = await keyTimes(page);
  const joins: number[] = [];
  for (let n = 0; n < ROUNDS; n++) {
    const start = performance.now();
    const id = await mark(EXCERPTS + n);
    await page.locator(`.excerpt a[href="/to/annotation/${id}"]`).waitFor({ state: 'attached' });
    joins.push(performance.now() - start);
  }
  await browser.close();
  const lists = await manyNotes(server);
  await server.close();
  const what = `note of ${WORDS.toLocaleString('en')} words and ${EXCERPTS} excerpts`;
  return [
    figure(`${what}: followed and given by the server`, percentile(inServer, 0.5), 'ms'),
    atMost(`${what}: opened from the list, cold code the first time`, percentile(opens, 0.5), 'ms', 600),
    atMost(`${what}: a key to its letter, p95`, percentile(keys, 0.95), 'ms', 24),
    atMost(`${what}: a new highlight to its excerpt`, percentile(joins, 0.5), 'ms', 200),
    figure(`list of ${MANY_NOTES.toLocaleString('en')} notes, in the server`, lists, 'ms'),
  ];
};

async function manyNotes(server: Server): Promise<number> {
  for (let n = 0; n < MANY_NOTES; n++)
    await server.send<ExcerptsPut>('PUT', `/api/notes/${v7()}`, { title: `Note ${n}`, markdown: 'Mud and silt.' });
  const times: number[] = [];
  for (let n = 0; n < ROUNDS; n++) times.push(await time(() => server.send<StudyNoteRow[]>('GET', '/api/notes')));
  return percentile(times, 0.5);
}
