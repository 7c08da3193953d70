import { expect, type Page } from '@playwright/test';
import { placeOf, stroke } from './helpers';

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What is drawn, as the browser shows it: tool and box, in the order of drawing. */
export const ink = (page: Page): Promise<(Box & { tool: string })[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll<SVGElement>('[aria-label^="Draw"] [data-tool], [aria-label^="Draw"] text')].map(
      (node) => {
        const { x, y, width, height } = node.getBoundingClientRect();
        return { tool: node.dataset.tool ?? node.textContent ?? '', x, y, width, height };
      },
    ),
  );
export const drawn = (page: Page, ...tools: string[]) =>
  expect.poll(async () => (await ink(page)).map((i) => i.tool).sort()).toEqual([...tools].sort());

/** Draws with a real pointer over the words, so far below their middle. */
export async function over(page: Page, words: string, below = 0): Promise<void> {
  const { from, to } = await placeOf(page, words);
  await stroke(page, { x: from.x, y: from.y + below }, { x: to.x, y: to.y + below });
}
/** Whether something drawn lies over words, wherever these stand now. */
export async function liesOver(page: Page, words: string): Promise<boolean> {
  const { from, to } = await placeOf(page, words);
  const marks = await ink(page);
  const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
  return marks.some(
    (m) =>
      Math.abs(m.x - left) < 8 &&
      Math.abs(m.x + m.width - right) < 8 &&
      m.y < from.y &&
      m.y + m.height > from.y - 3 &&
      m.height < 24,
  );
}
