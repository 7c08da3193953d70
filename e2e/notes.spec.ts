import { expect, test } from '@playwright/test';
import { clickWords, drag, keep, newcomer, opened, expectSeen } from './helpers';

const PAGE = 'http://packet.saltmere.test/who-pays';
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
  'base64',
);

test('a note holds emphasis, a formula, a picture, a tag, and links that both ends show', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Writer');
  await keep(page, PAGE);
  await drag(page, 'One had framed it.');
  await page.keyboard.type('Framed, of all things.');
  await page.keyboard.press('Control+Enter');
  await drag(page, 'Nothing, for a while.');
  await page.keyboard.type('So $h = 3.2$ mm, #accretion, ');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('truly');
  await page.keyboard.press('Control+b');
  await page.keyboard.type(', as ');
  await page.getByRole('button', { name: 'Link', exact: true }).click();
  await page.getByLabel('Where the link leads').fill('Framed');
  await page.getByRole('button', { name: /Framed, of all things/ }).click();
  await page.getByLabel('Picture for the note').setInputFiles({ name: 'peg.png', mimeType: 'image/png', buffer: PNG });
  const editor = page.getByRole('textbox', { name: 'Note' });
  await expectSeen(editor.getByRole('img', { name: 'peg' }));
  await page.keyboard.press('Control+Enter');
  const note = page
    .getByRole('article', { name: /Note, Writer/ })
    .filter({ has: page.getByRole('img', { name: 'peg' }) });
  await expectSeen(note.locator('.katex').first());
  await expectSeen(note.locator('strong', { hasText: 'truly' }));
  await expectSeen(note.getByRole('img', { name: 'peg' }));
  await expect(note).toContainText('#accretion');
  await page.reload();
  await opened(page);
  await expect(page.getByRole('article', { name: /Note, Writer/ })).toHaveCount(2);
  await clickWords(page, 'Nothing, for a while.');
  const address = page.url();
  await note.getByRole('link', { name: 'Framed, of all things.' }).click();
  const other = page.getByRole('article', { name: /Note, Writer/ }).filter({ hasText: 'Linked from' });
  await expectSeen(other.getByRole('link', { name: /So h = 3\.2 mm/ }));
  expect(page.url()).toBe(address);
  expect(page.context().pages()).toHaveLength(1);
  await note.getByRole('button', { name: 'Edit' }).click();
  await expect(editor).toBeFocused();
  await page.keyboard.type(' Done.');
  await page.keyboard.press('Control+Enter');
  await expectSeen(note.locator('.katex').first());
  await expect(note).toContainText('Done.');
  await close();
});

test('somebody is mentioned, is told, and arrives at the note; an answered note that is deleted leaves its answers', async ({
  browser,
}) => {
  const teacher = await newcomer(browser, 'Hilda');
  const student = await newcomer(browser, 'Egon');
  const t = teacher.page;
  const s = student.page;
  await t.goto('/classes');
  await t.getByLabel('Name').fill('Field Course N');
  await t.getByRole('button', { name: 'Make it' }).click();
  const code = (await t.getByTitle('Copy').textContent())!.trim();
  await s.goto('/classes');
  await s.getByLabel('Code from your teacher').fill(code);
  await s.getByRole('button', { name: 'Join' }).click();
  await expectSeen(s.getByRole('heading', { name: 'Field Course N' }));
  await keep(t, PAGE);
  await t.getByRole('button', { name: /^Writing for/ }).click();
  await t.getByRole('menuitemcheckbox', { name: /Field Course N/ }).click();
  await expectSeen(t.getByRole('button', { name: 'Writing for: Field Course N' }));
  await t.keyboard.press('Escape');
  await drag(t, 'One had framed it.');
  await t.keyboard.type('What do you say, @Egon');
  await expectSeen(t.getByRole('option', { name: 'Egon Test' }));
  await t.getByRole('option', { name: 'Egon Test' }).click();
  await t.keyboard.press('Control+Enter');
  await s.goto('/desk');
  await s.getByRole('link', { name: /mentioned you/ }).click();
  await opened(s);
  const card = s.getByRole('article', { name: /Note, Hilda/ });
  await card.getByLabel('Reply').fill('I say it was the frame.');
  await card.getByRole('button', { name: 'Reply' }).click();
  await expect(card).toContainText('I say it was the frame.');
  await card.getByRole('button', { name: 'Edit' }).click();
  await card.getByLabel('Reply').first().fill('I say it was a cheap frame.');
  await card.getByRole('button', { name: 'Save' }).click();
  const own = t.getByRole('article', { name: /Note, Hilda/ });
  await expect(own).toContainText('I say it was a cheap frame.');
  await own.getByRole('button', { name: 'Delete', exact: true }).first().click();
  await expect(own).toContainText('deleted this');
  await expect(own).toContainText('I say it was a cheap frame.');
  await expect(card).toContainText('deleted this');
  await expect(card).not.toContainText('What do you say');
  await t.getByRole('button', { name: 'Undo' }).first().click();
  await expect(card).toContainText('What do you say');
  await teacher.close();
  await student.close();
});

test('a formula with a fault is shown as written, with the reason; what is too long or hostile does no harm', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Pasting');
  await keep(page, PAGE);
  await drag(page, 'One had framed it.');
  await page.keyboard.type('Broken: $\\frac{a$ and whole: $a^2$.');
  await page.keyboard.press('Control+Enter');
  const note = page.getByRole('article', { name: /Note, Pasting/ });
  await expect(note.locator('.katex-error')).toHaveText('\\frac{a');
  await expect(note.locator('.katex-error')).toHaveAttribute('title', /ParseError/);
  await expect(note.locator('.katex')).toHaveCount(1);

  await note.getByRole('button', { name: 'Edit' }).click();
  const editor = page.getByRole('textbox', { name: 'Note' });
  await expect(editor).toBeFocused();
  const paste = (type: string, words: string): Promise<void> =>
    editor.evaluate(
      (node, [kind, text]) => {
        const data = new DataTransfer();
        data.setData(kind!, text!);
        node.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
      },
      [type, words],
    );
  await paste('text/plain', 'tide '.repeat(1_000_000));
  await expectSeen(page.getByText('What you pasted is longer than a note may be'));
  await expect(editor).not.toContainText('tide tide');
  await page.evaluate(() => {
    (window as unknown as { harmed: boolean }).harmed = false;
  });
  await paste(
    'text/html',
    '<p>Calm <img src="x" onerror="window.harmed = true"><script>window.harmed = true</scr' +
      'ipt><a href="javascript:window.harmed = true">words</a><iframe src="https://elsewhere.test/"></iframe></p>',
  );
  await expect(editor).toContainText('Calm');
  await expect(editor.locator('script, iframe, img, a[href^="javascript"]')).toHaveCount(0);
  await page.keyboard.press('Control+Enter');
  await expect(note).toContainText('Calm');
  expect(await page.evaluate(() => (window as unknown as { harmed: boolean }).harmed)).toBe(false);
  await close();
});
