import { expect, test } from '@playwright/test';
import { newcomer, opened, painted, selectedText, wordsIn, writtenIn, expectSeen } from './helpers';

test('the main job is done by keyboard alone', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Kay');
  const tabTo = async (name: RegExp): Promise<void> => {
    for (let n = 0; n < 60; n++) {
      await page.keyboard.press('Tab');
      const here = await page.evaluate(() => {
        const el = document.activeElement as HTMLElement | null;
        return `${el?.getAttribute('aria-label') ?? ''} ${el?.textContent ?? ''} ${el?.getAttribute('title') ?? ''}`;
      });
      if (name.test(here)) return;
    }
    throw new Error(`Tab never reached ${name}`);
  };
  await expectSeen(page.getByRole('heading', { name: 'Library', exact: true }));
  await tabTo(/Address of a page/);
  await page.keyboard.type('http://review.saltmere.test/marsh-that-walks-inland');
  await page.keyboard.press('Enter');
  await expectSeen(page.getByRole('link', { name: 'Open it' }));
  await tabTo(/^\s*Open it/);
  await page.keyboard.press('Enter');
  await opened(page);

  await test.step('select by sentence, mark, write, in the page and out of it', async () => {
    await page.keyboard.press(']');
    await expect.poll(() => selectedText(page)).toBe('The Marsh That Walks Inland');
    await page.keyboard.press(']');
    await page.keyboard.press(']');
    await expect.poll(() => selectedText(page)).toMatch(/^Stand on the sea wall/);
    await page.keyboard.press('2');
    await expect.poll(async () => Object.keys(await painted(page))).toEqual(['avrelle-verdigris-dashed']);
    await page.keyboard.press(']');
    await page.keyboard.press(']');
    await page.keyboard.press('[');
    await page.keyboard.type('Written without a mouse');
    await expect.poll(() => wordsIn(writtenIn(page))).toBe('Written without a mouse');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('article', { name: /Note, Kay/ })).toContainText('Written without a mouse');
  });

  await test.step('the frame has the focus now; its keys work all the same', async () => {
    await page.keyboard.press('.');
    await page.keyboard.press('.');
    await expect(page.getByRole('article', { name: /Kay/ }).getByRole('button', { expanded: true })).toHaveCount(2);
    await page.keyboard.press('Delete');
    await expect.poll(async () => (await painted(page))['avrelle-verdigris-dashed']).toBeUndefined();
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await painted(page))['avrelle-verdigris-dashed']).toHaveLength(1);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('article').getByRole('button', { expanded: true })).toHaveCount(0);
  });

  await test.step('so do those of the application', async () => {
    const frame = page.locator('iframe[title^="Text of"]');
    await frame.focus();
    await page.keyboard.press('/');
    await expect(page.getByLabel('Find a passage, note or tag')).toBeFocused();
    await frame.focus();
  });

  await test.step('every command is found by its name and carried out, wherever one is', async () => {
    const list = page.getByRole('dialog', { name: 'Commands and keys' });
    await page.keyboard.press('?');
    await expectSeen(list.getByRole('option', { name: /^Open the next mark/ }));
    await page.keyboard.type('only the page');
    await expect(list.getByRole('option')).toHaveCount(1);
    await page.keyboard.press('Enter');
    await expect(list).toHaveCount(0);
    await expectSeen(page.getByRole('button', { name: /^Show the rest/ }));
    await page.keyboard.press('Escape');
    await page.keyboard.press('?');
    await expectSeen(list);
    await page.keyboard.type('go to the desk');
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/\/desk$/);
    await page.keyboard.press('k');
    await expect(page.getByLabel('Address of a page')).toBeFocused();
    await page.keyboard.press('Tab');
    await page.keyboard.press('?');
    await expect(list.getByRole('option', { name: /^Open the next mark/ })).toHaveCount(0);
    await page.keyboard.press('Escape');
    await expect(list).toHaveCount(0);
    await page.goBack();
    await page.goBack();
    await opened(page);
  });

  await test.step('find and come back', async () => {
    await page.keyboard.press('/');
    await page.keyboard.type('mouse');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'Marks and notes' })).toContainText('Written without a mouse');
  });
  await close();
});
