import { chromium, type Page } from '@playwright/test';
import { v7 } from 'uuid';
import { describe, indexText } from '@avrelle/core/anchor';
import { range, type Outline } from '@avrelle/core/text';
import type { SourceDetail } from '@avrelle/core/wire';
import { CHROMIUM_ARGS } from '../e2e/constants';
import { atMost, percentile, prose, seeded, type Bench } from './measure';
import { framesOf, startWhole } from './whole-server';

const CHARACTERS = 500_000;
const MARKS = 2_000;
const NOTES = 500;
const KINDS = ['claim', 'evidence', 'question', 'term', 'doubt', 'keep'];

async function markAll(
  server: Awaited<ReturnType<typeof startWhole>>,
  sourceId: string,
  random: () => number,
): Promise<void> {
  const { versionId } = await server.send<SourceDetail>('GET', `/api/sources/${sourceId}`);
  const { text, outline } = await server.send<{ text: string; outline: Outline }>(
    'GET',
    `/api/sources/${sourceId}/text`,
  );
  const index = indexText(text, outline);
  for (let n = 0; n < MARKS; n++) {
    const at = Math.floor((n / MARKS) * (text.length - 200));
    const anchor = describe(index, range(at, at + 30 + Math.floor(random() * 60)));
    await server.send('PUT', `/api/annotations/${v7()}`, {
      sourceId,
      versionId,
      kind: KINDS[n % KINDS.length],
      note: n % (MARKS / NOTES) === 0 ? prose(80, random) : '',
      tags: [],
      anchor,
      classIds: [],
    });
  }
}

/** A long source with many marks, a quarter of them with notes, as it is read in a real browser. */
export const reading: Bench = async () => {
  const server = await startWhole();
  const id = v7();
  const form = new FormData();
  const random = seeded(21);
  form.append('file', new Blob([prose(CHARACTERS, random)]), 'long.txt');
  await server.send('POST', `/api/uploads/${id}`, form);
  const { sourceId } = await server.ended(id);
  await markAll(server, sourceId!, random);
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS });
  const cold = { readable: [] as number[], marked: [] as number[] };
  let page: Page | undefined;
  for (let round = 0; round < 5; round++) {
    // One that follows what another writes would take its part of the machine.
    await page?.context().close();
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: server.base });
    page = await context.newPage();
    await page.request.post('/api/session', {
      data: { email: server.account.email, password: server.account.password },
    });
    const start = performance.now();
    await page.goto(`/source/${sourceId}`, { waitUntil: 'commit' });
    await page.waitForFunction(() => {
      const frame = document.querySelector('iframe');
      return frame?.style.visibility === 'visible' && (frame.contentDocument?.body?.innerText.length ?? 0) > 0;
    });
    cold.readable.push(performance.now() - start);
    await page.waitForFunction(() => {
      let count = 0;
      (document.querySelector('iframe')?.contentWindow as (Window & typeof globalThis) | null)?.CSS.highlights.forEach(
        (h) => {
          count += h.size;
        },
      );
      return count > 0 && document.querySelectorAll('[data-annotation]').length > 0;
    });
    cold.marked.push(performance.now() - start);
  }
  if (!page) throw new Error('No page was opened.');
  // A reader looks at the page before doing anything with it.
  await page.waitForTimeout(4_000);
  const frames = await framesOf(page);
  const keys = await keysToMarks(page);
  const opens = await openings(page);
  const ink = await inkTimes(page);
  if (process.env.BENCH_SHOW) console.log(JSON.stringify({ keys, opens }));
  await browser.close();
  await server.close();
  return [
    atMost(
      `open ${CHARACTERS.toLocaleString('en')} characters with ${MARKS.toLocaleString('en')} annotations, cold: readable (median of 5)`,
      percentile(cold.readable, 0.5),
      'ms',
      1_000,
    ),
    atMost('the same: marks painted, notes in the margin (median of 5)', percentile(cold.marked, 0.5), 'ms', 1_500),
    atMost('scrolling through it, p95 frame', percentile(frames, 0.95), 'ms', 20),
    atMost('a key to its highlight on the page, p95', percentile(keys, 0.95), 'ms', 50),
    atMost(`${NOTES} notes laid out anew as one is opened, to the next frame, p95`, percentile(opens, 0.95), 'ms', 30),
    atMost('ink after a move of the pen, p95', percentile(ink, 0.95), 'ms', 16.7),
  ];
};

/** Words are selected, a digit is pressed: until the browser holds the new highlight and a frame with it is drawn. */
const keysToMarks = (page: Page): Promise<number[]> =>
  page.evaluate(async () => {
    const frame = document.querySelector('iframe')!;
    const scroller = frame.closest('.overflow-y-auto')!;
    const inner = frame.contentWindow as Window & typeof globalThis;
    const paragraphs = [...inner.document.querySelectorAll('p')].slice(3, 43);
    const times: number[] = [];
    const size = (): number => {
      let count = 0;
      inner.CSS.highlights.forEach((h) => {
        count += h.size;
      });
      return count;
    };
    for (const paragraph of paragraphs) {
      // What is marked is what one sees.
      scroller.scrollTo(0, paragraph.getBoundingClientRect().top - 200);
      const made = inner.document.createRange();
      const node = paragraph.firstChild!;
      made.setStart(node, 7);
      made.setEnd(node, 27);
      inner.getSelection()!.removeAllRanges();
      inner.getSelection()!.addRange(made);
      // A person sees what is selected before pressing the key.
      await new Promise((later) => setTimeout(later, 400));
      const before = size();
      const start = performance.now();
      inner.document.dispatchEvent(new inner.KeyboardEvent('keydown', { key: '1', bubbles: true, cancelable: true }));
      do
        await new Promise<void>((done) => {
          const channel = new MessageChannel();
          channel.port1.onmessage = () => done();
          requestAnimationFrame(() => channel.port2.postMessage(0));
        });
      while (size() === before);
      times.push(performance.now() - start);
      await new Promise((later) => setTimeout(later, 150));
    }
    return times;
  });

/** One note after another is opened, down the margin: all below make room. */
const openings = (page: Page): Promise<number[]> =>
  page.evaluate(async () => {
    const scroller = document.querySelector('iframe')!.closest('.overflow-y-auto')!;
    const opened = new Set<string>();
    const times: number[] = [];
    const inView = (card: HTMLElement): boolean => {
      const { top } = card.getBoundingClientRect();
      return top > 100 && top < 700;
    };
    while (times.length < 40) {
      const card = [...document.querySelectorAll<HTMLElement>('[data-annotation]')].find(
        (each) => !opened.has(each.dataset.annotation!) && inView(each),
      );
      if (card) {
        opened.add(card.dataset.annotation!);
        const start = performance.now();
        card.querySelector<HTMLElement>('header button')!.click();
        await new Promise<void>((done) => {
          const channel = new MessageChannel();
          channel.port1.onmessage = () => done();
          requestAnimationFrame(() => channel.port2.postMessage(0));
        });
        times.push(performance.now() - start);
      } else scroller.scrollBy(0, 500);
      await new Promise((later) => setTimeout(later, 250));
    }
    return times;
  });

/** From each move the browser tells of to the ink that follows it. */
const inkTimes = async (page: Page): Promise<number[]> => {
  await page.keyboard.press('Escape');
  await page.keyboard.press('d');
  await page.locator('[data-pad]').waitFor();
  return page.evaluate(async () => {
    const pad = document.querySelector('[data-pad]')!;
    const path = pad.querySelector('path')!;
    const box = pad.getBoundingClientRect();
    const times: number[] = [];
    const tell = (type: string, n: number): void =>
      void pad.dispatchEvent(
        new PointerEvent(type, {
          bubbles: true,
          pointerId: 1,
          button: 0,
          buttons: 1,
          clientX: box.left + 200 + n,
          clientY: 300 + 40 * Math.sin(n / 20),
        }),
      );
    pad.setPointerCapture = () => undefined;
    tell('pointerdown', 0);
    for (let n = 1; n < 400; n++) {
      const before = path.getAttribute('d');
      const start = performance.now();
      tell('pointermove', n);
      if (path.getAttribute('d') === before) throw new Error('The ink did not follow.');
      times.push(performance.now() - start);
      if (n % 10 === 0) await new Promise<void>((done) => requestAnimationFrame(() => done()));
    }
    tell('pointercancel', 400);
    return times;
  });
};
