import { expect, test, type Page } from '@playwright/test';
import type { StudyNote, StudyNoteRow } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { expectSeen, newcomer } from './helpers';
import { keepMarked } from './study';

const words = (page: Page) => page.getByRole('textbox', { name: 'The note', exact: true });
const excerpt = (page: Page, quote: string) => page.locator('.excerpt').filter({ hasText: quote });
const beside = (page: Page) => page.getByRole('complementary', { name: 'Beside the note' });
const saved = (page: Page) => expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible();
const notesOf = async (page: Page): Promise<StudyNoteRow[]> =>
  (await (await page.request.get('/api/notes')).json()) as StudyNoteRow[];
const noteNamed = async (page: Page, title: string): Promise<StudyNote> => {
  const { id } = (await notesOf(page)).find((note) => note.title === title)!;
  return (await (await page.request.get(`/api/notes/${id}`)).json()) as StudyNote;
};

test('the note of a source fills itself, is written in, follows what is marked, and is never written over', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Filler');
  const { sourceId, mark } = await keepMarked(page, 'Marsh', ['The tide turns at seven', 'Nobody sees it turn']);
  await page.goto('/notes');
  await page.getByRole('link', { name: 'Marsh 2 excerpts' }).click();
  await expectSeen(excerpt(page, 'The tide turns at seven'));
  await words(page).locator('p').last().click();
  await page.keyboard.type('My own words about it.');
  await saved(page);
  // It is marked in another window meanwhile: what is typed stays where it is typed.
  const [other] = [await page.context().newPage()];
  await other.goto(`/source/${sourceId}/note`);
  await expectSeen(excerpt(other, 'Nobody sees it turn'));
  await page.keyboard.type(' And more');
  await mark('The pegs rose by 96 mm');
  await expectSeen(excerpt(page, 'The pegs rose by 96 mm'));
  await page.keyboard.type(' of them.');
  await expectSeen(words(page).getByText('My own words about it. And more of them.', { exact: true }));
  await expectSeen(words(other).getByText('My own words about it. And more of them.', { exact: true }));
  // In order of place, before what was written.
  const { markdown } = await noteNamed(page, 'Marsh');
  const places = ['The tide turns', 'The pegs rose', 'Nobody sees', 'My own words'].map((w) => markdown.indexOf(w));
  expect(places).toEqual([...places].sort((a, b) => a - b));
  // What is taken out stays out, and can be put in again.
  await excerpt(page, 'The pegs rose').click();
  await page.getByRole('dialog', { name: 'The excerpt' }).getByRole('button', { name: 'Remove' }).click();
  await expect(excerpt(page, 'The pegs rose')).toHaveCount(0);
  await saved(page);
  await page.reload();
  await expectSeen(excerpt(page, 'Nobody sees it turn'));
  await expect(excerpt(page, 'The pegs rose')).toHaveCount(0);
  await expectSeen(beside(page).getByText('The pegs rose by 96 mm'));
  await excerpt(page, 'Nobody sees').getByRole('link').click();
  await expect(page).toHaveURL(new RegExp(`/source/${sourceId}\\?at=`));
  await close();
});

test('a note of one’s own takes passages by hand, by pointer and from the reading view, each once', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Essayist');
  const { sourceId, ids } = await keepMarked(page, 'Reckoning', ['The tide turns at seven', 'The pegs rose by 96 mm']);
  await page.goto('/notes');
  await page.getByRole('main').getByRole('button', { name: 'Begin a note' }).click();
  await expect(page.getByRole('textbox', { name: 'Name of the note' })).toBeFocused();
  await page.keyboard.type('For the essay');
  await page.keyboard.press('Enter');
  await words(page).click();
  await page.keyboard.type('It begins.');
  await beside(page).getByRole('button', { name: 'Put here: The pegs rose by 96 mm' }).click();
  await page.keyboard.type('It goes on.');
  await beside(page)
    .getByText('The tide turns at seven')
    .dragTo(words(page).getByText('It begins.'), {
      targetPosition: { x: 20, y: 2 },
    });
  await expect(page.locator('.excerpt')).toHaveCount(2);
  await expectSeen(beside(page).getByText('Everything you marked stands in it.'));
  await saved(page);
  const order = async (): Promise<string[]> =>
    [...(await noteNamed(page, 'For the essay')).markdown.matchAll(/annotation\/([0-9a-f-]+)/g)].map(([, id]) => id!);
  expect(await order()).toEqual([ids[0], ids[1]]);
  // By keys alone: chosen, and moved behind its neighbour.
  await excerpt(page, 'The tide turns').click();
  for (let n = 0; n < 3; n++) await page.keyboard.press('Alt+ArrowDown');
  await expect.poll(order).toEqual([ids[1], ids[0]]);
  // Brought again, it is where it was.
  await page.goto(`/source/${sourceId}?at=${ids[0]}`);
  await page.getByRole('button', { name: 'Put in a note' }).click();
  await page.getByRole('menuitem', { name: 'For the essay' }).click();
  await expectSeen(page.getByText('It stands in “For the essay” already.', { exact: true }).first());
  await page.getByRole('button', { name: 'Open the note' }).click();
  await expect(page.locator('.excerpt')).toHaveCount(2);
  // Shortened, it says that words are missing, and no longer changes by itself.
  await excerpt(page, 'The pegs rose').click();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Shorten…' })).toBeFocused();
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Shorten the excerpt' });
  await dialog.getByRole('textbox').evaluate((field: HTMLTextAreaElement) => field.setSelectionRange(9, 14));
  await dialog.getByRole('button', { name: 'Leave these out' }).click();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expectSeen(excerpt(page, 'The pegs […] by 96 mm'));
  await saved(page);
  await close();
});

test('what is typed without a connection is not lost when the window goes; a deleted note comes back', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Offline');
  await page.request.put(`/api/notes/${v7()}`, {
    data: { title: 'On the bus', markdown: 'Before the bus.' },
  });
  await page.goto('/notes');
  await page.getByRole('link', { name: /^On the bus/ }).click();
  await words(page).locator('p').last().click();
  await page.keyboard.press('End');
  await page.context().setOffline(true);
  await page.keyboard.type(' On it.');
  await expectSeen(page.getByText(/No connection just now/));
  await page.context().setOffline(false);
  await page.route('**/api/notes/*', (route) =>
    route.request().method() === 'PATCH' ? route.abort() : route.continue(),
  );
  await page.keyboard.type(' And on.');
  await expect.poll(() => page.evaluate(() => JSON.stringify(localStorage))).toContain('And on.');
  await page.unroute('**/api/notes/*');
  await page.reload();
  await expectSeen(words(page).getByText('Before the bus. On it. And on.', { exact: true }));
  await expect.poll(async () => (await noteNamed(page, 'On the bus')).markdown).toBe('Before the bus. On it. And on.');
  await page.getByRole('button', { name: 'More of this note' }).click();
  await page.getByRole('menuitem', { name: 'Delete this note' }).click();
  await expectSeen(page.getByText('“On the bus” is deleted.', { exact: true }).first());
  expect(await notesOf(page)).toEqual([]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expectSeen(words(page).getByText('Before the bus. On it. And on.', { exact: true }));
  await close();
});
