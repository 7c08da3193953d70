import { spawnSync } from 'node:child_process';
import puppeteer, { type KeyInput } from 'puppeteer-core';
import { asPicture, type Engine } from './engine';

const PROGRAM = 'firefox-esr';

export const hasFirefox = (): boolean => spawnSync('which', [PROGRAM]).status === 0;

/** Debian's Firefox over WebDriver BiDi. */
export async function startFirefox(width: number, height: number): Promise<Engine> {
  const browser = await puppeteer.launch({
    browser: 'firefox',
    executablePath: `/usr/bin/${PROGRAM}`,
    headless: true,
    extraPrefsFirefox: { 'dom.w3c_touch_events.enabled': 1 },
    timeout: 60_000,
  });
  const page = await browser.newPage();
  await page.setViewport({ width, height });
  return {
    name: 'Firefox',
    open: async (url) => void (await page.goto(url)),
    value: (expression) => page.evaluate(`(${expression})`) as Promise<never>,
    drag: async ([from, ...over]) => {
      await page.mouse.move(from!.x, from!.y);
      await page.mouse.down();
      for (const { x, y } of over) await page.mouse.move(x, y, { steps: 4 });
      await page.mouse.up();
    },
    tap: ({ x, y }) => page.touchscreen.tap(x, y),
    press: async (key, held) => {
      if (held) await page.keyboard.down(held);
      await page.keyboard.press(key as KeyInput);
      if (held) await page.keyboard.up(held);
    },
    type: (words) => page.keyboard.type(words),
    picture: async () => asPicture(await page.screenshot({ encoding: 'base64' })),
    close: () => browser.close(),
  };
}
