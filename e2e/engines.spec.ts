import { expect, test } from '@playwright/test';
import fastify from 'fastify';
import { sealed } from '../server/snapshots/sealed';
import { VECTORS } from '../server/testing/xss-vectors';
import { until, within, type Engine } from './engines/engine';
import { startChromium } from './engines/chromium';
import { hasFirefox, startFirefox } from './engines/firefox';
import {
  changed,
  keepAndOpen,
  middle,
  opened,
  painted,
  placeOf,
  seen,
  select,
  selectByHandles,
  tapOn,
} from './engines/reader';
import { hasWebKit, startWebKit } from './engines/webkit';

const PAGE = 'http://packet.saltmere.test/who-pays';
/** A passage for each kind of the starting Legend, in the order of its digits. */
const PASSAGES = ['two pages', 'Hester Vane', 'asked what', 'Harbour Office', 'eastern', 'sea defence'];
/** What tests of other engines may take: none hangs for as long as a browser test may. */
const LIMIT = 150_000;

const ENGINES: readonly [string, boolean, Start][] = [
  ['Firefox', hasFirefox(), startFirefox],
  ['WebKit', hasWebKit(), startWebKit],
];

type Start = (width: number, height: number) => Promise<Engine>;

/** A browser that can be driven here: it opens, answers and gives pictures before anything of ours is asked of it. */
async function startSound(start: Start, width: number, height: number): Promise<Engine | string> {
  try {
    const engine = await within(45_000, start(width, height), 'starting');
    try {
      await within(15_000, engine.value('1 + 1'), 'an answer');
      await within(15_000, engine.picture(), 'a picture');
      return engine;
    } catch (error) {
      void engine.close().catch(() => undefined);
      throw error;
    }
  } catch (error) {
    return String(error);
  }
}

/** Runs in a browser of its own, which ends whatever happens. Skipped by name where none can be driven. */
async function inEngine(
  start: Start,
  work: (engine: Engine) => Promise<void>,
  [width, height] = [1280, 800],
): Promise<void> {
  test.setTimeout(LIMIT);
  const engine = await startSound(start, width, height);
  if (typeof engine === 'string') return test.skip(true, `It cannot be driven here: ${engine}`);
  try {
    await work(engine);
  } finally {
    await within(10_000, engine.close(), 'closing').catch(() => undefined);
  }
}

/** In pixels: every kind can be seen, and is told from every other by its colour. */
async function markEveryKind(engine: Engine): Promise<void> {
  const colours: (readonly number[])[] = [];
  for (const [index, words] of PASSAGES.entries()) {
    const place = await placeOf(engine, words);
    const before = await engine.picture();
    await select(engine, words);
    await engine.press(String(index + 1));
    await until(
      () => painted(engine),
      (all) => Object.values(all).includes(words),
      `“${words}” is not painted`,
    );
    await engine.press('Escape');
    // With the lines below the letters.
    const { colour } = await until(
      async () => changed(before, await engine.picture(), { ...place, height: place.height + 5 }),
      ({ count }) => count > 40,
      `“${words}” is marked, and cannot be seen`,
    );
    colours.push(colour);
  }
  const apart = colours.flatMap((one, index) =>
    colours.slice(index + 1).map((other) => Math.hypot(...one.map((c, i) => c - other[i]!))),
  );
  expect(Math.min(...apart), JSON.stringify(colours)).toBeGreaterThan(12);
}

const note = (words: string) =>
  `[...document.querySelectorAll('article')].some((card) => card.textContent.includes(${JSON.stringify(words)}))`;

for (const [name, isThere, start] of ENGINES) {
  test(`in ${name} every kind is marked and seen, one writes, draws and marks an area, and all of it stays`, async () => {
    test.skip(!isThere, `${name} is not installed`);
    await inEngine(start, async (engine) => {
      await keepAndOpen(engine, PAGE);
      await markEveryKind(engine);
      await select(engine, 'One had framed it.');
      await engine.type('Why framed?');
      await engine.press('Enter', 'Control');
      await until(() => engine.value<boolean>(note('Why framed?')), Boolean, 'no note');

      await engine.press('Escape');
      await engine.press('d');
      const { x, y, width, height } = await placeOf(engine, 'net loft');
      await seen(engine, '[aria-label^="Draw"]');
      await engine.drag([
        { x, y: y + height / 2 },
        { x: x + width / 2, y: y + height },
        { x: x + width + 60, y: y + height / 2 },
      ]);
      await seen(engine, '[data-tool=pen]');
      await engine.press('d');
      await engine.press('a');
      const area = await placeOf(engine, 'Nothing, for a while.');
      await engine.drag([
        { x: area.x - 4, y: area.y - 4 },
        middle(area),
        { x: area.x + area.width + 4, y: area.y + area.height + 4 },
      ]);
      await engine.type('All of this.');
      await engine.press('Enter', 'Control');
      await seen(engine, '[data-tool=box]');

      await engine.open(await engine.value('location.href'));
      await opened(engine);
      await seen(engine, '[data-tool=box]');
      await seen(engine, '[data-tool=pen]');
      expect(Object.values(await painted(engine))).toEqual(expect.arrayContaining(PASSAGES));
      for (const words of ['Why framed?', 'All of this.']) expect(await engine.value(note(words))).toBe(true);
    });
  });
}

for (const [name, isThere, start] of [['Chromium', true, startChromium], ENGINES[0]!] as const) {
  test(`on a phone one marks, writes, opens and deletes by finger in ${name}`, async () => {
    test.skip(!isThere, `${name} is not installed`);
    await inEngine(
      start,
      async (engine) => {
        await keepAndOpen(engine, PAGE);
        const words = 'By Friday three had answered.';
        await selectByHandles(engine, words);
        await tapOn(engine, '?');
        await until(
          () => painted(engine),
          (all) => Object.values(all).includes(words),
          'not marked',
        );
        await engine.tap!(middle(await placeOf(engine, words)));
        await tapOn(engine, 'Write');
        await seen(engine, 'article [aria-label="Note"]');
        await engine.type('Who were they?');
        await tapOn(engine, 'Save');
        await until(() => engine.value<boolean>(note('Who were they?')), Boolean, 'no note');
        await tapOn(engine, 'Delete');
        await until(
          () => painted(engine),
          (all) => !Object.values(all).includes(words),
          'not deleted',
        );
      },
      [390, 844],
    );
  });
}

const FRAME = 'document.querySelector("iframe")';
/** Loads a page into a frame as the reading view has it in WebKit, and gives whether anything of the page acted. */
async function hits(engine: Engine, base: string, path: string): Promise<boolean> {
  await engine.open(`${base}/around?${path}`);
  await until(() => engine.value<boolean>('window.isLoaded === true'), Boolean, `${path} does not load`);
  return engine.value<boolean>(`Boolean(window.avrelleHit || ${FRAME}.contentWindow?.avrelleHit)`);
}

test('in WebKit, where the frame has scripting, no published attack acts behind the policy alone', async () => {
  test.skip(!hasWebKit(), 'WebKit is not installed');
  const app = fastify();
  // To lead elsewhere is no script, and no policy forbids it: the sanitiser takes it out.
  const acting = VECTORS.filter((vector) => !/http-equiv/i.test(vector));
  const raw = Buffer.from(`<!doctype html><p>words</p>${acting.join('\n')}`);
  app.get('/behind', (request, reply) => sealed(request, reply, raw));
  app.get('/without', (_, reply) => reply.type('text/html').send(raw));
  app.get('/around', (request, reply) =>
    reply.type('text/html').send(
      `<iframe sandbox="allow-same-origin allow-scripts" src="/${request.url.split('?')[1]}"
          onload="isLoaded = true"></iframe>`,
    ),
  );
  const base = await app.listen({ port: 0, host: '127.0.0.1' });
  try {
    await inEngine(startWebKit, async (engine) => {
      expect(await hits(engine, base, 'behind')).toBe(false);
      await until(() => hits(engine, base, 'without'), Boolean, 'nothing acts, even without the policy');
    });
  } finally {
    await app.close();
  }
});
