import { expect, test, type Page } from '@playwright/test';
import type { ClassDetail, ClassRow, SourcePage } from '@avrelle/core/wire';
import { arrive, beyond, cutOff, ofApi, PHONE, SPACING, tooSmall, violations } from './accessible';
import { drag, expectSeen, keep, newcomer, opened, painted, visit } from './helpers';

const PAGE = 'http://packet.saltmere.test/who-pays';
const TITLE = 'Who pays for high water?';

/** A field for date and time, so many days from now. */
const inDays = (days: number): string => {
  const at = new Date(Date.now() + days * 86_400_000);
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T16:00`;
};

async function makeClass(page: Page, name: string): Promise<string> {
  await page.goto('/classes');
  await page.getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Make it' }).click();
  return (await page.getByTitle('Copy').textContent())!.trim();
}

async function join(page: Page, code: string): Promise<void> {
  await page.goto('/classes');
  await page.getByLabel('Code from your teacher').fill(code);
  await page.getByRole('button', { name: 'Join' }).click();
  await expectSeen(page.getByRole('link', { name: TITLE }));
}

/** Writes for the class from now on, and marks some words. */
const mark = async (page: Page, words: string, key = '1'): Promise<void> => {
  await drag(page, words);
  await page.keyboard.press(key);
};

test('a reading is set, done and shown: each sees the others after their own, the teacher how far they are', async ({
  browser,
}) => {
  const teacher = await newcomer(browser, 'Aud');
  const [one, other] = [await newcomer(browser, 'Bo'), await newcomer(browser, 'Cyd')];
  const t = teacher.page;
  const code = await test.step('the teacher chooses a source, says what is expected, and until when', async () => {
    await keep(t, PAGE);
    const made = await makeClass(t, 'Tide Watch');
    await t.getByRole('link', { name: 'Set a reading' }).click();
    await t.getByLabel('Which source?').fill('high water');
    await t.getByRole('link', { name: TITLE }).click();
    await t.getByLabel('Instructions').fill('Mark **two claims**.');
    await t.getByLabel('Of which kind, 1').selectOption({ label: 'marks of the kind Claim §' });
    await t.getByLabel('after it is due').check();
    await t.getByRole('button', { name: 'Set it for Tide Watch' }).click();
    await expectSeen(t.getByText('Choose when it is due: after that they see each other.'));
    await t.getByLabel('Due (never, if left empty)').fill(inDays(2));
    await t.getByLabel('Opens (at once, if left empty)').fill(inDays(3));
    await t.getByRole('button', { name: 'Set it for Tide Watch' }).click();
    await expectSeen(t.getByText('It is due before it opens.'));
    // A tab that is closed takes nothing with it.
    await t.reload();
    await expectSeen(t.getByText('What you had written here, and not saved, is back.'));
    await expect(t.getByLabel('Instructions')).toHaveValue('Mark **two claims**.');
    await t.getByLabel('Opens (at once, if left empty)').fill('');
    await t.getByLabel('after their own').check();
    await t.getByRole('button', { name: 'Set it for Tide Watch' }).click();
    await expectSeen(t.getByText('two claims · others are seen after one’s own'));
    return made;
  });

  await test.step('both join; the Desk says what is missing and leads there', async () => {
    await join(one.page, code);
    await join(other.page, code);
    await one.page.getByRole('link', { name: /^Desk/ }).click();
    const due = one.page.getByRole('region', { name: 'Due' });
    await expect(due).toContainText('still missing: two claims');
    await due.getByRole('link', { name: TITLE }).click();
    await opened(one.page);
    await one.page.getByRole('button', { name: 'Instructions' }).click();
    await expectSeen(one.page.locator('strong', { hasText: 'two claims' }));
    await other.page.getByRole('link', { name: TITLE }).click();
    await opened(other.page);
  });

  await test.step('each writes for the class, and sees the other only after their own', async () => {
    const [a, b] = [one.page, other.page];
    for (const page of [a, b]) await page.getByRole('button', { name: 'Write for Tide Watch' }).click();
    await mark(b, 'a sea defence that nobody pays for');
    await expectSeen(b.getByText('one claim', { exact: true }));
    await mark(a, 'One had framed it.');
    await mark(a, 'Nothing, for a while.', '2');
    await expectSeen(a.getByText('one claim', { exact: true }));
    expect(await painted(a)).toEqual({
      'avrelle-weld-solid': ['One had framed it.'],
      'avrelle-verdigris-dashed': ['Nothing, for a while.'],
    });
    await mark(a, 'By Friday three had answered.');
    await expectSeen(a.getByText('Done:'));
    await expect
      .poll(async () => (await painted(a))['avrelle-weld-solid']?.toSorted())
      .toEqual(['By Friday three had answered.', 'One had framed it.', 'a sea defence that nobody pays for']);
    expect(await painted(b)).toEqual({ 'avrelle-weld-solid': ['a sea defence that nobody pays for'] });
  });

  await test.step('the teacher sees who did what, and gives one of them more time', async () => {
    await expectSeen(t.getByText('1 of 2 has done all'));
    await t.getByRole('link', { name: 'How they read it' }).click();
    const row = t.getByRole('row', { name: /^Cyd Test/ });
    await expect(row).toContainText('one claim');
    await row.getByRole('button', { name: 'give more time to Cyd Test' }).click();
    await t.getByLabel('Due for them').fill(inDays(1));
    await t.getByRole('button', { name: 'Save' }).click();
    await expectSeen(t.getByText('Choose a time after the one when it is due for the class.', { exact: false }));
    await t.getByLabel('Due for them').fill(inDays(9));
    await t.getByRole('button', { name: 'Save' }).click();
    await expect(row).toContainText('until');
  });

  await test.step('set to be shown by hand, it is shown while the other reads, and hidden again', async () => {
    await t.getByRole('link', { name: 'Change what is set' }).click();
    await t.getByLabel('when you show them').check();
    await t.getByRole('button', { name: 'Save changes' }).click();
    await expect.poll(async () => (await painted(one.page))['avrelle-weld-solid']?.length).toBe(2);
    await t.getByRole('button', { name: 'Show them each other’s marks' }).click();
    await expect.poll(async () => (await painted(other.page))['avrelle-weld-solid']?.length).toBe(3);
    await t.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(async () => (await painted(other.page))['avrelle-weld-solid']?.length).toBe(1);
  });

  await test.step('what is typed stays while somebody else changes what is set, and without a connection', async () => {
    await t.getByRole('link', { name: /^Change/ }).click();
    const [, classId, sourceId] = /classes\/([^/]+)\/set\/([^/]+)$/.exec(t.url())!;
    const url = `/api/classes/${classId}/assignments/${sourceId}`;
    await t.getByLabel('Instructions').fill('Mark **three** claims.');
    const { version } = (await (await t.request.get(url)).json()) as { version: number };
    const meanwhile = { version, instructions: 'Mark whatever you like.', othersSeen: 'after_release' };
    await t.request.put(url, { data: meanwhile, headers: { origin: new URL(t.url()).origin } });
    await expect(t.getByRole('note', { name: 'What is set now' })).toContainText('Mark whatever you like.');
    await expect(t.getByLabel('Instructions')).toHaveValue('Mark **three** claims.');
    await t.context().setOffline(true);
    await t.getByRole('button', { name: 'Save changes' }).press('Enter');
    await expectSeen(t.getByRole('alert').filter({ hasText: 'server' }));
    await expect(t.getByLabel('Instructions')).toHaveValue('Mark **three** claims.');
    await t.context().setOffline(false);
    await t.getByLabel(/^Tell the class/).uncheck();
    await t.getByRole('button', { name: 'Save changes' }).press('Enter');
    await expectSeen(t.getByText(/^What is set is changed; the reading says/));
    await other.page.getByRole('button', { name: 'Instructions' }).click();
    await expectSeen(other.page.locator('strong', { hasText: 'three' }));
  });

  await test.step('what has changed stands beside it, until it is published again', async () => {
    const sign = other.page.getByText(/Changed since .*the instructions/);
    await expectSeen(sign);
    await t.getByRole('link', { name: 'How they read it' }).click();
    await t.getByRole('button', { name: 'Publish again…' }).click();
    const dialog = t.getByRole('dialog', { name: /^Publish .* again\?$/ });
    await expectSeen(dialog.getByText(/Changed since .*the instructions/));
    expect(await violations(t, 'all', '[role=dialog]')).toEqual([]);
    await dialog.getByLabel('Count anew who has looked at it').check();
    await dialog.getByRole('button', { name: 'Publish again' }).click();
    await expectSeen(t.getByText(/^Published .* who has opened it is counted since/));
    await expect(sign).toHaveCount(0);
    await t.goBack();
  });

  await test.step('nothing is asked for any more, and that is undone', async () => {
    await t.getByRole('link', { name: /^Change/ }).click();
    await t.getByRole('button', { name: 'Ask for nothing any more' }).click();
    await expectSeen(t.getByText(`Nothing is asked for on “${TITLE}” any more.`, { exact: true }));
    await expect(other.page.getByText('Still missing')).toBeHidden();
    await t.getByRole('button', { name: 'Undo' }).last().click();
    await expectSeen(other.page.getByText('Still missing'));
  });
  for (const { close } of [teacher, one, other]) await close();
});

test('where a reading is set and read, axe finds nothing, and on a phone nothing is too wide or too small', async ({
  browser,
}) => {
  const { page, close } = await visit(browser, 'aldous', '/library', PHONE);
  const { sources } = await ofApi<SourcePage>(page, '/api/sources');
  const source = sources.find((s) => s.title.includes('Walks Inland'))!.id;
  const path = `/classes/${(await ofApi<ClassRow[]>(page, '/api/classes')).find((c) => c.name.endsWith('B'))!.id}`;
  const found: string[] = [];
  for (const at of [
    path,
    `${path}/set`,
    `${path}/set/${source}`,
    `${path}/readings/${source}`,
    `${path}/held`,
    `${path}/discussion`,
    `${path}/live`,
  ]) {
    await arrive(page, at);
    for (const what of [...(await violations(page, 'all')), ...(await tooSmall(page))]) found.push(`${at} ${what}`);
    if ((await beyond(page)) > 0) found.push(`${at} is ${await beyond(page)} pixels too wide`);
    await page.addStyleTag({ content: SPACING });
    found.push(...(await cutOff(page)).map((what) => `${at} ${what}`));
    await page.evaluate(() => document.documentElement.setAttribute('data-theme', 'night'));
    found.push(...(await violations(page, 'colours')).map((what) => `${at} by night ${what}`));
  }
  expect(found).toEqual([]);

  // How one group read it, which a reload keeps.
  await arrive(page, `${path}/readings/${source}`);
  const readers = page.getByRole('table', { name: 'Students' }).getByRole('row');
  const all = await readers.count();
  const { members, groups } = await ofApi<ClassDetail>(page, `/api${path}`);
  const [group] = groups;
  const within = members.filter((m) => m.groupId === group!.id).map((m) => m.name);
  expect(within.length).toBeGreaterThan(0);
  expect(within.length).toBeLessThan(all - 1);
  await page.getByRole('combobox', { name: /^Who/ }).selectOption(group!.name);
  await expect(readers).toHaveCount(within.length + 1);
  await page.reload();
  await expect(readers).toHaveCount(within.length + 1);
  for (const name of within) await expect(readers.filter({ hasText: name })).toHaveCount(1);
  await close();
});
