import { expect, test } from '@playwright/test';
import { VECTORS } from '../server/testing/xss-vectors';
import { drag, keep, newcomer, opened, painted, wordsIn, writtenIn, expectSeen } from './helpers';

test('what cannot be kept says why, where it was asked for, and leaves nothing behind', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Tess');
  const tried: readonly (readonly [string, RegExp])[] = [
    ['review.saltmere.test/marsh', /That is not a web address|An address begins with http/],
    ['http://nowhere.invalid/', /no site called “nowhere.invalid”/],
    ['http://trouble.saltmere.test/gone', /answered 404/],
    ['http://trouble.saltmere.test/broken', /answered 500/],
    ['http://trouble.saltmere.test/huge', /more than 20 MB/],
    ['http://trouble.saltmere.test/binary', /application\/octet-stream/],
    ['http://trouble.saltmere.test/loop', /redirected more than 8 times/],
    ['http://trouble.saltmere.test/to-private', /leads into a private network/],
    ['http://trouble.saltmere.test/empty', /holds no text/],
    ['http://127.0.0.1:4820/', /leads into a private network/],
  ];
  for (const [address, words] of tried) {
    await page.getByLabel('Address of a page').fill(address);
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expectSeen(
      page.getByRole('region', { name: 'Keep a source' }).getByRole('alert').filter({ hasText: words }).first(),
      15_000,
    );
  }
  await page.getByLabel('File to keep').setInputFiles({
    name: 'marked.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from([0xef, 0xbb, 0xbf, 0x63, 0x61, 0x66, 0xe9, 0x0a]),
  });
  await expectSeen(page.getByRole('alert').filter({ hasText: '“marked.txt” is not valid UTF-8: byte 6' }));
  expect(((await (await page.request.get('/api/sources')).json()) as { sources: unknown[] }).sources).toEqual([]);
  await close();
});

test('an endless page is given up, and something else can be kept meanwhile', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Ed');
  await page.getByLabel('Address of a page').fill('http://trouble.saltmere.test/endless');
  await page.keyboard.press('Enter');
  await expectSeen(page.getByText('Fetching…'));
  await page.getByLabel('Address of a page').fill('http://harbour.saltmere.test/dredger');
  await page.keyboard.press('Enter');
  await expectSeen(page.getByText('Kept.'));
  await expect(page.getByRole('alert')).toContainText('was not complete after 20 seconds', { timeout: 30_000 });
  await close();
});

test('files of Markdown, text and HTML are kept; the same page again is the same source', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Fil');
  await page.getByLabel('File to keep').setInputFiles(['demo/files/sea-lavender.md', 'demo/files/last-keeper.txt']);
  await expect(page.getByText('Kept.')).toHaveCount(2);
  await expectSeen(page.getByRole('link', { name: 'Sea-Lavender and Other Accountants' }));
  await expectSeen(page.getByRole('link', { name: 'Walking the Sluice with the Last Keeper' }));
  await keep(page, 'http://harbour.saltmere.test/dredger');
  const first = new URL(page.url()).pathname;
  await keep(page, 'http://harbour.saltmere.test/dredger?utm_source=letter#end');
  expect(new URL(page.url()).pathname).toBe(first);
  await close();
});

test('published attacks in a kept page run nothing, load nothing and leave nowhere', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Zed');
  const foreign: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith('http://127.0.0.1:4820/') && !/^(data|blob|about):/.test(request.url()))
      foreign.push(request.url());
  });
  const dialogs: string[] = [];
  page.on('dialog', (dialog) => {
    dialogs.push(dialog.message());
    void dialog.dismiss();
  });
  await page.getByLabel('File to keep').setInputFiles({
    name: 'attack.html',
    mimeType: 'text/html',
    buffer: Buffer.from(
      `<h1>Attack</h1><p>Calm words at the start.</p>${VECTORS.map((v) => `<div>${v}</div>`).join('\n')}<p>Calm words at the end.</p>`,
    ),
  });
  await page.getByRole('link', { name: 'Open it' }).click();
  const frame = await opened(page);
  await expectSeen(frame.getByText('Calm words at the start.'));
  await page.getByRole('button', { name: 'Whole page' }).click();
  await expectSeen(frame.getByText('Calm words at the end.'));
  expect(
    await page.evaluate(() => [
      (window as unknown as { avrelleHit?: number }).avrelleHit,
      (document.querySelector('iframe')!.contentWindow as unknown as { avrelleHit?: number }).avrelleHit,
    ]),
  ).toEqual([undefined, undefined]);
  const version = await page.locator('iframe').getAttribute('src');
  const answer = await page.request.get(version!);
  expect(answer.headers()['content-security-policy']).toContain("script-src 'none'");
  expect(answer.headers()['content-security-policy']).toContain('sandbox allow-same-origin');
  await page.goto(version!);
  expect(await page.evaluate(() => (window as unknown as { avrelleHit?: number }).avrelleHit)).toBeUndefined();
  expect([foreign, dialogs]).toEqual([[], []]);
  await close();
});

test('without a connection a mark is shown, waits, and is written once the server answers', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Off');
  await keep(page, 'http://harbour.saltmere.test/dredger');
  await page.context().setOffline(true);
  await drag(page, 'in boots, and come along');
  await page.keyboard.press('3');
  await expectSeen(page.getByText('No connection just now.').first());
  expect(await painted(page)).toEqual({ 'avrelle-woad-wavy': ['in boots, and come along'] });
  await page.context().setOffline(false);
  await expect
    .poll(
      async () =>
        (
          (await (
            await page.request.get(`/api${new URL(page.url()).pathname.replace('source', 'sources')}/annotations`)
          ).json()) as unknown[]
        ).length,
    )
    .toBe(1);
  await close();
});

test('a page whose code does not come says so, leaves the rest standing, and opens once it comes', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Gap');
  await page.route(/assets\/GatherPage/, (route) => route.abort());
  await page.evaluate(() => {
    history.pushState(null, '', '/gather');
    dispatchEvent(new PopStateEvent('popstate'));
  });
  await expect(page.getByRole('alert')).toContainText('Look whether there is a connection');
  await page.getByRole('link', { name: 'Library' }).click();
  await expectSeen(page.getByLabel('Address of a page'));
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.unroute(/assets\/GatherPage/);
  await page.goto('/gather');
  await expectSeen(page.getByRole('heading', { name: 'Gather' }));
  await close();
});

test('two windows of one person: a stale change is refused in words and the newer text shown', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Duo');
  await keep(page, 'http://harbour.saltmere.test/dredger');
  await drag(page, 'I would not build a wall on it');
  await page.keyboard.type('First text');
  await page.keyboard.press('Control+Enter');
  const card = page.getByRole('article', { name: /Note, Duo/ });
  await expect(card).toContainText('First text');
  const id = (await card.getAttribute('data-annotation'))!;
  await expect.poll(async () => (await page.request.get(`/api/annotations/${id}`)).status()).toBe(200);
  await page.route('**/api/annotations/changes', async (route) => {
    await page.request.patch(`/api/annotations/${id}`, { data: { version: 1, note: 'Written elsewhere' } });
    await route.continue();
  });
  await card.getByRole('button', { name: 'Edit' }).click();
  await writtenIn(card).fill('Second text');
  await card.getByRole('button', { name: 'Save', exact: true }).click();
  await expectSeen(page.getByText('You changed version 1, but version 2 is there by now').first());
  await expect(card.getByRole('note', { name: 'The note as it is now' })).toContainText('Written elsewhere');
  await expect.poll(() => wordsIn(writtenIn(card))).toBe('Second text');
  await close();
});

test('wrong passwords are told beside the field, and after many a wait is asked for', async ({ browser }) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto('/library');
  await page.getByLabel('E-mail address').fill('nobody@college.saltmere.test');
  await page.getByLabel('Password').fill('wrong wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not belong together');
  await context.close();
});
