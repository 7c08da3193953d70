import { expect, test, type Locator, type Page } from '@playwright/test';
import { v7 } from 'uuid';
import { describe, indexText } from '@avrelle/core/anchor';
import { range } from '@avrelle/core/text';
import type { SourceDetail, SourcePage, SourceText } from '@avrelle/core/wire';
import { newcomer, opened, painted, visit, expectSeen } from './helpers';

/** Keeps some pages of the simulated web without opening them. */
async function keepAll(page: Page, addresses: readonly string[]): Promise<void> {
  for (const [n, address] of addresses.entries()) {
    await page.getByLabel('Address of a page').fill(`http://${address}`);
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect
      .poll(async () => ((await (await page.request.get('/api/sources')).json()) as { total: number }).total)
      .toBe(n + 1);
  }
  await page.reload();
}
const PAGES = [
  'review.saltmere.test/marsh-that-walks-inland',
  'packet.saltmere.test/who-pays',
  'creek.saltmere.test/five-drawings',
];
const list = (page: Page): Locator => page.getByRole('list', { name: 'Sources', exact: true });
const titles = (page: Page): Promise<string[]> => list(page).getByRole('heading').allTextContents();
const search = (page: Page): Locator => page.getByRole('combobox', { name: 'Search the Library' });

test('a search is completed as it is typed, told where it is wrong, kept, and changed as a form', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Searcher');
  await keepAll(page, PAGES);
  await expect(list(page).getByRole('listitem')).toHaveCount(3);

  await search(page).pressSequentially('tit');
  await expectSeen(page.getByRole('option', { name: 'title:' }));
  await page.keyboard.press('Tab');
  await expect(search(page)).toHaveValue('title:');
  await page.keyboard.type('marsh');
  await expect.poll(() => titles(page)).toEqual(['The Marsh That Walks Inland']);
  await expectSeen(page.getByText('1 of 3'));

  await search(page).fill('mi<10 mud');
  await expectSeen(page.getByText(/There is no field “mi”/));
  await search(page).fill('(marsh OR creek');
  await expectSeen(page.getByText('This parenthesis is not closed.'));
  await page.getByRole('button', { name: 'Make it (marsh OR creek)' }).click();
  await expect(search(page)).toHaveValue('(marsh OR creek)');
  await search(page).fill('minutes<60 is:to-read -title:creek');
  await expect
    .poll(async () => (await titles(page)).toSorted())
    .toEqual(['The Marsh That Walks Inland', 'Who pays for high water?']);

  await page.getByRole('button', { name: 'Save this search' }).click();
  await page.getByLabel('Name').fill('All but the creek');
  await page.getByRole('button', { name: 'Save' }).click();
  const kept = page.getByRole('button', { name: 'All but the creek 2' });
  await expect(kept).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(list(page).getByRole('listitem')).toHaveCount(3);
  await page.getByRole('button', { name: /^To read/ }).click();
  await expect(search(page)).toHaveValue('is:to-read');
  await page.getByRole('button', { name: /^Finished/ }).click();
  await expect(search(page)).toHaveValue('is:finished');
  await expectSeen(page.getByText('Nothing here fits all of that.'));
  await page.getByRole('button', { name: 'As a form' }).click();
  await expect(page.getByLabel('State')).toHaveValue('finished');
  await page.getByLabel('State').selectOption('');
  await page.getByLabel('In the title').fill('drawings');
  await expect.poll(() => titles(page)).toEqual(['Five Drawings of a Creek']);
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(search(page)).toHaveValue('title:drawings');
  await page.getByRole('button', { name: 'Change the search All but the creek' }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(kept).toHaveCount(0);
  await close();
});

test('sources are chosen by keys, changed together, and that is undone; what is deleted comes back', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Chooser');
  await keepAll(page, PAGES);
  await page.getByRole('button', { name: 'Compact' }).click();
  const rows = list(page).getByRole('listitem');
  await expect(rows).toHaveCount(3);
  await rows.nth(0).locator('[data-row]').focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowDown');
  await expect(rows.nth(1).locator('[data-row]')).toBeFocused();
  await page.keyboard.press('Space');
  const bar = page.getByRole('region', { name: 'The chosen sources' });
  await expect(bar).toContainText('2 sources chosen');
  await bar.getByRole('button', { name: 'Tags' }).click();
  await page.getByLabel('Tags to add').fill('#essay #week4');
  await page.keyboard.press('Enter');
  await expectSeen(page.getByRole('button', { name: '#essay 2' }));
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^#essay/ })).toHaveCount(0);

  await rows.nth(2).locator('[data-row]').focus();
  await page.keyboard.press('x');
  await bar.getByRole('button', { name: 'All 3' }).click();
  await expect(bar).toContainText('3 sources chosen');
  await bar.getByRole('button', { name: 'State' }).click();
  await page.getByRole('menuitem', { name: 'Set aside' }).click();
  await expectSeen(page.getByRole('button', { name: 'Set aside 3' }));

  await page.getByRole('button', { name: /^More for The Marsh/ }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(rows).toHaveCount(2);
  await page.getByRole('link', { name: /Deleted, kept for thirty days: 1/ }).click();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expectSeen(page.getByText('Nothing was deleted in the last thirty days.'));
  await page.goto('/library');
  await expect(list(page).getByRole('listitem')).toHaveCount(3);
  await close();
});

test('the board changes states by dragging, the table is ordered by its heads, the calendar shows today', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Viewer');
  await keepAll(page, PAGES);
  await page.getByRole('button', { name: 'Board' }).click();
  const column = (name: string) => page.getByRole('region', { name, exact: true });
  await expect(column('To read').getByRole('listitem')).toHaveCount(3);
  const from = (await page
    .getByRole('button', { name: 'Move Five Drawings of a Creek to another state' })
    .boundingBox())!;
  const to = (await column('Reading').boundingBox())!;
  await page.mouse.move(from.x + 3, from.y + 8);
  await page.mouse.down();
  for (let n = 1; n <= 8; n++) await page.mouse.move(from.x + ((to.x + 90 - from.x) * n) / 8, from.y + 8 + 4 * n);
  await page.mouse.up();
  await expect(column('Reading').getByRole('listitem')).toHaveText(/Five Drawings/);
  await expectSeen(page.getByRole('button', { name: 'Reading 1' }));

  await page.getByRole('button', { name: 'Table' }).click();
  const cells = page.getByRole('table', { name: 'Sources' }).locator('[data-row]');
  await page
    .getByRole('columnheader', { name: /^Title/ })
    .getByRole('button')
    .click();
  await expect(cells).toHaveText([
    'Five Drawings of a Creek',
    'The Marsh That Walks Inland',
    'Who pays for high water?',
  ]);
  const edge = page.getByRole('separator', { name: 'Width of Title' });
  await edge.focus();
  await page.keyboard.press('ArrowRight');
  await expect(edge).toHaveAttribute('aria-valuenow', '260');
  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Language' }).click();
  await page.keyboard.press('Escape');
  await expectSeen(page.getByRole('columnheader', { name: /^Language/ }));

  // What is known is corrected where it stands, from cell to cell; what cannot hold stays to be mended.
  await cells.first().focus();
  await page.keyboard.press('F2');
  await page.keyboard.type('Six Drawings of a Creek');
  await page.keyboard.press('Tab');
  await expect(page.getByLabel(/^Author of/)).toBeFocused();
  await page.keyboard.type('Wick Averil');
  await page.keyboard.press('Enter');
  await expect(cells.last()).toHaveText('Who pays for high water?');
  const row = page.getByRole('row', { name: /Six Drawings of a Creek/ });
  await expect(row).toContainText('Wick Averil');
  await expect(row.locator('[data-row]')).toBeFocused();
  await row.getByRole('cell').nth(-2).dblclick();
  await page.getByLabel(/^Language of/).fill('neither one nor other');
  await page.keyboard.press('Enter');
  await expectSeen(page.getByText('A language is written as in en, el or pt-BR').first());
  await expect(page.getByLabel(/^Language of/)).toHaveValue('neither one nor other');
  await page.keyboard.press('Escape');
  await page.getByRole('checkbox', { name: 'Choose Six Drawings of a Creek' }).check();
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('region', { name: 'The chosen sources' })
      .getByRole('button', { name: 'Export' })
      .click()
      .then(() => page.getByRole('menuitem', { name: 'Study notes, a file each (zip)' }).click()),
  ]);
  expect(saved.suggestedFilename()).toBe('study-notes.zip');
  await page.getByRole('button', { name: 'Choose none' }).click();

  await page.getByRole('button', { name: 'Calendar' }).click();
  await expect(page.getByRole('region', { name: 'Calendar' }).getByRole('link')).toHaveCount(3);
  await close();
});

test('a collection has sections and an order of its own, moved by keys; two people who order it at once see what stands', async ({
  browser,
}) => {
  const aldous = await visit(browser, 'aldous');
  const ines = await visit(browser, 'ines');
  for (const { page } of [aldous, ines]) {
    await page.getByRole('link', { name: /Field course, week by week/ }).click();
    await expectSeen(page.getByRole('heading', { name: 'Field course, week by week' }));
  }
  const order = (page: Page): Promise<string[]> =>
    page.getByRole('list', { name: 'Sources' }).getByRole('link').allTextContents();
  const before = await order(ines.page);
  await ines.page.getByRole('button', { name: `Move ${before[1]}` }).focus();
  await ines.page.keyboard.press('Space');
  const over = ines.page.getByText(/ would stand at place /);
  await expect(over).toBeAttached();
  const itself = await over.textContent();
  await ines.page.keyboard.press('ArrowUp');
  await expect(over).not.toHaveText(itself!);
  await ines.page.keyboard.press('Space');
  const after = [before[1], before[0], ...before.slice(2)];
  await expect.poll(() => order(ines.page)).toEqual(after);
  // The other hears of it without reloading.
  await expect.poll(() => order(aldous.page)).toEqual(after);
  await aldous.page.getByRole('button', { name: 'New section' }).click();
  await aldous.page.getByLabel('Name of the section').last().fill('Left over');
  await aldous.page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect
    .poll(() =>
      ines.page
        .getByLabel('Name of the section')
        .evaluateAll((inputs) => inputs.map((i) => (i as HTMLInputElement).value)),
    )
    .toContain('Left over');
  await aldous.page.getByRole('button', { name: 'remove section' }).last().click();
  await expect.poll(() => ines.page.getByLabel('Name of the section').count()).toBe(3);
  await Promise.all([aldous.close(), ines.close()]);
});

test('what is new is worked through by single keys, and every step can be taken back', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Worker');
  await keepAll(page, PAGES);
  await page.getByRole('button', { name: /Work through what is to read: 3/ }).click();
  const now = page.getByRole('article');
  await expect(now).toContainText('Five Drawings of a Creek');
  await page.keyboard.press('t');
  await page.getByLabel('Tags to add').fill('fieldwork');
  await page.keyboard.press('Enter');
  await expect(now).toContainText('#fieldwork');
  await page.keyboard.press('s');
  await expect(now).toContainText('Who pays for high water?');
  await expectSeen(page.getByText('2 left'));
  await page.keyboard.press('k');
  await page.keyboard.press('r');
  await expectSeen(page.getByText('All 3 looked at.'));
  await page.keyboard.press('u');
  await expect(now).toContainText('The Marsh That Walks Inland');
  // What is taken back has to have reached the server before the window is loaded anew.
  await expect
    .poll(async () => ((await (await page.request.get('/api/sources?q=is:to-read')).json()) as { total: number }).total)
    .toBe(2);
  await page.goto('/library');
  for (const state of ['To read 2', 'Set aside 1', '#fieldwork 1'])
    await expectSeen(page.getByRole('button', { name: state }));
  await close();
});

test('marks of all sources are listed, grouped, changed together, and open in their place', async ({ browser }) => {
  const { page, close } = await visit(browser, 'ines', '/find');
  await page.getByLabel('What is looked for').fill('is:mine has:note -is:unplaced kind:doubt');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: /^Marks and notes [1-9]/ })).toHaveAttribute('aria-selected', 'true');
  await page.getByRole('button', { name: /one list/ }).click();
  await page.getByRole('menuitem', { name: 'by source' }).click();
  await expectSeen(page.getByRole('heading', { level: 2 }).first());
  await page.getByRole('checkbox').first().check();
  const bar = page.getByRole('region', { name: 'The chosen marks' });
  await bar.getByRole('button', { name: 'Tags' }).click();
  await page.getByLabel('Tags to add').fill('gathered');
  await page.keyboard.press('Enter');
  await page.getByLabel('What is looked for').fill('tag:gathered');
  await page.keyboard.press('Enter');
  await expectSeen(page.getByRole('tab', { name: 'Marks and notes 1' }));
  await page.getByRole('tabpanel').getByRole('link').first().click();
  await opened(page);
  await expect.poll(async () => (await painted(page))['avrelle-open']?.length).toBe(1);
  await page.getByRole('link', { name: /Find: tag:gathered/ }).click();
  await page.getByRole('checkbox').first().check();
  await page.getByRole('button', { name: 'Choose none' }).click();
  await expect(page.getByRole('region', { name: 'The chosen marks' })).toHaveCount(0);
  await close();
});

test('hundreds of marks are listed to the last of them, part by part', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Plenty');
  await keepAll(page, PAGES.slice(0, 1));
  const {
    sources: [source],
  } = (await (await page.request.get('/api/sources')).json()) as SourcePage;
  const { versionId } = (await (await page.request.get(`/api/sources/${source!.id}`)).json()) as SourceDetail;
  const { text, outline } = (await (await page.request.get(`/api/sources/${source!.id}/text`)).json()) as SourceText;
  const index = indexText(text, outline);
  for (let n = 0; n < 150; n++)
    expect(
      (
        await page.request.put(`/api/annotations/${v7()}`, {
          data: {
            sourceId: source!.id,
            versionId,
            kind: 'claim',
            note: `Note ${n}`,
            tags: [],
            anchor: describe(index, range(n * 7, n * 7 + 20)),
            classIds: [],
          },
        })
      ).status(),
    ).toBe(200);
  await page.goto('/find');
  const marks = page.getByRole('tabpanel').getByRole('listitem');
  await expect(page.getByText('60 of 150')).toBeAttached();
  await marks.nth(59).scrollIntoViewIfNeeded();
  await expect
    .poll(async () => {
      await marks.last().scrollIntoViewIfNeeded();
      return marks.count();
    })
    .toBe(150);
  await expect(marks.last()).toContainText('Note 0');
  await page.getByRole('button', { name: 'Choose all of mine here' }).click();
  await expectSeen(page.getByText('150 marks chosen'));
  await close();
});

test('a source is put on its shelf while it is read: state, collection, tags; a ribbon given to a tag is seen wherever it stands', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Shelver');
  await keepAll(page, PAGES.slice(0, 1));
  await page.getByRole('button', { name: 'New collection' }).click();
  await page.getByLabel('Name').fill('For the essay');
  await page.getByRole('button', { name: 'Save' }).click();
  await expectSeen(page.getByRole('heading', { name: 'For the essay' }));
  await page.getByRole('link', { name: 'Library', exact: true }).first().click();
  await list(page).getByRole('link').first().click();
  await opened(page);
  const shelf = page.getByRole('button', { name: 'Organise' });
  await shelf.click();
  await page.getByRole('menuitem', { name: 'Finished' }).click();
  await shelf.click();
  await expect(page.getByRole('menuitem', { name: 'Finished' })).toContainText('✓');
  await page.getByRole('menuitem', { name: 'Put into' }).press('ArrowRight');
  await page.getByRole('menuitemcheckbox', { name: 'For the essay' }).press('Enter');
  await expectSeen(page.getByText('put into For the essay').first());
  await shelf.click();
  await page.getByRole('menuitem', { name: 'Put into' }).press('ArrowRight');
  await expect(page.getByRole('menuitemcheckbox', { name: 'For the essay' })).toBeChecked();
  await page.keyboard.press('Escape');
  await shelf.click();
  await page.getByRole('menuitem', { name: 'About it, tags…' }).click();
  await page.getByLabel('Tags', { exact: true }).fill('#essay/opening');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.goto('/library?q=in:%22For+the+essay%22+is:finished');
  await page.getByRole('button', { name: 'Change the tag essay/opening' }).click();
  await page.getByText('heather', { exact: true }).click();
  await expect(page.getByRole('radio', { name: 'heather' })).toBeChecked();
  await page.getByRole('button', { name: 'Cancel' }).click();
  for (const tag of await page.getByText('#essay/opening', { exact: true }).all())
    expect(await tag.evaluate((e) => getComputedStyle(e).borderLeftWidth)).toBe('3px');
  await close();
});

test('a tag is renamed onto another, which is told before', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Tagger');
  await keepAll(page, PAGES);
  const { sources } = (await (await page.request.get('/api/sources?sort=title')).json()) as {
    sources: { id: string }[];
  };
  for (const [n, tags] of [['wet', 'mud'], ['wet'], ['mud']].entries())
    await page.request.put(`/api/sources/${sources[n]!.id}/tags`, { data: { tags } });
  await page.reload();
  await page.getByRole('button', { name: 'Change the tag wet' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('mud');
  await expect(page.getByRole('status').filter({ hasText: 'on 2 sources' })).toContainText(
    '#mud is in use: two become one there',
  );
  await page.getByRole('dialog').getByRole('textbox').press('Enter');
  await page.getByRole('button', { name: 'Make them one' }).click();
  await expectSeen(page.getByRole('button', { name: '#mud 3' }));
  await expect(page.getByRole('button', { name: /^#wet/ })).toHaveCount(0);
  await close();
});
