import { expect, test, type Browser, type Page } from '@playwright/test';
import { v7 } from 'uuid';
import type { SourceDetail, SourcePage, TopicPage } from '@avrelle/core/wire';
import { expectSeen, newcomer, opened, visit } from './helpers';

/** Somebody new with short texts of these titles. */
async function withTexts(browser: Browser, name: string, titles: readonly string[]) {
  const visitor = await newcomer(browser, name);
  const { page } = visitor;
  for (const title of titles) {
    const file = {
      name: `${title}.txt`,
      mimeType: 'text/plain',
      buffer: Buffer.from(`${title}: the tide turns at seven.`),
    };
    await page.request.post(`/api/uploads/${v7()}`, { multipart: { file } });
  }
  await expect.poll(async () => (await sourcesOf(page)).length).toBe(titles.length);
  await page.goto('/library');
  return visitor;
}

const sourcesOf = async (page: Page, q = '') =>
  ((await (await page.request.get(`/api/sources?q=${encodeURIComponent(q)}&sort=title`)).json()) as SourcePage).sources;
const idOf = async (page: Page, title: string) => (await sourcesOf(page)).find((s) => s.title === title)!.id;

test('in the table one types on while the cell before is saved, each correction is taken back alone, and Escape goes back to the row', async ({
  browser,
}) => {
  const { page, close } = await withTexts(browser, 'Corrector', ['Alder', 'Birch']);
  await page.route(/\/api\/sources\/[^/]+$/, async (route) => {
    if (route.request().method() === 'PATCH') await new Promise((later) => setTimeout(later, 700));
    await route.continue();
  });
  await page.getByRole('button', { name: 'Table' }).click();
  const row = page.getByRole('row', { name: /Alder|Elm/ });
  const link = row.locator('[data-row]');
  await link.focus();
  await page.keyboard.press('F2');
  await page.keyboard.type('Elm');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Odile Farrant');
  await page.keyboard.press('Enter');
  await expect(link).toBeFocused();
  await expect
    .poll(async () => (await sourcesOf(page)).map((s) => [s.title, s.author]))
    .toContainEqual(['Elm', 'Odile Farrant']);
  // Both are told of, each with its own way back: the first one is taken back, the second stays.
  const messages = page.getByRole('listitem').filter({ hasText: 'corrected.' });
  await expect(messages).toHaveCount(2);
  await messages.first().getByRole('button', { name: 'Undo' }).click();
  await expect
    .poll(async () => (await sourcesOf(page)).map((s) => [s.title, s.author]))
    .toContainEqual(['Alder', 'Odile Farrant']);
  // A fact that is not known yet has a cell to be written in.
  const empty = row.getByRole('cell').nth(2);
  await page.getByRole('row', { name: /Birch/ }).getByRole('cell').nth(2).dblclick();
  await expect(page.getByLabel('Author of Birch')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('row', { name: /Birch/ }).locator('[data-row]')).toBeFocused();
  await expect(empty).toContainText('Odile');
  await close();
});

test('a page about a tag that is saved slowly never conflicts with itself, and outlives its window', async ({
  browser,
}) => {
  const { page, close } = await withTexts(browser, 'Slow', ['Alder']);
  let most = 0;
  let under = 0;
  await page.route(/\/api\/topics\?/, async (route) => {
    if (route.request().method() !== 'PUT') return route.continue();
    most = Math.max(most, (under += 1));
    await new Promise((later) => setTimeout(later, 1_500));
    under -= 1;
    return route.continue();
  });
  await page.goto('/topic?tag=mud');
  const written = page.getByRole('textbox', { name: 'What I write about mud' });
  await written.click();
  for (const words of ['It holds ', 'the marsh ', 'together.']) {
    const sent = page.waitForRequest((r) => r.method() === 'PUT' && r.url().includes('/api/topics'));
    await page.keyboard.type(words);
    await sent;
  }
  await expectSeen(page.getByText('Saved', { exact: true }));
  await expect(page.getByText('Another window wrote here')).toHaveCount(0);
  const text = async () => ((await (await page.request.get('/api/topics?tag=mud')).json()) as TopicPage).text;
  expect([most, await text()]).toEqual([1, 'It holds the marsh together.']);
  // Without a connection, and the window closed: it is there when one comes back.
  await page.unrouteAll();
  await page.route(/\/api\/topics\?/, (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await written.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' And the ferry.');
  await expectSeen(page.getByText('kept on this computer'));
  await page.goto('/library');
  await page.unrouteAll();
  await page.goto('/topic?tag=mud');
  await expect(written).toContainText('And the ferry.');
  await expect.poll(text).toBe('It holds the marsh together. And the ferry.');
  await close();
});

test('a tag is not merged by Enter alone, nor taken away by one press; the open search follows its new name', async ({
  browser,
}) => {
  const { page, close } = await withTexts(browser, 'Namer', ['Alder', 'Birch']);
  const tag = async (title: string, tags: string[]) =>
    page.request.put(`/api/sources/${await idOf(page, title)}/tags`, { data: { tags } });
  await tag('Alder', ['wet/deep', 'wet']);
  await tag('Birch', ['mud/deep']);
  await page.goto('/library?q=tag:wet+-title:birch');
  await page.getByRole('button', { name: 'Change the tag wet', exact: true }).click();
  const dialog = page.getByRole('dialog');
  const name = dialog.getByRole('textbox');
  await name.fill('mud');
  await name.press('Enter');
  await expectSeen(dialog.getByText('#mud/deep is in use: two become one there'));
  await expect(dialog.getByRole('button', { name: 'Make them one' })).toBeFocused();
  expect((await sourcesOf(page, 'tag:mud')).length).toBe(1);
  await dialog.getByRole('button', { name: 'No' }).click();
  await name.fill('damp');
  await name.press('Enter');
  await expect(page.getByRole('combobox', { name: 'Search the Library' })).toHaveValue('tag:damp -title:birch');
  await page.getByRole('button', { name: 'Change the tag damp', exact: true }).click();
  await dialog.getByRole('button', { name: 'Delete this tag everywhere' }).click();
  expect((await sourcesOf(page, 'tag:damp')).length).toBe(1);
  await expectSeen(dialog.getByText('It is on 1 source and 0 marks of yours'));
  // Also where there is little room nothing of the question is cut.
  await page.setViewportSize({ width: 390, height: 844 });
  await expectSeen(dialog.getByRole('button', { name: 'No' }));
  await dialog.getByRole('button', { name: 'Yes, take it away' }).click();
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect(page.getByRole('combobox', { name: 'Search the Library' })).toHaveValue('-title:birch');
  expect((await sourcesOf(page, 'tag:damp')).length).toBe(0);
  await close();
});

test('on the board a source goes to another state by keys, and what the search leaves out is left out', async ({
  browser,
}) => {
  const { page, close } = await withTexts(browser, 'Keys', ['Alder', 'Birch']);
  await page.getByRole('button', { name: 'Board' }).click();
  const column = (name: string) => page.getByRole('region', { name, exact: true });
  const handle = page.getByRole('button', { name: 'Move Alder to another state' });
  await handle.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('Alder is over To read.')).toBeAttached();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('Alder is over Finished.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(column('Finished').getByRole('listitem')).toHaveText(/Alder/);
  await expect(handle).toBeFocused();
  await page.goto('/library?view=board&q=is:finished+OR+title:nothing');
  await expect(column('Finished').getByRole('listitem')).toHaveCount(1);
  await expect(column('To read').getByRole('listitem')).toHaveCount(0);
  await page.goto('/library?view=calendar&q=title:alder+OR+title:birch');
  await expect(page.getByRole('region', { name: 'Calendar' }).getByRole('link')).toHaveCount(2);
  await close();
});

test('files are taken wherever in the Library they are dropped, a deleted collection comes back, links to a source stand at it', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Dropper');
  await expectSeen(page.getByText('Your reading belongs here'));
  await page.evaluate((name) => {
    const given = new DataTransfer();
    given.items.add(new File(['The tide turns at seven.'], name, { type: 'text/plain' }));
    const at = document.elementFromPoint(700, 600)!;
    for (const type of ['dragover', 'drop'])
      at.dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: given }));
  }, 'Dropped.txt');
  await expect.poll(async () => (await sourcesOf(page)).map((s) => s.title)).toEqual(['Dropped']);
  await page.getByRole('button', { name: 'New collection' }).click();
  await page.getByLabel('Name').fill('Essay');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'About it…' }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expectSeen(page.getByRole('link', { name: /Essay/ }));
  const id = await idOf(page, 'Dropped');
  const { versionId } = (await (await page.request.get(`/api/sources/${id}`)).json()) as SourceDetail;
  const anchor = { quote: { exact: 'tide', prefix: 'The ', suffix: '' }, position: { start: 4, end: 8 } };
  const data = {
    sourceId: id,
    versionId,
    kind: 'note',
    note: `As in [this](avrelle:source/${id})`,
    tags: [],
    anchor,
    classIds: [],
  };
  expect((await page.request.put(`/api/annotations/${v7()}`, { data })).status()).toBe(200);
  await page.goto(`/source/${id}`);
  await opened(page);
  await page.getByRole('button', { name: '1 link to it' }).click();
  await expectSeen(page.getByRole('dialog').getByText('As in this'));
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  // A message lies over whatever is open: Escape means what is beneath, at the first press.
  await page.request.put(`/api/classes/${v7()}`, { data: { name: 'Field Course', tint: 'tide' } });
  await page.reload();
  await opened(page);
  await page.getByRole('button', { name: /^Writing for/ }).click();
  await page.getByRole('menuitemcheckbox', { name: /Field Course/ }).click();
  await expectSeen(page.getByText('Field Course can read this source now.').first());
  await page.keyboard.press('Escape');
  await expect(page.getByRole('menu')).toHaveCount(0);
  // What is taken out is asked for by the clocks that are here.
  await page.goto('/library?q=saved:today');
  await page.getByRole('button', { name: 'Export' }).click();
  const table = page.getByRole('menuitem', { name: 'As a table (CSV)' });
  expect(await table.getAttribute('href')).toMatch(/ahead=-?\d+/);
  await close();
});

test('while a search cannot be read, the last answer stays, and says so', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Fault');
  await page.getByLabel('File to keep').setInputFiles(['demo/files/sea-lavender.md']);
  await expectSeen(page.getByRole('link', { name: 'Sea-Lavender and Other Accountants' }));
  const field = page
    .getByRole('combobox', { name: 'Search the Library' })
    .or(page.getByLabel('Search the Library'))
    .first();
  await field.fill('lavender');
  await field.press('Enter');
  await expectSeen(page.getByText('1 of 1'));
  await field.fill('lavender (mud');
  await field.press('Enter');
  await expectSeen(page.getByText('Until then you see the answer to lavender'));
  // Left, it lies over nothing, and stands beside the answer.
  await field.blur();
  await expectSeen(page.getByText('Still shown: lavender'));
  await expectSeen(page.getByText('This parenthesis is not closed.'));
  await expectSeen(page.getByRole('link', { name: 'Sea-Lavender and Other Accountants' }));
  // Also where one arrives with it.
  await page.goto('/library?q=lavender+(mud');
  await expectSeen(page.getByText('Still shown: everything'));
  await expectSeen(page.getByRole('link', { name: 'Sea-Lavender and Other Accountants' }));
  await expect(page.getByText('Nothing here fits')).toHaveCount(0);
  await close();
});

test('a page about a tag gathers what bears it, keeps what is written, and is linked from what it leads to', async ({
  browser,
}) => {
  const { page, close } = await visit(browser, 'ines', '/topic?tag=essay');
  await expectSeen(page.getByRole('heading', { name: '#essay' }));
  const bearing = page.getByRole('region', { name: 'What has this tag' });
  await expectSeen(bearing.getByRole('heading', { name: 'Marks and notes' }));
  const written = page.getByRole('textbox', { name: 'What I write about essay' });
  await written.click();
  await page.keyboard.type('Room is the whole argument.');
  await expectSeen(page.getByRole('status').filter({ hasText: 'Saved' }));
  await page.reload();
  await expect(written).toContainText('Room is the whole argument.');
  await page.getByRole('region', { name: 'Tags beside it' }).getByRole('link').first().click();
  await expect(page.getByRole('heading', { name: '#essay' })).toHaveCount(0);
  await expect(written).toHaveCount(0);
  await close();
});
