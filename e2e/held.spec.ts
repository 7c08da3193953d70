import { expect, test, type Page } from '@playwright/test';
import { violations } from './accessible';
import { clickWords, drag, expectSeen, keep, newcomer, opened, painted } from './helpers';

const PAGE = 'http://packet.saltmere.test/who-pays';
const TITLE = 'Who pays for high water?';
const ONE = 'One had framed it.';
const TWO = 'By Friday three had answered.';

/** Chooses for whom one writes from now on. */
async function writeFor(page: Page, ...chosen: readonly string[]): Promise<void> {
  await page.getByRole('button', { name: /^Writing for/ }).click();
  for (const name of chosen) await page.getByRole('menu').getByText(name, { exact: true }).click();
  await page.keyboard.press('Escape');
}
const mark = async (page: Page, words: string): Promise<void> => {
  await drag(page, words);
  await page.keyboard.press('1');
};
const claims = async (page: Page): Promise<readonly string[]> =>
  ((await painted(page))['avrelle-weld-solid'] ?? []).toSorted();

test('what a teacher holds is released while a student reads, and taken back only before it is read', async ({
  browser,
}) => {
  const [teacher, student] = [await newcomer(browser, 'Dil'), await newcomer(browser, 'Eda')];
  const [t, s] = [teacher.page, student.page];
  await test.step('a class reads a page; its teacher writes there, held', async () => {
    await keep(t, PAGE);
    await t.goto('/classes');
    await t.getByLabel('Name').fill('Tide Watch');
    await t.getByRole('button', { name: 'Make it' }).click();
    const code = (await t.getByTitle('Copy').textContent())!.trim();
    await t.getByRole('link', { name: 'Library' }).click();
    await t.getByRole('link', { name: TITLE }).first().click();
    await opened(t);
    await writeFor(t, 'Tide Watch', 'Held');
    await expectSeen(t.getByRole('button', { name: 'Writing for: Tide Watch, held' }));
    await mark(t, ONE);
    await mark(t, TWO);
    await expectSeen(t.getByText('2 notes held'));
    await s.goto('/classes');
    await s.getByLabel('Code from your teacher').fill(code);
    await s.getByRole('button', { name: 'Join' }).click();
  });

  await test.step('released and taken back before anybody reads: nothing of it is seen', async () => {
    await t.getByRole('button', { name: 'Release all 2' }).click();
    await expectSeen(t.getByText('2 notes released.', { exact: true }));
    await t.getByRole('button', { name: 'Undo' }).click();
    await expectSeen(t.getByText('Held again: nobody had read it.', { exact: true }));
    await s.getByRole('link', { name: TITLE }).click();
    await opened(s);
    await expectSeen(s.getByText('0 notes'));
    expect(await claims(s)).toEqual([]);
  });

  await test.step('one is released from the list of what is held: the student sees it at once', async () => {
    await t.getByRole('link', { name: 'Some, or at a time' }).click();
    await t.getByLabel(`Choose: ${ONE}`).check();
    const seen = s.waitForResponse('**/api/annotations/seen');
    await t.getByRole('button', { name: 'Release now' }).click();
    await expect.poll(() => claims(s)).toEqual([ONE]);
    await seen;
    await t.getByRole('button', { name: 'Undo' }).last().click();
    await expectSeen(t.getByText(/^One student of “Tide Watch” had it before their eyes/));
    expect(await claims(s)).toEqual([ONE]);
  });

  await test.step('the other waits for its time, which cannot be over', async () => {
    const asked = async (typed: string): Promise<void> => {
      await t.getByLabel('Students see it from').fill(typed);
      await t.getByRole('button', { name: 'Save' }).click();
    };
    await t.getByRole('button', { name: 'Release at a time…' }).click();
    expect(await violations(t, 'all', '[role=dialog]')).toEqual([]);
    await asked('2020-01-01T08:00');
    await expectSeen(t.getByText('That time is over.', { exact: false }));
    await asked('2099-01-01T08:00');
    await expectSeen(t.getByText('released 1 Jan 2099', { exact: false }));
    await t.getByRole('button', { name: 'Forget the time' }).click();
    await expectSeen(t.getByText('until released by hand'));
  });

  await test.step('the student is told, and writes to the teachers alone', async () => {
    await writeFor(s, 'Tide Watch');
    await s.getByRole('button', { name: /^Writing for/ }).click();
    await expect(s.getByRole('menuitemradio')).toHaveText([/^✓?Everybody there/, /^✓?Only the teachers/]);
    await s.keyboard.press('Escape');
    await writeFor(s, 'Only the teachers');
    await mark(s, 'Nothing, for a while.');
    await t.getByRole('link', { name: TITLE }).click();
    await opened(t);
    await expect.poll(() => claims(t)).toEqual([TWO, 'Nothing, for a while.', ONE].toSorted());
    await clickWords(t, 'Nothing, for a while.');
    await expectSeen(t.getByText('Teachers of Tide Watch'));
    await s.getByRole('link', { name: /^Desk/ }).click();
    await expect(s.getByRole('region', { name: 'New for you' })).toContainText('Dil T. released 1 note');
  });
  for (const { close } of [teacher, student]) await close();
});
