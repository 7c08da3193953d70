import {
  expect,
  type Browser,
  type BrowserContextOptions,
  type FrameLocator,
  type Locator,
  type Page,
} from '@playwright/test';
import { PASSWORD } from './constants';

export interface Visitor {
  readonly page: Page;
  close(): Promise<void>;
}

/** Somebody of the demo, signed in, in a browser context of their own. */
export async function visit(
  browser: Browser,
  who: string,
  path = '/library',
  options: BrowserContextOptions = {},
): Promise<Visitor> {
  const context = await browser.newContext({ permissions: ['clipboard-read', 'clipboard-write'], ...options });
  const page = await context.newPage();
  const answer = await page.request.post('/api/session', {
    data: { email: `${who}@college.saltmere.test`, password: PASSWORD },
    headers: fromSomewhere(),
  });
  expect(answer.status()).toBe(200);
  await page.goto(path);
  return { page, close: () => context.close() };
}

/** An address of its own for each request that is limited by address; the server under test trusts its proxy. */
const fromSomewhere = () => ({
  'x-forwarded-for': `10.20.${Math.floor(Math.random() * 250)}.${Math.floor(Math.random() * 250)}`,
});

/** A new account of its own, so that tests do not meet in one person's data. */
export async function newcomer(browser: Browser, name: string): Promise<Visitor & { name: string }> {
  const context = await browser.newContext({ permissions: ['clipboard-read', 'clipboard-write'] });
  const page = await context.newPage();
  const email = `${name.toLowerCase()}.${Math.random().toString(36).slice(2)}@college.saltmere.test`;
  const answer = await page.request.post('/api/people', {
    data: { email, name: `${name} Test`, password: 'a long enough password' },
    headers: fromSomewhere(),
  });
  expect(answer.status(), await answer.text()).toBe(200);
  await page.goto('/library');
  return { page, name: `${name} Test`, close: () => context.close() };
}

/** New accounts of their own, by their names. */
export const newcomers = <const Names extends readonly string[]>(browser: Browser, ...names: Names) =>
  Promise.all(names.map((name) => newcomer(browser, name))) as Promise<{
    readonly [N in keyof Names]: Awaited<ReturnType<typeof newcomer>>;
  }>;

/** A class of somebody's, which others join by its code; they stand on its page then. */
export async function makeClass(teacher: Page, name: string, students: readonly Page[]): Promise<void> {
  await teacher.goto('/classes');
  await teacher.getByLabel('Name').fill(name);
  await teacher.getByRole('button', { name: 'Make it' }).click();
  const code = (await teacher.getByTitle('Copy').textContent())!.trim();
  for (const page of students) {
    await page.goto('/classes');
    await page.getByLabel('Code from your teacher').fill(code);
    await page.getByRole('button', { name: 'Join' }).click();
    await expectSeen(page.getByRole('heading', { name }));
  }
}

/** Keeps a page of the simulated web and opens it in the reading view. */
export async function keep(page: Page, address: string): Promise<void> {
  await page.goto('/library');
  await page.getByLabel('Address of a page').fill(address);
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('list', { name: 'Being kept' }).getByRole('link', { name: 'Open it' }).first().click();
  await opened(page);
}

/** Waits until the text stands on the page. */
export async function opened(page: Page): Promise<FrameLocator> {
  const frame = page.frameLocator('iframe[title^="Text of"]');
  await expect(page.locator('iframe[title^="Text of"]')).toBeVisible();
  await expect(frame.locator('body')).not.toBeEmpty();
  return frame;
}

/** Where words stand in the window: the middle of the first and of the last character, scrolled into view. */
export async function placeOf(
  page: Page,
  words: string,
): Promise<{ from: { x: number; y: number }; to: { x: number; y: number } }> {
  const measure = () =>
    page.evaluate((wanted) => {
      const frame = document.querySelector<HTMLIFrameElement>('iframe[title^="Text of"]')!;
      const inner = frame.contentDocument!;
      const walker = inner.createTreeWalker(inner.body, NodeFilter.SHOW_TEXT);
      for (let node = walker.nextNode(); node; node = walker.nextNode()) {
        const at = node.nodeValue!.replace(/\s/g, ' ').indexOf(wanted);
        if (at < 0) continue;
        const character = (index: number) => {
          const range = inner.createRange();
          range.setStart(node!, index);
          range.setEnd(node!, index + 1);
          return range.getBoundingClientRect();
        };
        const first = character(at);
        const last = character(at + wanted.length - 1);
        const box = frame.getBoundingClientRect();
        // Words in a script that is read from the right begin there.
        const fromRight = /^[\p{Script=Arabic}\p{Script=Hebrew}]/u.test(wanted);
        const [begin, end] = fromRight ? [first.right - 1, last.left + 1] : [first.left + 1, last.right - 1];
        return {
          from: { x: box.left + begin, y: box.top + first.top + first.height / 2 },
          to: { x: box.left + end, y: box.top + last.top + last.height / 2 },
        };
      }
      throw new Error(`“${wanted}” does not stand on the page.`);
    }, words);
  const before = await measure();
  await page.evaluate((y) => {
    const scroller = document.querySelector('iframe')!.closest('.overflow-y-auto')!;
    const box = scroller.getBoundingClientRect();
    if (y < box.top + 60 || y > box.bottom - 120) scroller.scrollBy(0, y - box.top - box.height / 3);
  }, before.from.y);
  return measure();
}

/**
 * Selects words with a real pointer drag. Through the browser's own input events: Playwright's mouse hangs over a frame
 * without scripting.
 */
export async function drag(
  page: Page,
  words: string,
  {
    alt = false,
    leaves = false,
  }: {
    /** With the Alt key held. */ readonly alt?: boolean;
    /** Something is done with the selection at once. */ readonly leaves?: boolean;
  } = {},
): Promise<void> {
  const { from, to } = await placeOf(page, words);
  const session = await page.context().newCDPSession(page);
  const send = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', { x, y }: { x: number; y: number }) =>
    session.send('Input.dispatchMouseEvent', {
      type,
      x,
      y,
      button: 'left',
      buttons: type === 'mouseReleased' ? 0 : 1,
      clickCount: 1,
      modifiers: alt ? 1 : 0,
    });
  await send('mousePressed', from);
  for (let step = 1; step <= 6; step++)
    await send('mouseMoved', { x: from.x + ((to.x - from.x) * step) / 6, y: from.y + ((to.y - from.y) * step) / 6 });
  await send('mouseMoved', to);
  await send('mouseReleased', to);
  await session.detach();
  if (!leaves) await expect.poll(() => selectedText(page)).toContain(words.slice(0, 10));
}

export async function clickWords(page: Page, words: string): Promise<void> {
  const { from, to } = await placeOf(page, words);
  const session = await page.context().newCDPSession(page);
  for (const type of ['mousePressed', 'mouseReleased'] as const)
    await session.send('Input.dispatchMouseEvent', {
      type,
      x: from.x + (to.x < from.x ? -6 : 6),
      y: from.y,
      button: 'left',
      buttons: type === 'mousePressed' ? 1 : 0,
      clickCount: 1,
    });
  await session.detach();
}

export const selectedText = (page: Page): Promise<string> =>
  page.evaluate(() => document.querySelector('iframe')?.contentWindow?.getSelection()?.toString() ?? '');

/** What is painted on the page, as the browser holds it: kind → passages in their order in the text. Nothing while there is no page. */
export const painted = (page: Page): Promise<Record<string, string[]>> =>
  page.evaluate(() => {
    const inner = document.querySelector('iframe')?.contentWindow as (Window & typeof globalThis) | null | undefined;
    if (!inner) return {};
    const found: Record<string, string[]> = {};
    inner.CSS.highlights.forEach((highlight, name) => {
      const ranges = [...highlight].map((static_) => {
        const range = inner.document.createRange();
        range.setStart(static_.startContainer, static_.startOffset);
        range.setEnd(static_.endContainer, static_.endOffset);
        return range;
      });
      const passages = ranges
        .sort((a, b) => a.compareBoundaryPoints(Range.START_TO_START, b))
        .map((range) => range.toString());
      if (passages.length) found[name] = passages;
    });
    return found;
  });

/** A real press, drag and release, through the browser's own input. */
export async function stroke(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
  await page.mouse.move(to.x, to.y);
  await page.mouse.up();
}

/** The words being written in a note, in the rich editor or, before that has come, as plain Markdown. */
export const writtenIn = (within: Page | Locator): Locator =>
  within.getByRole('textbox', { name: 'Note', exact: true });
export const wordsIn = (field: Locator): Promise<string> =>
  field.evaluate((node) => (node instanceof HTMLTextAreaElement ? node.value : (node.textContent ?? '')));

/**
 * That a person sees it, scrolling where it must be: what fits into the window lies in it wholly, and nothing lies over its
 * middle. What is drawn where no scrolling leads is not seen, however visible it is to a program.
 */
export async function expectSeen(found: Locator, timeout = 10_000): Promise<void> {
  await expect(found).toBeVisible({ timeout });
  // What is drawn anew meanwhile is looked at once more.
  const look = async (): Promise<string> => {
    await found.scrollIntoViewIfNeeded({ timeout: 5_000 });
    return found.evaluate(whatHidesIt);
  };
  await expect.poll(() => look().catch(String), { timeout }).toBe('seen');
}

function whatHidesIt(element: Element): string {
  // Words over several lines have a box for each; between these others may stand.
  const [box = element.getBoundingClientRect()] = element.getClientRects();
  const { left, top, right, bottom, width, height } = box;
  const place = `${Math.round(left)}, ${Math.round(top)} to ${Math.round(right)}, ${Math.round(bottom)} of ${innerWidth} × ${innerHeight}`;
  if (width === 0 || height === 0) return 'it has no size';
  const [from, to] = [Math.max(0, left), Math.min(innerWidth, right)];
  const [above, below] = [Math.max(0, top), Math.min(innerHeight, bottom)];
  // What is larger than the window cannot be in it as a whole.
  const isCut = Math.max(width - (to - from), height - (below - above)) > 1;
  const fits = width <= innerWidth && height <= innerHeight;
  const isOut = Math.min(to - from, below - above) <= 0;
  if (isOut || (isCut && fits)) return `it is at ${place}`;
  const over = document.elementFromPoint((from + to) / 2, (above + below) / 2);
  const lies = (other: Element): string => `${other.tagName} ${other.className} lies over it, at ${place}`;
  if (!over) return `nothing is drawn at ${place}`;
  return element.contains(over) || over.contains(element) ? 'seen' : lies(over);
}

/** The words of a page that is shown that step forward; where they are not in the window, that. */
export const shownWords = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const frame = document.querySelector<HTMLIFrameElement>('iframe[title^="Text of"]');
    const inner = frame?.contentWindow as (Window & { CSS: typeof CSS }) | undefined;
    const [found] = inner?.CSS.highlights.get('avrelle-shown') ?? [];
    if (!found) return '';
    const words = found.startContainer.ownerDocument!.createRange();
    words.setStart(found.startContainer, found.startOffset);
    words.setEnd(found.endContainer, found.endOffset);
    const y = frame!.getBoundingClientRect().top + words.getBoundingClientRect().top;
    const { top, bottom } = document.querySelector('[data-shown-page]')!.getBoundingClientRect();
    return y >= top && y < bottom ? words.toString() : 'out of sight';
  });
