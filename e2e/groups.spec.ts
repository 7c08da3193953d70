import { expect, test, type Page } from '@playwright/test';
import { beyond, violations } from './accessible';
import { drag, expectSeen, keep, makeClass, newcomers, opened, painted } from './helpers';

const PAGE = 'http://packet.saltmere.test/who-pays';
const TITLE = 'Who pays for high water?';
const ONE = 'One had framed it.';
const claims = async (page: Page): Promise<readonly string[]> => (await painted(page))['avrelle-weld-solid'] ?? [];

test('a class is dealt into groups; what one writes for its own the others do not see, and its teacher does', async ({
  browser,
}) => {
  const [teacher, a, b] = await newcomers(browser, 'Gill', 'Alma', 'Bror');
  const t = teacher.page;
  await test.step('the teacher deals two students into two groups, and names one', async () => {
    await keep(t, PAGE);
    await makeClass(t, 'Mud Lab', [a.page, b.page]);
    await t.getByRole('link', { name: 'Make groups' }).click();
    await t.getByLabel('How many groups').fill('2');
    await t.getByRole('button', { name: 'Deal everybody anew' }).click();
    await expect(t.getByText('1 student', { exact: true })).toHaveCount(2);
    await t.getByLabel('Name of group 1').fill('Group 2');
    await t.getByRole('button', { name: 'Save the groups' }).click();
    await expectSeen(t.getByText('Two groups have the same name.'));
    await t.getByLabel('Name of group 1').fill('Mud');
    await t.getByLabel('Name of group 2').fill('Salt');
    await t.getByLabel('Group of Alma Test').selectOption('Mud');
    await t.getByLabel('Group of Bror Test').selectOption('Salt');
    await t.setViewportSize({ width: 320, height: 640 });
    expect([await violations(t, 'all'), await beyond(t)]).toEqual([[], 0]);
    await t.setViewportSize({ width: 1280, height: 800 });
    await t.getByRole('button', { name: 'Save the groups' }).click();
    await expectSeen(t.getByText('The groups are saved. Students see their own.', { exact: true }));
    await expectSeen(a.page.getByText('You are in Mud.'));
  });

  await test.step('one of them writes for her group', async () => {
    await t.getByRole('link', { name: 'Library' }).click();
    await t.getByRole('link', { name: TITLE }).first().click();
    await opened(t);
    await t.getByRole('button', { name: /^Writing for/ }).click();
    await t.getByRole('menu').getByText('Mud Lab', { exact: true }).click();
    await t.keyboard.press('Escape');
    for (const { page } of [a, b]) {
      await page.getByRole('link', { name: TITLE }).click();
      await opened(page);
    }
    await a.page.getByRole('button', { name: /^Writing for/ }).click();
    await a.page.getByRole('menu').getByText('Mud Lab', { exact: true }).click();
    await a.page.getByRole('menuitemradio', { name: 'Only my group, Mud' }).click();
    await a.page.keyboard.press('Escape');
    await expectSeen(a.page.getByRole('button', { name: 'Writing for: Mud of Mud Lab' }));
    await drag(a.page, ONE);
    await a.page.keyboard.press('1');
    await expect.poll(() => claims(t)).toEqual([ONE]);
    expect(await claims(b.page)).toEqual([]);
  });

  await test.step('moved to her group, the other sees it at once; moved back, no more', async () => {
    const other = await t.context().newPage();
    await other.goto('/classes');
    await other.getByRole('link', { name: 'Mud Lab' }).click();
    await other.getByRole('link', { name: '2 groups' }).click();
    const move = async (group: string): Promise<void> => {
      await other.getByLabel('Group of Bror Test').selectOption(group);
      await other.getByRole('button', { name: 'Save the groups' }).click();
    };
    await move('Mud');
    await expect.poll(() => claims(b.page)).toEqual([ONE]);
    await move('Salt');
    await expect.poll(() => claims(b.page)).toEqual([]);
  });
  for (const one of [teacher, a, b]) await one.close();
});
