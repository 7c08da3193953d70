import { expect, test } from '@playwright/test';
import { beyond, violations } from './accessible';
import { INBOX_PORT } from './constants';
import { drag, expectSeen, keep, makeClass, newcomers, opened, visit } from './helpers';

test('what is new in what one follows stands on the Desk at once; kinds are turned off, and classes muted', async ({
  browser,
}) => {
  const [teacher, reader] = await newcomers(browser, 'Maud', 'Hanne');
  const [t, r] = [teacher.page, reader.page];
  await makeClass(t, 'Mud Walk', [r]);
  const classPath = new URL(t.url()).pathname;
  await keep(t, 'http://review.saltmere.test/marsh-that-walks-inland');
  const path = new URL(t.url()).pathname;
  await t.getByRole('button', { name: /^Writing for/ }).click();
  await t.getByRole('menuitemcheckbox', { name: 'Mud Walk' }).click();
  await expectSeen(t.getByRole('button', { name: 'Writing for: Mud Walk' }));
  await t.keyboard.press('Escape');
  const made = t.getByRole('article', { name: 'Note, Maud Test' });
  const marks = async (words: string): Promise<void> => {
    const before = await made.count();
    await drag(t, words);
    await t.keyboard.type('Look at this.');
    await t.keyboard.press('Control+Enter');
    await expect(made).toHaveCount(before + 1);
  };
  const news = r.getByRole('region', { name: 'New for you' });

  await test.step('the source is followed from an open note, by keyboard', async () => {
    await marks('Accretion is not spread evenly');
    await r.goto(path);
    const note = r.getByRole('article', { name: 'Note, Maud Test' });
    await note.getByRole('button').first().press('Enter');
    await note.getByRole('button', { name: 'Follow this' }).press('Enter');
    await expectSeen(r.getByRole('menuitemcheckbox', { name: 'What Maud T. writes' }));
    await r.getByRole('menuitemcheckbox', { name: 'Everything in this source' }).press('Enter');
    await expectSeen(r.getByText('What is new in this source stands on your Desk from now on.', { exact: true }));
  });

  await test.step('what comes then stands on the open Desk, as one entry of whoever wrote it', async () => {
    await r.goto('/desk');
    await expect(news.getByRole('listitem')).toHaveCount(0);
    await marks('the surface gains almost nothing');
    await expectSeen(news.getByText('Maud T. added something new'));
    await marks('a little under four');
    await expectSeen(news.getByText('Maud T. added 2 new things'));
    await expect(news.getByRole('listitem')).toHaveCount(1);
  });

  await test.step('the kind is turned off and on again', async () => {
    await news.getByRole('link', { name: /^Settings/ }).click();
    await expectSeen(r.getByRole('heading', { name: 'Notifications' }));
    expect(await violations(r, 'all')).toEqual([]);
    const box = r.getByRole('checkbox', { name: 'Something is new in what I follow: on the Desk' });
    await box.press('Space');
    await r.getByLabel('once a day').check();
    await r.getByLabel('At this hour').selectOption('18:00');
    await r.getByRole('button', { name: 'Save' }).click();
    await expectSeen(r.getByText('Saved.', { exact: true }));
    await r.reload();
    await expect(box).not.toBeChecked();
    await expect(r.getByLabel('At this hour')).toHaveValue('18');
    await r.goto('/desk');
    await expect(news.getByRole('listitem')).toHaveCount(0);
    await r.goto('/notifications');
    await box.check();
    await r.getByRole('button', { name: 'Save' }).click();
    await expectSeen(r.getByText('Saved.', { exact: true }));
  });

  await test.step('the class is muted, and heard again', async () => {
    await r.goto(classPath);
    await r.getByRole('button', { name: 'Class', exact: true }).click();
    await r.getByRole('menuitem', { name: 'Mute the class' }).click();
    await expectSeen(r.getByText('You are told nothing of Mud Walk any more.', { exact: true }));
    await r.goto('/desk');
    await expect(news.getByRole('listitem')).toHaveCount(0);
    await r.goto('/notifications');
    await r.getByRole('button', { name: 'Unmute Mud Walk' }).click();
    await expect(r.getByRole('button', { name: 'Unmute Mud Walk' })).toHaveCount(0);
    await r.goto('/desk');
    await expectSeen(news.getByText('Maud T. added 2 new things'));
  });

  await test.step('narrow, all of it can be done; what is followed is let go', async () => {
    await r.setViewportSize({ width: 320, height: 640 });
    await r.goto('/notifications');
    await expectSeen(r.getByRole('checkbox', { name: 'Somebody answers me: by mail' }));
    expect([await violations(r, 'all'), await beyond(r)]).toEqual([[], 0]);
    await r.getByRole('button', { name: 'Unfollow The Marsh That Walks Inland' }).click();
    await expect(r.getByText('Nothing yet.')).toBeVisible();
  });
  await Promise.all([teacher.close(), reader.close()]);
});

test('a mail leads to what it tells of, and ends the mails of whoever got it, without signing in', async ({
  browser,
}) => {
  const { page: ines, close } = await visit(browser, 'ines');
  const context = await browser.newContext();
  const page = await context.newPage();
  await expect(async () => {
    await page.goto(`http://127.0.0.1:${INBOX_PORT}`);
    // The first she got: another has come where a full hour has passed since.
    const hers = page.getByRole('listitem').filter({ hasText: 'Ines Kestle' });
    await hers
      .getByRole('link', { name: /due soon/ })
      .last()
      .click({ timeout: 1_000 });
  }).toPass({ timeout: 60_000 });
  const letter = await page.locator('pre').textContent();
  expect(letter).toContain('Due soon, and not done yet');
  await ines.goto(/http:\S+\/source\/\S+/.exec(letter!)![0]);
  await opened(ines);
  await page.goto(/http:\S+\/stop-mails\/\S+/.exec(letter!)![0]);
  await expectSeen(page.getByRole('heading', { name: 'No more mails?' }));
  expect(await violations(page, 'all')).toEqual([]);
  await ines.goto('/notifications');
  await expect(ines.getByLabel('every hour')).toBeChecked();
  await page.getByRole('button', { name: 'Stop the mails' }).click();
  await expectSeen(page.getByRole('heading', { name: 'No more mails come' }));
  await ines.reload();
  await expect(ines.getByLabel('never')).toBeChecked();
  await context.close();
  await close();
});
