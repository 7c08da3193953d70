import type { PNG } from 'pngjs';
import { PORT } from '../constants';
import { until, type Engine, type Point, type Rectangle } from './engine';

const BASE = `http://127.0.0.1:${PORT}`;
const TEXT = `document.querySelector('iframe[title^="Text of"]')`;

/** A newcomer in this browser, who has kept a page and reads it. */
export async function keepAndOpen(engine: Engine, address: string): Promise<void> {
  await engine.open(`${BASE}/enter`);
  const somebody = {
    email: `engine.${Math.random().toString(36).slice(2)}@college.saltmere.test`,
    name: 'Engine Test',
    password: 'a long enough password',
  };
  const status = await engine.value<number>(`(() => {
    const request = new XMLHttpRequest();
    request.open('POST', '/api/people', false);
    request.setRequestHeader('content-type', 'application/json');
    request.setRequestHeader('x-forwarded-for', '10.30.0.${Math.floor(Math.random() * 250)}');
    request.send(${JSON.stringify(JSON.stringify(somebody))});
    return request.status;
  })()`);
  if (status !== 200) throw new Error(`No account: ${status}`);
  await engine.open(`${BASE}/library`);
  await seen(engine, '[aria-label="Address of a page"]');
  await engine.value(`document.querySelector('[aria-label="Address of a page"]').focus()`);
  await engine.type(address);
  await engine.press('Enter');
  const link = `[...document.querySelectorAll('[aria-label="Being kept"] a')].find((a) => a.textContent === 'Open it')`;
  const path = await until(() => engine.value<string>(`${link}?.getAttribute('href') ?? ''`), Boolean, 'not kept');
  await engine.open(BASE + path);
  await opened(engine);
}

/** Waits until the text stands on the page, with its letters. */
export async function opened(engine: Engine): Promise<void> {
  await until(
    () => engine.value<string>(`${TEXT} ? getComputedStyle(${TEXT}).visibility : 'none'`),
    (state) => state === 'visible',
    'no text',
  );
  const faces = `${TEXT}.contentDocument.fonts.status + document.fonts.status`;
  await until(
    () => engine.value<string>(faces),
    (state) => state === 'loadedloaded',
    'no letters',
  );
}

/** Where something that is seen stands. */
export const seen = (engine: Engine, selector: string): Promise<Rectangle> =>
  until(
    () =>
      engine.value<Rectangle | null>(`(() => {
        const box = document.querySelector(${JSON.stringify(selector)})?.getBoundingClientRect();
        return box && box.width > 0 ? { x: box.x, y: box.y, width: box.width, height: box.height } : null;
      })()`),
    (box) => box !== null,
    `not seen: ${selector}`,
  ) as Promise<Rectangle>;

export const middle = ({ x, y, width, height }: Rectangle): Point => ({ x: x + width / 2, y: y + height / 2 });

/** The box of the first line of words, scrolled into the middle of the window. */
export function placeOf(engine: Engine, words: string): Promise<Rectangle> {
  return engine.value<Rectangle>(`(() => {
    const frame = ${TEXT};
    const inner = frame.contentDocument;
    const walker = inner.createTreeWalker(inner.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const at = node.nodeValue.replace(/\\s/g, ' ').indexOf(${JSON.stringify(words)});
      if (at < 0) continue;
      const range = inner.createRange();
      range.setStart(node, at);
      range.setEnd(node, at + ${words.length});
      const scroller = frame.closest('.overflow-y-auto');
      const [first] = range.getClientRects();
      const top = () => frame.getBoundingClientRect().top + first.top;
      if (top() < 150 || top() > innerHeight - 200) scroller.scrollBy(0, top() - innerHeight / 3);
      return { x: frame.getBoundingClientRect().left + first.left, y: top(), width: first.width, height: first.height };
    }
    throw new Error('It does not stand on the page.');
  })()`);
}

/** Selects words, which stand on one line, by a real press, drag and release. */
export async function select(engine: Engine, words: string): Promise<void> {
  const { x, y, width, height } = await placeOf(engine, words);
  const level = y + height / 2;
  await engine.drag([
    { x: x + 1, y: level },
    { x: x + width / 2, y: level },
    { x: x + width - 1, y: level },
  ]);
  await until(
    () => engine.value<string>(`String(${TEXT}.contentWindow.getSelection())`),
    (chosen) => chosen.replace(/\s/g, ' ') === words,
    'selected',
  );
}

/** Kind → words that are painted as such, as the browser holds it. */
export const painted = (engine: Engine): Promise<Record<string, string>> =>
  engine.value(`(() => {
    const found = {};
    const inner = ${TEXT}.contentWindow;
    inner.CSS.highlights.forEach((highlight, name) => {
      for (const { startContainer, startOffset, endContainer, endOffset } of highlight) {
        const range = inner.document.createRange();
        range.setStart(startContainer, startOffset);
        range.setEnd(endContainer, endOffset);
        found[name] = range.toString().replace(/\\s/g, ' ');
      }
    });
    return found;
  })()`);

/** How many pixels of a part differ between two pictures, and the mean colour of those in the second. */
export function changed(before: PNG, after: PNG, part: Rectangle): { count: number; colour: readonly number[] } {
  const sum = [0, 0, 0];
  let count = 0;
  const [bottom, right] = [part.y + part.height, part.x + part.width].map(Math.round) as [number, number];
  for (let y = Math.round(part.y); y < bottom; y++)
    for (let x = Math.round(part.x); x < right; x++) {
      const at = (y * after.width + x) * 4;
      const differs = [0, 1, 2].some((c) => Math.abs(before.data[at + c]! - after.data[at + c]!) > 24);
      if (!differs) continue;
      count++;
      for (const c of [0, 1, 2]) sum[c]! += after.data[at + c]!;
    }
  return { count, colour: sum.map((s) => Math.round(s / Math.max(1, count))) };
}

/** Selects words as a phone's own handles do: no driver can hold a finger until they come. */
export async function selectByHandles(engine: Engine, words: string): Promise<void> {
  await placeOf(engine, words);
  await engine.value(`(() => {
    const inner = ${TEXT}.contentDocument;
    const walker = inner.createTreeWalker(inner.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const at = node.nodeValue.replace(/\\s/g, ' ').indexOf(${JSON.stringify(words)});
      if (at >= 0) return void inner.getSelection().setBaseAndExtent(node, at, node, at + ${words.length});
    }
  })()`);
}

/** The button, or what else is pressed, that bears a name and is seen. */
export async function tapOn(engine: Engine, name: string): Promise<void> {
  const find = `[...document.querySelectorAll('button, [role=menuitem], [role=radio]')].find((e) =>
    (e.getAttribute('aria-label') ?? e.innerText).trim().startsWith(${JSON.stringify(name)}) && e.offsetParent)`;
  await until(() => engine.value<boolean>(`Boolean(${find})`), Boolean, `no “${name}”`);
  const place = await engine.value<Rectangle>(`(() => {
    const button = ${find};
    button.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    const { x, y, width, height } = button.getBoundingClientRect();
    return { x, y, width, height };
  })()`);
  await engine.tap!(middle(place));
}
