import { expect, test, type Page } from '@playwright/test';
import { keep, newcomer, opened, painted, stroke, expectSeen } from './helpers';

const PAGE = 'http://packet.saltmere.test/who-pays';
/** Begins with a short heading. */
const SHORT = 'http://review.saltmere.test/marsh-that-walks-inland';
const styleOf = (page: Page) =>
  page.evaluate(() => {
    const inner = document.querySelector('iframe')!.contentDocument!;
    const style = getComputedStyle(inner.body);
    return {
      size: style.fontSize,
      face: style.fontFamily.split(',')[0],
      width: inner.body.getBoundingClientRect().width,
      paper: getComputedStyle(inner.documentElement).backgroundColor,
    };
  });

test('text is set as one likes to read it, for its kind of source, and stays so', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Setter');
  await keep(page, PAGE);
  const before = await styleOf(page);
  await page.getByRole('button', { name: 'Display', exact: true }).click();
  await page.getByRole('button', { name: 'More: size' }).click();
  await page.getByRole('button', { name: 'More: size' }).click();
  await page.getByRole('button', { name: 'Atkinson' }).click();
  await page.getByRole('button', { name: 'night', exact: true }).click();
  await page.keyboard.press('Escape');
  const edge = (await page.getByRole('separator', { name: 'Width of the column' }).boundingBox())!;
  await stroke(page, { x: edge.x + 6, y: edge.y + 200 }, { x: edge.x + 6 - 100, y: edge.y + 200 });
  await page.getByRole('separator', { name: 'Width of the column' }).press('ArrowLeft');
  await expect.poll(async () => Math.round(before.width - (await styleOf(page)).width)).toBe(120);
  await page.reload();
  await opened(page);
  await expect
    .poll(async () => {
      const now = await styleOf(page);
      return [now.size, now.face, Math.round(before.width - now.width), now.paper === before.paper];
    })
    .toEqual(['20px', '"Atkinson Hyperlegible Next Variable"', 120, false]);
  expect(await page.evaluate(() => document.documentElement.dataset.theme)).toBe('day');
  await close();
});

test('only the page is shown, and the rest comes back; what has been read is set right by hand', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Calm');
  await keep(page, PAGE);
  await page.getByRole('button', { name: 'Focus', exact: true }).click();
  await expect(page.getByRole('navigation', { name: 'Main' })).toBeHidden();
  await expect(page.getByRole('complementary', { name: 'Margin' })).toBeHidden();
  await page.keyboard.press('Escape');
  await expectSeen(page.getByRole('complementary', { name: 'Margin' }));
  const progress = page.getByRole('button', { name: /% read/ });
  await progress.click();
  await page.getByRole('menuitem', { name: 'I have read all of it' }).click();
  await expect(progress).toHaveText('100 % read · nothing left');
  await page.reload();
  await opened(page);
  await expect(progress).toHaveText('100 % read · nothing left');
  await progress.click();
  await page.getByRole('menuitem', { name: 'I have read nothing of it' }).click();
  await expect(progress).toHaveText(/^[0-9] % read/);
  await close();
});

/** Stands in for the speech of a browser that has a voice (Web Speech API): each sentence takes a moment. */
const VOICE = `(() => {
  let saying;
  const voice = { name: 'Saltmere', lang: 'en-GB', default: true, localService: true, voiceURI: 'saltmere' };
  window.said = [];
  window.SpeechSynthesisUtterance = class { constructor(text) { this.text = text; } };
  Object.defineProperty(window, 'speechSynthesis', { value: { getVoices: () => [voice], addEventListener() {}, removeEventListener() {}, speak(u) { window.said.push(u.text); saying = setTimeout(() => u.onend?.(), 300); }, cancel() { clearTimeout(saying); } } });
})()`;

test('the text is read aloud sentence by sentence, each shown as it is spoken', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Ear');
  await page.addInitScript(VOICE);
  await keep(page, PAGE);
  await page.getByRole('button', { name: 'Listen' }).click();
  await expect
    .poll(() => page.evaluate(() => (window as unknown as { said: string[] }).said.length))
    .toBeGreaterThan(2);
  await page.getByRole('button', { name: 'Pause' }).click();
  const said = await page.evaluate(() => (window as unknown as { said: string[] }).said);
  expect(new Set(said).size).toBe(said.length);
  await expect.poll(async () => (await painted(page))['avrelle-cue']?.length).toBe(1);
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect.poll(async () => (await painted(page))['avrelle-cue']).toBeUndefined();
  await close();
});

/** Tells of every sound that begins: how loud it is at most, 0 to 1. */
const EAR = `(() => {
  window.heard = [];
  const start = AudioBufferSourceNode.prototype.start;
  AudioBufferSourceNode.prototype.start = function (...given) {
    window.heard.push(this.buffer.getChannelData(0).reduce((a, b) => Math.max(a, b), 0));
    return start.apply(this, given);
  };
})()`;

test('where the browser has no voice, the one that comes with Avrelle reads aloud, sentence by sentence', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Deaf');
  await page.addInitScript(EAR);
  await keep(page, SHORT);
  await page.getByRole('button', { name: 'Listen' }).click();
  const heard = (): Promise<number[]> => page.evaluate(() => (window as unknown as { heard: number[] }).heard);
  const cue = async () => JSON.stringify((await painted(page))['avrelle-cue']);
  await expect.poll(async () => (await heard()).length, { timeout: 30_000 }).toBeGreaterThan(0);
  const first = await cue();
  expect(first).toContain('[');
  await expect.poll(async () => (await heard()).length, { timeout: 30_000 }).toBeGreaterThan(1);
  expect(await cue()).not.toBe(first);
  expect(Math.min(...(await heard()))).toBeGreaterThan(0.05);
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect.poll(async () => (await painted(page))['avrelle-cue']).toBeUndefined();
  await close();
});

test('a language that nobody has a voice for is named, and a voice that cannot be loaded comes the next time', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Mute');
  await page.addInitScript(EAR);
  await keep(page, PAGE);
  await page.route('**/*.wasm', (route) => route.abort());
  await page.getByRole('button', { name: 'Listen' }).click();
  await expectSeen(page.getByText('The voice could not be loaded.'));
  expect((await painted(page))['avrelle-cue']).toBeUndefined();
  await page.unroute('**/*.wasm');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: 'Listen' }).click();
  await expect
    .poll(() => page.evaluate(() => (window as unknown as { heard: number[] }).heard.length), { timeout: 30_000 })
    .toBeGreaterThan(0);
  const source = `/api${new URL(page.url()).pathname.replace('source', 'sources')}`;
  const { version } = await (await page.request.get(source)).json();
  expect((await page.request.patch(source, { data: { version, language: 'yi' } })).ok()).toBe(true);
  await page.reload();
  await page.getByRole('button', { name: 'Listen' }).click();
  await expectSeen(page.getByText('Neither this browser nor Avrelle has a voice for Yiddish'));
  await close();
});
