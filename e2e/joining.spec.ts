import { expect, test, type Page } from '@playwright/test';
import { beyond, violations } from './accessible';
import { expectSeen, newcomer } from './helpers';

const emailOf = async (page: Page): Promise<string> =>
  ((await (await page.request.get('/api/welcome')).json()) as { me: { email: string } }).me.email;
const clipboard = (page: Page): Promise<string> => page.evaluate(() => navigator.clipboard.readText());

test('others come into a class by a link, by asking and from a list; it is archived, and the next one begun', async ({
  browser,
}) => {
  const [teacher, asker, listed] = [
    await newcomer(browser, 'Joan'),
    await newcomer(browser, 'Asta'),
    await newcomer(browser, 'Lisa'),
  ];
  const [t, a] = [teacher.page, asker.page];
  const joining = async (): Promise<void> => {
    await t.getByRole('link', { name: 'Joining' }).click();
    await expectSeen(t.getByRole('heading', { name: 'Joining', exact: true }));
  };

  const link = await test.step('the teacher makes a link for one', async () => {
    await t.goto('/classes');
    await t.getByLabel('Name').fill('Salt Walk');
    await t.getByRole('button', { name: 'Make it' }).click();
    await joining();
    await t.getByLabel(/^For how many people/).fill('none');
    await t.getByRole('button', { name: 'Make a link' }).click();
    await expectSeen(t.getByText('Write for how many people it is.'));
    await t.getByLabel(/^For how many people/).fill('1');
    await t.keyboard.press('Enter');
    await expectSeen(t.getByRole('table', { name: 'Links to join' }).getByText('0 of 1'));
    return clipboard(t);
  });

  await test.step('who opens it without an account makes one, and is back where the link led', async () => {
    const context = await browser.newContext();
    const page = await context.newPage();
    await page.goto(link);
    await page.getByRole('button', { name: 'Make an account' }).click();
    await page.getByLabel('E-mail address').fill(`nia.${Math.random().toString(36).slice(2)}@college.saltmere.test`);
    await page.getByLabel(/^Your name/).fill('Nia Test');
    await page.getByLabel(/^Password/).fill('a long enough password');
    await page.getByRole('button', { name: 'Make the account' }).click();
    await expectSeen(page.getByText('Taught by Joan Test'));
    expect(await violations(page, 'all')).toEqual([]);
    await page.getByRole('button', { name: 'Join', exact: true }).click();
    await expectSeen(page.getByRole('heading', { name: 'Salt Walk' }));
    await expectSeen(t.getByRole('table', { name: 'Links to join' }).getByText('1 of 1'));
    await a.goto(link);
    await expectSeen(a.getByText(/was used by as many people as it was for/));
    await context.close();
  });

  await test.step('where one has to be let in, who has the code waits; a teacher lets them in', async () => {
    await t.getByLabel('waits until a teacher lets them in').check();
    await t.getByRole('button', { name: 'Copy', exact: true }).click();
    await expectSeen(t.getByText('The code is on the clipboard.', { exact: true }));
    const code = await clipboard(t);
    await a.goto('/classes');
    await a.getByLabel('Code from your teacher').fill(code);
    await a.getByRole('button', { name: 'Join' }).click();
    await expectSeen(a.getByRole('region', { name: 'Asked to join' }).getByText('Salt Walk', { exact: true }));
    await t.getByRole('link', { name: /^Desk/ }).click();
    await t.getByRole('link', { name: '1 person asks to join Salt Walk' }).click();
    await t.setViewportSize({ width: 320, height: 640 });
    expect([await violations(t, 'all'), await beyond(t)]).toEqual([[], 0]);
    await t.setViewportSize({ width: 1280, height: 800 });
    await t.getByRole('button', { name: 'Let in Asta Test' }).click();
    await expectSeen(t.getByText('Asta Test is in Salt Walk now.', { exact: true }));
    await expectSeen(a.getByRole('link', { name: 'Salt Walk' }));
    await expect(a.getByRole('region', { name: 'Asked to join' })).toBeHidden();
    await a.getByRole('link', { name: /^Desk/ }).click();
    await a.getByRole('region', { name: 'New for you' }).getByRole('link', { name: 'let you in' }).click();
    await expectSeen(a.getByRole('heading', { name: 'Salt Walk' }));
    await a.getByRole('link', { name: 'Classes' }).click();
  });

  await test.step('a list is looked at; who is left in it is added, or has a link of their own', async () => {
    const lines = ['name,email', `Lisa,${await emailOf(listed.page)}`, 'Mara,mara@saltmere.test', 'Pim,pim at home'];
    const choose = t.waitForEvent('filechooser');
    await t.getByRole('button', { name: 'Choose a file…' }).click();
    await (await choose).setFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(lines.join('\n')) });
    await expectSeen(t.getByText('line 4: Pim, pim at home · this is no e-mail address'));
    expect(await violations(t, 'all')).toEqual([]);
    await t.getByRole('button', { name: 'Add 2 people' }).click();
    await expectSeen(t.getByText('1 person is in the class now.', { exact: false }));
    await t.getByRole('button', { name: 'Copy the link', exact: true }).click();
    await expect.poll(() => clipboard(t)).toMatch(/^Mara\tmara@saltmere\.test\thttp.*\/join\//);
    await listed.page.goto('/classes');
    await expectSeen(listed.page.getByRole('link', { name: 'Salt Walk' }));
  });

  await test.step('archived, it is looked at; another one begins with it', async () => {
    await t.getByRole('link', { name: '‹ Salt Walk' }).click();
    const menu = async (item: string): Promise<void> => {
      await t.getByRole('button', { name: /^Class/ }).click();
      await t.getByRole('menuitem', { name: item }).click();
    };
    await menu('Archive the class');
    await expectSeen(t.getByText('Archived since', { exact: false }));
    await expectSeen(a.getByRole('region', { name: 'Archived classes' }).getByRole('link', { name: 'Salt Walk' }));
    await t.getByRole('button', { name: 'Undo' }).click();
    await expect(t.getByText('Archived since', { exact: false })).toBeHidden();
    await menu('Begin the next class from this one…');
    expect(await violations(t, 'all', '[role=dialog]')).toEqual([]);
    await t.getByLabel('Name').fill('Salt Walk 2027');
    await t.keyboard.press('Enter');
    await expectSeen(t.getByRole('heading', { name: 'Salt Walk 2027' }));
    await expectSeen(t.getByText('1 person ·', { exact: false }));
  });
  for (const one of [teacher, asker, listed]) await one.close();
});
