import fs from 'node:fs';
import { createRequire } from 'node:module';
import { expect, type Frame, type Page } from '@playwright/test';
import { opened } from './helpers';

const axe = fs.readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Axe {
  run(
    context: object,
    options: object,
  ): Promise<{ violations: { id: string; nodes: { html: string; failureSummary?: string }[] }[] }>;
}

/** The other theme differs in its colours alone. */
export type Rules = 'all' | 'colours';

/** What axe finds in a part of a page, with the size of targets (WCAG 2.2, 2.5.8). Of frames see `inFrame`. */
export async function violations(page: Page | Frame, rules: Rules, within = 'html', without: readonly string[] = []) {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe);
  const options = {
    iframes: false,
    resultTypes: ['violations'],
    ...(rules === 'colours' ? { runOnly: ['color-contrast'] } : { rules: switched(without) }),
  };
  return page.evaluate(
    async ([include, asked]) => {
      const { run } = (window as unknown as { axe: Axe }).axe;
      const { violations: found } = await run({ include, exclude: ['iframe'] }, asked);
      return found.flatMap((v) =>
        v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.failureSummary?.slice(0, 200) ?? ''}`),
      );
    },
    [within, options] as const,
  );
}

/** By day all that axe finds, and by night, which differs in colours alone, what it finds of those. */
export async function inBothThemes(page: Page, within?: string): Promise<string[]> {
  const wear = (theme: string): Promise<void> =>
    page.evaluate((t) => {
      document.documentElement.dataset.theme = t;
    }, theme);
  await wear('day');
  const byDay = await violations(page, 'all', within);
  await wear('night');
  const byNight = await violations(page, 'colours', within);
  await wear('day');
  return [...byDay, ...byNight.map((v) => `by night ${v}`)];
}

const switched = (off: readonly string[]) => ({
  'target-size': { enabled: true },
  ...Object.fromEntries(off.map((id) => [id, { enabled: false }])),
});

export const ofApi = async <T>(page: Page, path: string): Promise<T> =>
  (await (await page.request.get(path)).json()) as T;

export async function arrive(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await expect(page.getByRole('main').getByRole('heading').first()).toBeAttached();
  if (/^\/source\/[^/]+$/.test(path)) await opened(page);
  await expect(page.getByText('Loading…')).toHaveCount(0);
  // What was loading may have taken the place of a heading that stood there before.
  await expect(page.getByRole('main').getByRole('heading', { level: 1 })).toBeAttached();
}

/** Beyond the width of the window, in pixels (WCAG 2.2, 1.4.10: 320 are 1,280 at 400 %). */
export const beyond = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - innerWidth);

/** WCAG 2.2, 1.4.12. */
export const SPACING =
  '* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important } ' +
  'p { margin-bottom: 2em !important }';

/** What is cut off below, though it could be seen before. */
export const cutOff = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('body *')]
      .filter((e) => {
        const { overflowY, position, visibility, webkitLineClamp } = getComputedStyle(e);
        // What is shortened to some lines says so.
        if (webkitLineClamp !== 'none') return false;
        const isCut = ['hidden', 'clip'].includes(overflowY) && e.scrollHeight > e.clientHeight + 2;
        return isCut && e.clientHeight > 1 && position !== 'absolute' && visibility === 'visible' && e.innerText.trim();
      })
      .map((e) => `${e.className}: ${e.innerText.slice(0, 40)}, ${e.scrollHeight} in ${e.clientHeight}`),
  );

/**
 * What is too small for a finger (WCAG 2.2, 2.5.5, 44 by 44), with what reaches around it. Links within sentences may be,
 * and marks on the line of time, which the margin has as well.
 */
export const tooSmall = (page: Page, within = 'body'): Promise<string[]> =>
  page.evaluate((part) => {
    const pressed =
      'button, a[href], input, select, summary, textarea, [role=slider], [role^=menuitem], [tabindex="0"]';
    const sizes = (element: Element): readonly [number, number] => {
      const around = element.closest('label') ?? element;
      const { width, height } = around.getBoundingClientRect();
      const after = getComputedStyle(element, '::after');
      const reach = after.content !== 'none' && after.position === 'absolute' ? after : undefined;
      return [Math.max(width, parseFloat(reach?.width ?? '0')), Math.max(height, parseFloat(reach?.height ?? '0'))];
    };
    const isInSentence = (element: Element): boolean =>
      getComputedStyle(element).display === 'inline' &&
      [...element.parentNode!.childNodes].some((n) => n.nodeType === Node.TEXT_NODE && n.nodeValue!.trim().length > 2);
    return [...document.querySelectorAll(`${part} :is(${pressed})`)].flatMap((element) => {
      const [width, height] = sizes(element);
      const isSeen = element.checkVisibility({ visibilityProperty: true }) && width > 2 && height > 2;
      const isMoment = / at \d+:\d\d$/.test(element.ariaLabel ?? '');
      if (!isSeen || isMoment || element.matches(':disabled, [aria-hidden=true] *')) return [];
      if (Math.min(width, height) > 43.5 || isInSentence(element)) return [];
      return [`${Math.round(width)} × ${Math.round(height)}: ${element.outerHTML.slice(0, 160)}`];
    });
  }, within);

export const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };
