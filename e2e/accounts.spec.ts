import { expect, test, type Browser, type Page } from '@playwright/test';
import { expectSeen, newcomer, visit } from './helpers';

const PASSWORD = 'a long enough password';
const emailOf = async (page: Page): Promise<string> =>
  ((await (await page.request.get('/api/welcome')).json()) as { me: { email: string } }).me.email;

/** Signs in by the form, in a browser of its own. */
async function signIn(browser: Browser, email: string, password: string) {
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto('/enter');
  await page.getByLabel('E-mail address').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  return { page, close: () => context.close() };
}

test('a password is changed, what is signed in elsewhere ends, and a program reads with a key until it is taken back', async ({
  browser,
  request,
}) => {
  const { page, close } = await newcomer(browser, 'Keys');
  const email = await emailOf(page);
  const elsewhere = await signIn(browser, email, PASSWORD);
  await expectSeen(elsewhere.page.getByRole('button', { name: 'Keys T.' }));

  await page.getByRole('button', { name: 'Keys T.' }).click();
  await page.getByRole('menuitem', { name: 'Your account' }).click();
  await expectSeen(page.getByRole('region', { name: 'Where you are signed in' }).getByText('this one'));
  await page.getByLabel('Current password').fill('not that one');
  await page.getByLabel(/^New password/).fill('sea lavender at dusk');
  await page.keyboard.press('Enter');
  await expectSeen(page.getByRole('alert').filter({ hasText: 'do not belong together' }));
  await expect(page.getByLabel('Current password')).toBeFocused();
  await page.getByLabel('Current password').fill(PASSWORD);
  await page.keyboard.press('Enter');
  await expectSeen(page.getByText('Your password is changed.', { exact: true }));
  await expect(page.getByRole('button', { name: /^Sign out / })).toHaveCount(0);
  await elsewhere.page.reload();
  await expectSeen(elsewhere.page.getByRole('heading', { name: 'Sign in' }));
  await elsewhere.close();

  await page.context().setOffline(true);
  await page.getByLabel('New key for').fill('Notes');
  await page.keyboard.press('Enter');
  await expectSeen(page.getByRole('alert').filter({ hasText: 'cannot be reached' }));
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'Make a key' }).press('Enter');
  const secret = page.locator('[data-secret]');
  await expectSeen(secret);
  const headers = { authorization: `Bearer ${await secret.textContent()}` };
  await page.getByRole('button', { name: 'Done' }).click();
  expect((await request.get('/api/classes', { headers })).status()).toBe(200);
  expect((await request.post('/api/classes/join', { headers, data: { code: 'X' } })).status()).toBe(403);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.getByRole('button', { name: 'Delete the key for Notes' }).click();
  await expect(page.getByRole('table', { name: 'Access keys' })).toHaveCount(0);
  expect((await request.get('/api/classes', { headers })).status()).toBe(401);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await close();
});

test('an administrator suspends an account, opens it, and gives a new password, by keyboard alone', async ({
  browser,
}) => {
  const other = await newcomer(browser, `Zoe${Math.random().toString(36).slice(2)}`);
  const email = await emailOf(other.page);
  const { page, close } = await visit(browser, 'aldous', '/account');
  await page.getByRole('link', { name: 'All accounts' }).click();
  const field = page.getByLabel('Name or e-mail address');
  await field.fill(email);
  const menu = page.getByRole('button', { name: `Change ${other.name}` });
  await expectSeen(menu);
  const choose = async (downs: number): Promise<void> => {
    await menu.focus();
    await page.keyboard.press('Enter');
    const items = page.getByRole('menuitem');
    await expect(items.first()).toBeFocused();
    for (let n = 1; n <= downs; n++) {
      await page.keyboard.press('ArrowDown');
      // The focus moves a moment after the key: nobody is so fast that it matters.
      await expect(items.nth(n)).toBeFocused();
    }
    await page.keyboard.press('Enter');
  };
  await choose(0);
  await page.getByRole('button', { name: 'Suspend' }).press('Enter');
  await expectSeen(page.getByText('· suspended'));
  const shut = await signIn(browser, email, PASSWORD);
  await expectSeen(shut.page.getByRole('alert').filter({ hasText: 'suspended by an administrator' }));
  await shut.close();
  await choose(0);
  await expect(page.getByText('· suspended')).toHaveCount(0);
  await choose(1);
  await page.getByRole('button', { name: 'Make a new password' }).press('Enter');
  const secret = page.locator('[data-secret]');
  await expectSeen(secret);
  const back = await signIn(browser, email, (await secret.textContent())!);
  await expectSeen(back.page.getByRole('navigation', { name: 'Main' }));
  for (const one of [back, other, { close }]) await one.close();
});

test('a member is removed and a class deleted: an open page of theirs shows it no more; both come back', async ({
  browser,
}) => {
  const teacher = await newcomer(browser, 'Teach');
  await teacher.page.goto('/classes');
  await teacher.page.getByLabel('Name').fill('Reading Room');
  await teacher.page.getByRole('button', { name: 'Make it' }).click();
  const codeButton = teacher.page.getByTitle('Copy');
  await expectSeen(codeButton);
  const student = await newcomer(browser, 'Pupil');
  const join = async (): Promise<void> => {
    await student.page.goto('/classes');
    await student.page.getByLabel('Code from your teacher').fill((await codeButton.textContent())!);
    await student.page.getByRole('button', { name: 'Join' }).click();
    await expectSeen(student.page.getByRole('heading', { name: 'Reading Room' }));
    await student.page.goto('/classes');
    await expectSeen(student.page.getByRole('link', { name: 'Reading Room' }));
  };
  await join();

  const { page } = teacher;
  await page.getByRole('button', { name: 'Change Pupil Test' }).click();
  await page.getByRole('menuitem', { name: 'Make an assistant' }).click();
  await expectSeen(page.getByRole('row', { name: /Pupil Test · assistant/ }));
  await page.getByRole('button', { name: 'Change Pupil Test' }).click();
  await page.getByRole('menuitem', { name: 'Remove from the class…' }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('row', { name: /Pupil Test/ })).toHaveCount(0);
  await expect(student.page.getByRole('link', { name: 'Reading Room' })).toHaveCount(0);

  const before = await codeButton.textContent();
  await page.getByRole('link', { name: 'Joining' }).click();
  await page.getByRole('button', { name: 'Make a new code' }).click();
  await page.getByRole('link', { name: '‹ Reading Room' }).click();
  await expect(codeButton).not.toHaveText(before!);
  await join();

  await page.getByRole('button', { name: /^Class/ }).click();
  await page.getByRole('menuitem', { name: 'Delete the class…' }).click();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(student.page.getByRole('link', { name: 'Reading Room' })).toHaveCount(0);
  await page.reload();
  await page.getByRole('button', { name: 'Bring back Reading Room' }).click();
  await expectSeen(page.getByRole('link', { name: 'Reading Room' }));
  await expectSeen(student.page.getByRole('link', { name: 'Reading Room' }));
  await teacher.close();
  await student.close();
});

test('in the demo one is a sample person by one click', async ({ page }) => {
  await page.goto('/enter');
  const offered = page.getByRole('region', { name: 'This is a demo' });
  await expectSeen(offered.getByRole('button', { name: /Ines Kestle.*essay/ }));
  await offered.getByRole('button', { name: /Tomas Rell/ }).click();
  await expectSeen(page.getByRole('button', { name: 'Tomas R.' }));
  // Whoever is signed in is not told the others’ passwords again.
  expect(((await (await page.request.get('/api/welcome')).json()) as { samples: unknown[] }).samples).toEqual([]);
});
