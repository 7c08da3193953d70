import { expect, test } from '@playwright/test';
import { drag, expectSeen, keep, newcomer, opened, painted, visit } from './helpers';
import type { SourcePage } from '@avrelle/core/wire';

const PAGE = 'http://harbour.saltmere.test/dredger';

test('the margin of a page without marks says how to mark, then what can be done with the mark, and then no more', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'First');
  await keep(page, PAGE);
  const steps = page.getByRole('region', { name: 'First steps' });
  await expectSeen(steps.getByText('Nothing is marked here yet'));
  await drag(page, 'in boots, and come along');
  await page.keyboard.press('1');
  await expectSeen(steps.getByText('Your first mark'));
  await drag(page, 'come along');
  await page.keyboard.press('2');
  await expect(steps).toHaveCount(0);
  await keep(page, 'http://packet.saltmere.test/who-pays');
  await opened(page);
  await expectSeen(page.getByText('0 notes'));
  await expect(steps).toHaveCount(0);
  await close();
});

test('who knows already says so once', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Knows');
  await keep(page, PAGE);
  const steps = page.getByRole('region', { name: 'First steps' });
  await steps.getByRole('button', { name: 'Don’t show this again' }).click();
  await expect(steps).toHaveCount(0);
  await page.reload();
  await opened(page);
  await expectSeen(page.getByText('0 notes'));
  await expect(steps).toHaveCount(0);
  await close();
});

test('on a phone, too, one finds in the text, goes to a part, sets the text and reads it alone', async ({
  browser,
}) => {
  const { page, close } = await visit(browser, 'ines');
  await page.setViewportSize({ width: 390, height: 844 });
  const { sources } = (await (await page.request.get('/api/sources?q=Walks')).json()) as SourcePage;
  await page.goto(`/source/${sources[0]!.id}`);
  await opened(page);
  const read = page.getByRole('button', { name: /^Read\b/ });
  const menu = page.getByRole('dialog', { name: 'Read' });
  await read.click();
  await menu.getByRole('button', { name: 'Find in text' }).click();
  await expect(menu).toHaveCount(0);
  await page.keyboard.type('lavender');
  await expectSeen(page.getByText(/^1 of \d/));
  await expect.poll(async () => (await painted(page))['avrelle-found']?.[0]).toMatch(/lavender/i);
  await page.keyboard.press('Escape');
  await read.click();
  await menu.getByRole('button', { name: 'Contents' }).click();
  await page.getByRole('menuitem', { name: /Accretion is not spread evenly/ }).click();
  await expect
    .poll(() => page.evaluate(() => document.querySelector('iframe')!.getBoundingClientRect().top))
    .toBeLessThan(0);
  await read.click();
  await menu.getByRole('button', { name: 'Display' }).click();
  await page.getByRole('button', { name: 'More: size' }).click();
  await page.getByRole('button', { name: 'Reset' }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await read.click();
  await menu.getByRole('button', { name: 'Focus' }).click();
  await expectSeen(page.getByRole('button', { name: /^Show the rest/ }));
  await expect(page.getByRole('navigation', { name: 'Main' })).toBeHidden();
  await close();
});

test('in a window of 320 pixels the text has at least half of the height', async ({ browser }) => {
  const { page, close } = await visit(browser, 'ines');
  await page.setViewportSize({ width: 320, height: 640 });
  const { sources } = (await (await page.request.get('/api/sources?q=Walks')).json()) as SourcePage;
  await page.goto(`/source/${sources[0]!.id}`);
  await opened(page);
  const share = await page.evaluate(() => {
    const { height } = document
      .querySelector('iframe')!
      .parentElement!.parentElement!.parentElement!.parentElement!.getBoundingClientRect();
    return height / innerHeight;
  });
  expect(share).toBeGreaterThan(0.5);
  await close();
});

test('an empty Desk says how to begin, by an address or with a sample, and what was kept is opened from there', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Empty');
  await page.goto('/desk');
  await expectSeen(page.getByRole('heading', { name: 'Begin with a page you want to read' }));
  await expectSeen(page.getByLabel('Address of a page'));
  await page.getByRole('button', { name: 'Keep a sample page' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'The Clock in the Net Loft' })).toBeAttached();
  await page.getByRole('link', { name: 'Open it' }).click();
  await opened(page);
  await drag(page, 'always right for boats');
  await page.keyboard.press('1');
  await expect.poll(async () => Object.values(await painted(page)).flat()).toContain('always right for boats');
  await page.goto('/desk');
  await expectSeen(page.getByRole('heading', { name: 'Go on reading' }));
  await expectSeen(page.getByRole('link', { name: 'The Clock in the Net Loft' }).first());
  await close();
});
