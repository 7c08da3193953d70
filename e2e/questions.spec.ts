import { expect, test } from '@playwright/test';
import { beyond, violations } from './accessible';
import { drag, expectSeen, keep, makeClass, newcomers, opened } from './helpers';

const PAGE = 'http://packet.saltmere.test/who-pays';
const TITLE = 'Who pays for high water?';
const ONE = 'One had framed it.';

test('a teacher asks the class at a passage; it answers, and sees how all answered at its time', async ({
  browser,
}) => {
  const [teacher, a, b] = await newcomers(browser, 'Gill', 'Alma', 'Bror');
  const t = teacher.page;
  await test.step('a note becomes a question', async () => {
    await makeClass(t, 'Mud Lab', [a.page, b.page]);
    await keep(t, PAGE);
    await t.getByRole('button', { name: /^Writing for/ }).click();
    await t.getByRole('menu').getByText('Mud Lab', { exact: true }).click();
    await t.keyboard.press('Escape');
    await expectSeen(t.getByRole('button', { name: 'Writing for: Mud Lab' }));
    await drag(t, ONE);
    await t.keyboard.press('n');
    await t.getByRole('textbox', { name: 'Note' }).fill('Who framed it?');
    await t.getByRole('button', { name: 'Save', exact: true }).click();
    await t.getByRole('button', { name: 'Ask the class…' }).click();
    const dialog = t.getByRole('dialog', { name: 'Ask the class' });
    await dialog.getByLabel('by one choice').check();
    await dialog.getByLabel('Choice 1', { exact: true }).fill('A farmer');
    await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
    await expectSeen(dialog.getByText('Give two choices at least.'));
    await dialog.getByLabel('Choice 2', { exact: true }).fill('A baker');
    await dialog.getByLabel('Choice 2 is right').check();
    await dialog.getByLabel('Model answer').fill('The **baker**, as it says.');
    await dialog.getByLabel('when you show them').check();
    expect(await violations(t, 'all')).toEqual([]);
    await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
    await expectSeen(t.getByText('0 of 2 answered'));
  });

  await test.step('it is on the Desk, is answered by keys alone, changed, and counted while it is open', async () => {
    await a.page.goto('/desk');
    await a.page.getByRole('region', { name: 'Questions' }).getByRole('link', { name: TITLE }).click();
    await opened(a.page);
    await expectSeen(a.page.getByLabel('A farmer'));
    await a.page.getByLabel('A farmer').focus();
    await a.page.keyboard.press('Space');
    await a.page.keyboard.press('Control+Enter');
    await expectSeen(t.getByText('1 of 2 answered'));
    await a.page.getByRole('button', { name: 'Change my answer' }).click();
    await a.page.getByLabel('A baker').check();
    await a.page.getByRole('button', { name: 'Answer', exact: true }).click();
    await expect(a.page.getByRole('button', { name: 'Change my answer' })).toBeVisible();
    await expect(a.page.getByText('Model answer')).toHaveCount(0);
    await b.page.goto('/classes');
    await b.page.getByRole('link', { name: 'Mud Lab' }).click();
    await b.page.getByRole('link', { name: 'Questions' }).click();
    await b.page.setViewportSize({ width: 320, height: 640 });
    await b.page.getByRole('link', { name: 'Who framed it?' }).click();
    expect([await violations(b.page, 'all'), await beyond(b.page)]).toEqual([[], 0]);
    await b.page.getByLabel('A farmer').check();
    await b.page.getByRole('button', { name: 'Answer', exact: true }).click();
    await expectSeen(t.getByText('2 of 2 answered'));
  });

  await test.step('shown, every open page shows it, and nothing can be changed any more', async () => {
    await t.goto('/classes');
    await t.getByRole('link', { name: 'Mud Lab' }).click();
    await t.getByRole('link', { name: 'Questions' }).click();
    await t.getByRole('link', { name: 'Who framed it?' }).click();
    const who = t.getByRole('table', { name: 'Who answered' });
    await expectSeen(who.getByRole('row', { name: /Alma Test.*A baker.*right/ }));
    await expectSeen(who.getByRole('row', { name: /Bror Test.*A farmer.*not right/ }));
    await t.getByRole('button', { name: 'Show the answers' }).click();
    await expectSeen(a.page.getByText('Your answer: right'));
    await expectSeen(b.page.getByText('Your answer: not right'));
    await expectSeen(b.page.getByText('The baker, as it says.'));
    await expect(a.page.getByRole('button', { name: 'Change my answer' })).toHaveCount(0);
    const [file] = await Promise.all([
      t.waitForEvent('download'),
      t.getByRole('link', { name: 'Download all answers (CSV)' }).click(),
    ]);
    expect(file.suggestedFilename()).toBe('answers.csv');
  });
  for (const one of [teacher, a, b]) await one.close();
});
