import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import { Builder, Capabilities, Key, Origin, type WebDriver } from 'selenium-webdriver';
import { asPicture, until, type Engine, type Point } from './engine';

const DRIVER = 'WebKitWebDriver';
const BROWSER = '/usr/lib/x86_64-linux-gnu/webkit2gtk-4.1/MiniBrowser';

export const hasWebKit = (): boolean =>
  fs.existsSync(BROWSER) && spawnSync('which', [DRIVER]).status === 0 && spawnSync('which', ['Xvfb']).status === 0;

/** Debian's WebKit by W3C WebDriver, in a screen of its own that nobody sees. */
export async function startWebKit(width: number, height: number): Promise<Engine> {
  const screen = await startScreen(width + 100, height + 200);
  const port = 20_000 + Math.floor(Math.random() * 20_000);
  const driver = spawn(DRIVER, [`--port=${port}`], {
    env: { ...process.env, DISPLAY: screen.display, NO_AT_BRIDGE: '1' },
    stdio: 'ignore',
  });
  const end = (): void => {
    driver.kill();
    screen.process.kill();
  };
  try {
    const address = `http://127.0.0.1:${port}`;
    await until(() => fetch(`${address}/status`).then(String, () => ''), Boolean, 'the driver does not answer');
    const browser = await new Builder().usingServer(address).withCapabilities(capabilities()).build();
    await resize(browser, width, height);
    return { ...driven(browser), close: () => browser.quit().finally(end) };
  } catch (error) {
    end();
    throw error;
  }
}

const capabilities = (): Capabilities =>
  new Capabilities({
    browserName: 'MiniBrowser',
    'webkitgtk:browserOptions': { binary: BROWSER, args: ['--automation'] },
  });

/** The first display that nobody has. Xvfb writes its number where it is told to. */
async function startScreen(width: number, height: number): Promise<{ process: ChildProcess; display: string }> {
  const process = spawn('Xvfb', ['-displayfd', '3', '-screen', '0', `${width}x${height}x24`, '-nolisten', 'tcp'], {
    stdio: ['ignore', 'ignore', 'ignore', 'pipe'],
  });
  const number = await new Promise<string>((done, fail) => {
    process.on('error', fail).on('exit', () => fail(new Error('Xvfb ended')));
    process.stdio[3]!.once('data', (data: Buffer) => done(data.toString().trim()));
  });
  return { process, display: `:${number}` };
}

/** The window is as much larger than the page as its frame is. */
async function resize(browser: WebDriver, width: number, height: number): Promise<void> {
  const window = browser.manage().window();
  await window.setRect({ width, height, x: 0, y: 0 });
  const inner = await browser.executeScript<number[]>('return [innerWidth, innerHeight]');
  await window.setRect({ width: 2 * width - inner[0]!, height: 2 * height - inner[1]!, x: 0, y: 0 });
}

function driven(browser: WebDriver): Omit<Engine, 'close'> {
  const at = ({ x, y }: Point) => ({ x: Math.round(x), y: Math.round(y), origin: Origin.VIEWPORT, duration: 20 });
  return {
    name: 'WebKit',
    open: (url) => browser.get(url),
    value: (expression) => browser.executeScript(`return (${expression})`),
    drag: async ([from, ...over]) => {
      const actions = browser.actions().move(at(from!)).press();
      for (const point of over) actions.move(at(point));
      await actions.release().perform();
    },
    press: async (key, held) => {
      const named = Key[key.toUpperCase() as 'ENTER'] ?? key;
      const actions = browser.actions();
      if (held) actions.keyDown(Key.CONTROL);
      actions.keyDown(named as string).keyUp(named as string);
      if (held) actions.keyUp(Key.CONTROL);
      await actions.perform();
    },
    type: (words) => browser.actions().sendKeys(words).perform(),
    picture: async () => asPicture(await browser.takeScreenshot()),
  };
}
