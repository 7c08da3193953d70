import { chromium } from '@playwright/test';
import { CHROMIUM_ARGS } from '../constants';
import { asPicture, type Engine } from './engine';

/** A phone's Chromium, driven by fingers alone. */
export async function startChromium(width: number, height: number): Promise<Engine> {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS });
  const context = await browser.newContext({ viewport: { width, height }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  return {
    name: 'Chromium',
    open: async (url) => void (await page.goto(url)),
    value: (expression) => page.evaluate(`(${expression})`) as Promise<never>,
    drag: () => Promise.reject(new Error('Other tests drag in Chromium.')),
    tap: ({ x, y }) => page.touchscreen.tap(x, y),
    press: (key, held) => page.keyboard.press(held ? `${held}+${key}` : key),
    type: (words) => page.keyboard.type(words),
    picture: async () => asPicture((await page.screenshot()).toString('base64')),
    close: () => browser.close(),
  };
}
