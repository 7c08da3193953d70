import type { Browser, BrowserContext, Page } from '@playwright/test';
import { v7 } from 'uuid';
import { seeded } from '@avrelle/core/random';
import type { Annotation, LibraryOutline, Me, SourceDetail, SourceText } from '@avrelle/core/wire';
import { LIBRARY_STEPS } from './library-steps';
import { READING_STEPS } from './reading-steps';
import { isReading, remarksOf, sourcesOf, stateOf, until, type Outcome, type Step, type Walker } from './walker';

/** What is asked again and again is not waited for. */
const AT_ONCE = { timeout: 1_000 };

export interface WalkOptions {
  readonly browser: Browser;
  readonly base: string;
  /** A page that both read, HTML. */
  readonly page: Buffer;
  readonly seed: number;
  /** It ends after so many steps, or so many milliseconds, whichever comes first. */
  readonly steps: number;
  readonly milliseconds: number;
}

export interface Walked {
  readonly steps: number;
  readonly undone: number;
  /** How often each step was taken. */
  readonly taken: Readonly<Record<string, number>>;
}

/**
 * Two people do by chance what one can do in the Library and the reading view, both at once. After each step: the browser
 * complained of nothing, the server broke nowhere, counts are those of the lists they count, what was typed is stored or
 * still on the screen, and what was undone is as it was before. Throws with the seed and the last steps of both; how it
 * looked then is in `test-results/walk-1.png` and `-2`.
 */
export async function walk(options: WalkOptions): Promise<Walked> {
  const { seed, steps, milliseconds } = options;
  const end = Date.now() + milliseconds;
  const log: string[] = [];
  const taken: Record<string, number> = {};
  const pair = await twoPeople(options);
  let undone = 0;
  let count = 0;
  const goOn = async (walker: Walker, n: number): Promise<void> => {
    while (count < steps && Date.now() < end) {
      const step = chosenStep(walker, isReading(walker.page) ? READING_STEPS : LIBRARY_STEPS);
      log.push(`${n + 1}: ${step.name}`);
      if (await oneStep(walker, step)) undone += 1;
      taken[step.name] = (taken[step.name] ?? 0) + 1;
      count += 1;
    }
  };
  try {
    await Promise.all(pair.walkers.map(goOn));
  } catch (error) {
    for (const [n, { page }] of pair.walkers.entries())
      await page.screenshot({ path: `test-results/walk-${n + 1}.png` }).catch(() => undefined);
    const last = [1, 2]
      .map((n) =>
        log
          .filter((line) => line.startsWith(`${n}:`))
          .slice(-9)
          .join('\n'),
      )
      .join('\n');
    throw new Error(`Seed ${seed}, after ${count} steps.\n${last}\n${(error as Error).message}`, { cause: error });
  } finally {
    await pair.close();
  }
  return { steps: count, undone, taken };
}

function chosenStep(walker: Walker, of: readonly Step[]): Step {
  let at = walker.random() * of.reduce((sum, step) => sum + step.weight, 0);
  return of.find((step) => (at -= step.weight) < 0) ?? of[0]!;
}

/** True where it was undone as well. */
async function oneStep(walker: Walker, step: Step): Promise<boolean> {
  const before = await stateOf(walker);
  const outcome: Outcome = (await step.run(walker)) ?? {};
  if (outcome.typed !== undefined) await isKept(walker, outcome.typed);
  await noFaults(walker);
  const undoes = outcome.undo !== undefined && walker.random() < 0.5;
  if (undoes) {
    await outcome.undo!();
    const same = async (): Promise<boolean> => (await stateOf(walker)) === before;
    await until(`“${step.name}”, undone`, same).catch(async (error: Error) => {
      throw new Error(`${error.message}\n${difference(before, await stateOf(walker))}`);
    });
  }
  if (isReading(walker.page)) await countsOfMarks(walker);
  else await countsOfSources(walker);
  await noFaults(walker);
  return undoes;
}

/** Lines that only one of them has. */
function difference(before: string, after: string): string {
  const [a, b] = [before.split('\n'), after.split('\n')];
  const lost = a.filter((line) => !b.includes(line)).map((line) => `- ${line}`);
  const come = b.filter((line) => !a.includes(line)).map((line) => `+ ${line}`);
  return [...lost, ...come].join('\n');
}

async function noFaults(walker: Walker): Promise<void> {
  const faults = walker.faults();
  if (faults.length > 0) throw new Error(faults.join('\n'));
}

/** Stored, in the page, in a field, or among the words this computer keeps. */
async function isKept(walker: Walker, words: string): Promise<void> {
  const onScreen = (): Promise<boolean> =>
    walker.page.evaluate((wanted) => {
      const fields = [...document.querySelectorAll<HTMLInputElement>('input, textarea')].map((f) => f.value);
      return [document.body.textContent, ...fields, ...Object.values(localStorage)].some((t) => t?.includes(wanted));
    }, words);
  const stored = async (): Promise<boolean> => {
    const [state, remarks, library] = await Promise.all([
      stateOf(walker),
      remarksOf(walker),
      walker.get<LibraryOutline>('/api/library'),
    ]);
    return [state, remarks, JSON.stringify(library.searches)].some((t) => t.includes(words));
  };
  await until(`“${words}” is stored or on the screen`, async () => (await onScreen()) || (await stored()));
}

/** What stands beside the Library counts what a search for it lists. */
async function countsOfSources(walker: Walker): Promise<void> {
  const beside = walker.page.getByRole('complementary', { name: 'Filters' });
  if ((await beside.count()) === 0) return;
  const outline = await walker.get<LibraryOutline>('/api/library');
  const counted = [
    ['All', ''],
    ['To read', 'is:to-read'],
    ['Finished', 'is:finished'],
    ...outline.tags.slice(0, 3).map(({ tag }) => [`#${tag}`, `tag:${tag}`] as const),
  ] as const;
  for (const [name, q] of counted)
    await until(`beside “${name}” stands how many there are`, async () => {
      const { total } = await sourcesOf(walker, q);
      return (await beside.getByRole('button', { name: `${name} ${total}`, exact: true }).count()) === 1;
    });
  for (const { name } of outline.collections.slice(0, 2))
    await until(`beside “${name}” stands how many are in it`, async () => {
      const { total } = await sourcesOf(walker, `in:"${name}"`);
      return (await beside.getByRole('link', { name: new RegExp(`^${name}.*\\b${total}$`) }).count()) === 1;
    });
  await listIsCounted(walker);
}

/** The list says how many it has, and has as many. */
async function listIsCounted(walker: Walker): Promise<void> {
  const { page } = walker;
  const params = new URL(page.url()).searchParams;
  const rows = page.locator('ol[aria-label="Sources"] > li[aria-setsize]');
  if ((await rows.count()) === 0) return;
  const q = params.get('q') ?? '';
  await until(`the list of “${q}” has as many as it should`, async () => {
    const { total } = await sourcesOf(walker, q);
    // Meanwhile the last of them may have gone, by what was done to it or by what the other did.
    if ((await rows.count()) === 0) return total === 0;
    return (await rows.first().getAttribute('aria-setsize', AT_ONCE)) === String(total);
  });
}

/** Above the margin stands how many notes there are; a mark without words counts while it is open. */
async function countsOfMarks(walker: Walker): Promise<void> {
  const { page, shared } = walker;
  const head = page.getByText(/^\d+ notes?$/);
  if ((await head.count()) === 0) return;
  let told = '';
  const holds = async (): Promise<boolean> => {
    const all = await walker.get<Annotation[]>(`/api/sources/${shared.sourceId}/annotations`);
    const answered = new Set(all.filter((a) => !a.deleted).map((a) => a.rootId));
    const roots = all.filter((a) => a.rootId === null);
    const worded = roots.filter(
      (a) => answered.has(a.id) || (!a.deleted && (a.note.trim() !== '' || a.tags.length > 0)),
    );
    const seen = Number.parseInt((await head.first().textContent(AT_ONCE)) ?? '', 10);
    const open = await page.getByRole('article').getByRole('button', { expanded: true }).count();
    told = `${seen}; there are ${worded.length}, and ${open} open`;
    return seen >= worded.length && seen <= worded.length + open;
  };
  await until(() => `above the margin stands how many notes there are, but it says ${told}`, holds);
}

interface Pair {
  readonly walkers: readonly Walker[];
  close(): Promise<void>;
}

/** Two people in one class that reads the page; each has three texts of their own beside it. */
async function twoPeople({ browser, base, page, seed }: WalkOptions): Promise<Pair> {
  const people = await Promise.all(['Ada', 'Bert'].map((name) => somebody(browser, base, name)));
  const [ada, bert] = people as [Somebody, Somebody];
  const classId = v7();
  const sourceId = await keep(ada, 'What both read.html', 'text/html', page);
  await ada.send('PUT', `/api/classes/${classId}`, { name: 'Two readers', tint: 'tide' });
  const { code } = await ada.send<{ code: string }>('GET', `/api/classes/${classId}`);
  await bert.send('POST', '/api/classes/join', { code });
  await ada.send('PUT', `/api/classes/${classId}/sources/${sourceId}`, {});
  for (const who of people)
    for (const n of ['seven', 'eight', 'nine'])
      await keep(who, `text ${n}.txt`, 'text/plain', Buffer.from(`${n}: the tide turns, says ${who.id}.`));
  const { text, outline } = await ada.send<SourceText>('GET', `/api/sources/${sourceId}/text`);
  const main = outline.filter((b) => b.role === 'paragraph' && !b.aside).map((b) => text.slice(b.start, b.end));
  const shared = { sourceId, classId, text: main.join('\n') };
  let typed = 0;
  const walkers = people.map((who, n): Walker => {
    // What one of them chooses does not hang on how fast the other is.
    const random = seeded(2 * seed + n);
    return {
      page: who.page,
      id: who.id,
      shared,
      random,
      pick: (of) => of[Math.floor(random() * of.length)]!,
      word: () => `w${seed}x${(typed += 1)}y`,
      get: (path) => who.send('GET', path),
      faults: () => who.faults.splice(0),
    };
  });
  for (const { page: window } of people) await window.goto(`${base}/library`);
  return { walkers, close: async () => void (await Promise.all(people.map((who) => who.context.close()))) };
}

interface Somebody {
  readonly id: string;
  readonly page: Page;
  readonly context: BrowserContext;
  readonly faults: string[];
  send<T = unknown>(method: string, path: string, data?: unknown): Promise<T>;
}

async function somebody(browser: Browser, base: string, name: string): Promise<Somebody> {
  const context = await browser.newContext({ baseURL: base, viewport: { width: 1280, height: 800 } });
  // What cannot be done ends its step, by name, and not the test by its limit.
  context.setDefaultTimeout(20_000);
  const page = await context.newPage();
  const faults: string[] = [];
  const email = `${name.toLowerCase()}.${Math.random().toString(36).slice(2)}@college.saltmere.test`;
  const data = { email, name: `${name} Walker`, password: 'a long enough password' };
  const { id } = (await (await context.request.post('/api/people', { data })).json()) as Me;
  page.on('pageerror', (error) => faults.push(`The page broke: ${error.message}`));
  page.on('console', (message) => {
    // A refused request is told of there, too; which of them are faults is asked of the answers.
    const isRefusal = message.text().startsWith('Failed to load resource');
    if (message.type() === 'error' && !isRefusal) faults.push(`The console says: ${message.text()}`);
  });
  page.on('response', (answer) => {
    if (answer.status() >= 500) faults.push(`${answer.status()} from ${answer.url()}`);
  });
  const send = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const answer = await context.request.fetch(path, { method, ...(body === undefined ? {} : { data: body }) });
    if (!answer.ok()) throw new Error(`${method} ${path}: ${answer.status()} ${await answer.text()}`);
    return (answer.status() === 204 ? undefined : await answer.json()) as T;
  };
  return { id, page, context, faults, send };
}

async function keep(who: Somebody, name: string, mimeType: string, buffer: Buffer): Promise<string> {
  const id = v7();
  await who.context.request.post(`/api/uploads/${id}`, { multipart: { file: { name, mimeType, buffer } } });
  let sourceId = '';
  await until(`${name} is kept`, async () => {
    const job = await who.send<{ state: string; sourceId: string | null }>('GET', `/api/jobs/${id}`);
    sourceId = job.sourceId ?? '';
    return job.state === 'done';
  });
  return (await who.send<SourceDetail>('GET', `/api/sources/${sourceId}`)).id;
}
