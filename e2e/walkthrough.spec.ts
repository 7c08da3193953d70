import { expect, test, type Page } from '@playwright/test';
import { beyond, violations } from './accessible';
import { drag, expectSeen, newcomer, opened, shownWords, visit } from './helpers';

const NAME = 'From numbers to a decision';
const order = (page: Page) => page.getByRole('list', { name: 'Steps' }).getByRole('listitem');

test('steps are put in order by dragging and by keys, taken out, put back, and are there in another window', async ({
  browser,
}) => {
  const { page, close } = await visit(browser, 'aldous', '/classes');
  await test.step('a new walkthrough of notes with a star', async () => {
    await page.getByRole('link', { name: 'Field Course B' }).first().click();
    await page.getByRole('link', { name: 'Walkthroughs' }).click();
    await page.getByRole('button', { name: 'New walkthrough' }).click();
    await page.getByLabel('Its name').fill('Thumbs and walls');
    await page.getByRole('button', { name: 'Make it' }).click();
    const starred = page.getByRole('region', { name: 'Notes with a star' });
    for (const words of ['Main claim.', 'Does it? A thumb', 'What would you measure next'])
      await starred.getByRole('button', { name: `Add: ${words}` }).click();
    await expect(order(page)).toHaveCount(3);
    await page.getByLabel('To say at step 2').fill('Ask **who** agrees.');
    expect(await violations(page, 'all')).toEqual([]);
  });

  await test.step('the last is dragged to the front; by keys it goes down one', async () => {
    const grip = page.getByRole('button', { name: 'Move step 3' });
    const [from, to] = [(await grip.boundingBox())!, (await order(page).first().boundingBox())!];
    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
    await page.mouse.down();
    await page.mouse.move(to.x + 10, to.y + 40, { steps: 8 });
    await page.mouse.move(to.x + 10, to.y + 20, { steps: 4 });
    await page.mouse.up();
    await expect(order(page).first()).toContainText('What would you measure next');
    await page.getByRole('button', { name: 'Move step 1' }).focus();
    await page.keyboard.press('Space');
    await expect(page.getByText('Step 1 would stand at place 1 of 3.')).toBeAttached();
    await page.keyboard.press('ArrowDown');
    await expect(page.getByText('Step 1 would stand at place 2 of 3.')).toBeAttached();
    await page.keyboard.press('Space');
    await expect(order(page).nth(1)).toContainText('What would you measure next');
    await expect(order(page).nth(0)).toContainText('Main claim.');
  });

  await test.step('what is taken out comes back with its words; all is there after a reload', async () => {
    await page.getByRole('button', { name: 'Take out step 3' }).click();
    await expect(order(page)).toHaveCount(2);
    // Undo leaves what was written since.
    await page.getByLabel('To say at step 1').fill('Begin here.');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByLabel('To say at step 1')).toHaveValue('Begin here.');
    await expect(page.getByLabel('To say at step 3')).toHaveValue('Ask **who** agrees.');
    await expectSeen(page.getByText('Saved', { exact: true }));
    await page.reload();
    await expect(page.getByLabel('To say at step 3')).toHaveValue('Ask **who** agrees.');
    await expect(order(page).nth(1)).toContainText('What would you measure next');
  });

  await test.step('copied to the other course, it says what that does not see', async () => {
    await page.getByRole('button', { name: 'Copy to another class…' }).click();
    await page.getByLabel('To which class?').selectOption('Field Course A');
    await page.getByRole('dialog').getByRole('button', { name: 'Copy' }).click();
    await expectSeen(page.getByText('1 note of yours is not for Field Course A yet.'));
    await page.getByRole('button', { name: 'Show it to the class' }).click();
    await expect(page.getByText('is not for Field Course A yet.')).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expectSeen(page.getByText('1 note of yours is not for Field Course A yet.'));
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Download to print (HTML)' }).click(),
    ]);
    expect(file.suggestedFilename()).toBe('thumbs-and-walls.html');
  });
  await close();
});

test('walked through by keys alone: page, PDF and recording, also where the focus is on the page', async ({
  browser,
}) => {
  const { page, close } = await visit(browser, 'aldous', '/classes');
  await page.getByRole('link', { name: 'Field Course B' }).first().click();
  await page.getByRole('link', { name: 'Walkthroughs' }).click();
  await page.getByRole('listitem').filter({ hasText: NAME }).getByRole('link', { name: 'Walk through it' }).click();
  const text = await opened(page);
  const shown = () => shownWords(page);
  await expect.poll(shown).toBe('A salt marsh keeps its height above the tide only by catching mud');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect.poll(shown).toBe('it decides whether there will be a marsh at all');
  await expectSeen(page.getByText('Ask who agrees before showing Luz’s answer.', { exact: false }));
  await page.getByRole('button', { name: 'Show answers (1)' }).click();
  await expectSeen(page.getByText('Each plant has its own height.', { exact: false }));
  const written = async (): Promise<number> =>
    ((await (await page.request.get('/api/annotations?q=by%3Aaldous')).json()) as { total: number }).total;
  const before = await written();
  // On the page itself keys of the reading view mean nothing, and those of the walkthrough go on.
  await drag(page, 'The difference is the width');
  await text.locator('body').press('1');
  await text.locator('body').press('ArrowRight');
  await expect.poll(shown).toBe('the surface gains almost nothing');
  await page.keyboard.press('ArrowRight');
  await expect.poll(shown).toBe('The marsh is not drowning everywhere.');
  await page.keyboard.press('ArrowRight');
  await expectSeen(page.getByRole('button', { name: 'Play', exact: true }).first());
  await page.keyboard.press('End');
  await expectSeen(page.getByText('step 7 of 7'));
  expect(await written()).toBe(before);
  await expect.poll(shown).toContain('how much longer, depends less on the mud');
  expect(await violations(page, 'all')).toEqual([]);
  await page.setViewportSize({ width: 320, height: 640 });
  expect(await beyond(page)).toBe(0);
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('To say at step 1')).toBeVisible();
  await close();
});

test('what was written without a connection is kept, and saved when it is back', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Gill');
  await page.goto('/classes');
  await page.getByLabel('Name').fill('Mud Lab');
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByRole('link', { name: 'Walkthroughs' }).click();
  await page.getByRole('button', { name: 'New walkthrough' }).click();
  await page.getByLabel('Its name').fill('First');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expectSeen(page.getByText('It has no steps yet', { exact: false }));
  const name = page.getByRole('textbox', { name: 'Name' });
  await page.context().setOffline(true);
  await name.fill('First and last');
  await expectSeen(page.getByText('No connection just now; it is kept on this computer', { exact: false }));
  await page.context().setOffline(false);
  await expectSeen(page.getByText('Saved', { exact: true }));
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('First and last');
  await close();
});
