// `npm run screenshots`: one current picture of each main view, from a fresh demo, into docs/screenshots/.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import { chromium } from '@playwright/test';
import { build } from './prepare.mjs';

build();
const PORT = 4840;
const BASE = `http://127.0.0.1:${PORT}`;
const server = spawn('node', ['server/dist/demo.js', '--fresh'], {
  env: {
    ...process.env,
    AVRELLE_PORT: PORT,
    AVRELLE_DATA: 'var/screenshots.db',
    AVRELLE_DEMO_WEB_PORT: PORT + 1,
    AVRELLE_PROXY: 'yes',
  },
  stdio: ['ignore', 'pipe', 'inherit'],
});
process.on('exit', () => server.kill('SIGTERM'));
await new Promise((ready) => server.stdout.on('data', (out) => String(out).includes('is open at') && ready()));
fs.mkdirSync('docs/screenshots', { recursive: true });
const args = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args });

/** Each sign-in from an address of its own: many from one would have to wait. */
let visits = 0;

/** A phone is pointed at with fingers: its controls are larger. */
const PHONE = { hasTouch: true, isMobile: true };

async function shoot(name, who, path, { width = 1280, height = 800, theme = 'day', act } = {}) {
  const context = await browser.newContext({ viewport: { width, height }, ...(width < 600 ? PHONE : {}) });
  const page = await context.newPage();
  await page.addInitScript((t) => localStorage.setItem('avrelle.theme', t), theme);
  if (who)
    await page.request.post(`${BASE}/api/session`, {
      headers: { 'x-forwarded-for': `10.1.1.${(visits += 1)}` },
      data: { email: `${who}@college.saltmere.test`, password: 'tide at seven' },
    });
  await page.goto(BASE + (typeof path === 'string' ? path : await path(page)));
  await page.locator('main').first().waitFor();
  await page.waitForLoadState('networkidle').catch(() => undefined);
  await page.waitForTimeout(900);
  await act?.(page);
  await page.waitForTimeout(500);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  await context.close();
}

const source = (words) => async (page) => {
  const { sources } = await (await page.request.get(`${BASE}/api/sources`)).json();
  return `/source/${sources.find((s) => s.title.includes(words)).id}`;
};
const aClass = (words) => async (page) =>
  `/classes/${(await (await page.request.get(`${BASE}/api/classes`)).json()).find((c) => c.name.includes(words)).id}`;
const top = (page) => page.evaluate(() => document.querySelector('iframe').closest('.overflow-y-auto').scrollTo(0, 0));
const openNote = async (page) => {
  await top(page);
  await page.waitForTimeout(300);
  await page
    .getByRole('article', { name: /Evidence, Tomas/ })
    .getByRole('button')
    .first()
    .click();
};

await shoot('reading', 'ines', source('Walks Inland'), { act: openNote });
await shoot('reading-night', 'ines', source('Walks Inland'), { theme: 'night', act: openNote });
await shoot('reading-phone', 'ines', source('Walks Inland'), { width: 390, height: 844 });
const sluice = source('Sluice Nine');
await shoot('changes', 'ines', async (page) => `${await sluice(page)}/changes`);
await shoot('review', 'ines', '/review', { act: (page) => page.keyboard.press('Space') });
await shoot('library', 'ines', '/library');
await shoot('library-phone', 'ines', '/library', { width: 390, height: 844 });
await shoot('find', 'ines', '/find?q=mud');
await shoot('desk', 'ines', '/desk');
await shoot('class', 'aldous', aClass('Course B'));
await shoot('discussion', 'tomas', async (page) => `${await aClass('Course B')(page)}/discussion`, {
  act: async (page) => {
    await page
      .getByRole('region', { name: 'Threads' })
      .getByRole('link', { name: /2 answers/ })
      .first()
      .click();
    await page.waitForTimeout(1_800);
  },
});
await shoot('class-reading', 'aldous', async (page) => {
  const { sources } = await (await page.request.get(`${BASE}/api/sources`)).json();
  return `${await aClass('Course B')(page)}/readings/${sources.find((s) => s.title.includes('Walks Inland')).id}`;
});
await shoot('pdf', 'ines', source('State of the Saltmere'));
await shoot('recording', 'aldous', source('Walk along'), {
  act: async (page) => {
    await page.getByRole('slider', { name: 'Moment' }).focus();
    for (const key of ['PageUp', 'PageUp', 'ArrowUp', 'ArrowUp', 'ArrowUp']) await page.keyboard.press(key);
  },
});
await shoot('notes', 'ines', async (page) => {
  const notes = await (await page.request.get(`${BASE}/api/notes`)).json();
  return `/notes/${notes.find((note) => note.title.includes('essay')).id}`;
});
await shoot('drawing', 'ines', source('Walks Inland'), {
  act: async (page) => {
    await top(page);
    await page.keyboard.press('d');
    await page.keyboard.press('1');
    await page.getByRole('button', { name: /^drawn with the pen/ }).focus();
  },
});
await shoot('gather', 'ines', '/gather');
await shoot('questions', 'aldous', async (page) => `${await aClass('Course B')(page)}/questions`, {
  act: (page) => page.getByRole('link', { name: 'Why did the marsh sink' }).click(),
});
// Shown to a class: two who follow in windows of their own, one of them looks around.
const lookers = [];
for (const [who, hand] of [
  ['ines', false],
  ['tomas', false],
  ['luz', true],
]) {
  const context = await browser.newContext();
  await context.request.post(`${BASE}/api/session`, {
    headers: { origin: BASE, 'x-forwarded-for': `10.1.1.${(visits += 1)}` },
    data: { email: `${who}@college.saltmere.test`, password: 'tide at seven' },
  });
  lookers.push({ page: await context.newPage(), hand });
}
await shoot('live', 'aldous', async (page) => `${await aClass('Course B')(page)}/live`, {
  act: async (page) => {
    await page.getByRole('button', { name: 'Show From numbers to a decision' }).click();
    await page.getByText('step 1 of 7').waitFor();
    for (const { page: other, hand } of lookers) {
      await other.goto(page.url());
      if (hand) await other.getByRole('button', { name: 'Raise your hand' }).click();
      else await other.getByText('You follow').waitFor();
    }
    await lookers[1].page.getByRole('button', { name: 'Look around' }).click();
    for (const step of [2, 3]) await page.getByRole('button', { name: `Step ${step} ›` }).click();
    await page.waitForTimeout(1_200);
    await page.getByRole('button', { name: 'Pen', exact: true }).click();
    await page.mouse.move(700, 330);
    await page.mouse.down();
    for (let n = 0; n <= 36; n++) await page.mouse.move(600 + 100 * Math.cos(n / 5.6), 330 + 24 * Math.sin(n / 5.6));
    await page.mouse.up();
    await page.getByRole('button', { name: 'Pointer' }).click();
    await page.mouse.move(690, 420, { steps: 3 });
  },
});

await browser.close();
server.kill('SIGTERM');
