import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { chromium, expect, test, type Browser } from '@playwright/test';
import pixelmatch from 'pixelmatch';
import { PNG } from 'pngjs';
import { CHROMIUM_ARGS, PORT } from './constants';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
/** Share of pixels that may differ: letters on the edge of a pixel. */
const TOLERANCE = 0.002;
const PAGES = [
  'review.saltmere.test/marsh-that-walks-inland',
  'packet.saltmere.test/who-pays',
  'creek.saltmere.test/five-drawings',
  'lagoon.saltmere.test/almyro-livadi',
  'pegs.saltmere.test/handbook',
  'packet.saltmere.test/letters/in-praise-of-soup',
  'harbour.saltmere.test/dredger',
  'studio.saltmere.test/kept-light',
] as const;
/** What a kept page shows differently on purpose: players and frames become a still and a link; waiting pictures are there. */
const CHANGED: Readonly<Record<string, number>> = { 'studio.saltmere.test/kept-light': 0.12 };

let browser: Browser;
let folder: string;
test.beforeAll(async () => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-kept-'));
  // Every host of the simulated web, as a reader's own browser would reach it.
  browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      ...CHROMIUM_ARGS,
      `--host-resolver-rules=MAP *.saltmere.test 127.0.0.1:${PORT + 1}, MAP *.invalid ~NOTFOUND`,
    ],
  });
});
test.afterAll(async () => {
  await browser.close();
  fs.rmSync(folder, { recursive: true });
});

async function shoot(address: string, offline: boolean): Promise<{ picture: PNG; asked: string[] }> {
  // Live pages are seen as they stand, without what their scripts would do to them; a kept page has none.
  const context = await browser.newContext({
    viewport: { width: 1000, height: 1400 },
    javaScriptEnabled: false,
    offline,
  });
  const page = await context.newPage();
  const asked: string[] = [];
  page.on('request', (request) => {
    if (!/^(data|file):/.test(request.url())) asked.push(request.url());
  });
  await page.goto(address);
  const picture = PNG.sync.read(await page.screenshot({ animations: 'disabled' }));
  await context.close();
  return { picture, asked };
}

for (const address of PAGES) {
  test(`${address}, kept and with the network cut, looks as it does live and asks for nothing`, async () => {
    const out = path.join(folder, address.replace(/\W/g, '-'));
    const { status, stderr } = spawnSync('node', ['server/dist/cli.js', 'keep', `http://${address}`, '--out', out], {
      cwd: ROOT,
      encoding: 'utf8',
      env: { ...process.env, AVRELLE_NAMES: `saltmere.test=127.0.0.1:${PORT + 1}` },
    });
    expect([status, stderr]).toEqual([0, '']);
    const live = await shoot(`http://${address}`, false);
    const kept = await shoot(pathToFileURL(path.join(out, 'snapshot.html')).href, true);
    expect(live.asked.length).toBeGreaterThan(0);
    expect(kept.asked).toEqual([]);
    const { width, height } = live.picture;
    const differing = pixelmatch(live.picture.data, kept.picture.data, undefined, width, height, { threshold: 0.15 });
    expect(differing / (width * height)).toBeLessThanOrEqual(CHANGED[address] ?? TOLERANCE);
    // Common practice: an ordinary article in one file stays under a megabyte.
    expect(fs.statSync(path.join(out, 'snapshot.html')).size).toBeLessThan(1_000_000);
  });
}
