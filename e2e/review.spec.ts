import { expect, test, type Page } from '@playwright/test';
import type { CardPage, Review, ReviewCard } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { expectSeen, newcomer } from './helpers';
import { keepMarked } from './study';

const review = async (page: Page): Promise<Review> => (await (await page.request.get('/api/review')).json()) as Review;
const cards = async (page: Page): Promise<CardPage> =>
  (await (await page.request.get('/api/cards')).json()) as CardPage;
const card = async (page: Page, id: string): Promise<ReviewCard> =>
  (await (await page.request.get(`/api/cards/${id}`)).json()) as ReviewCard;
const question = (page: Page, words: string) => page.getByRole('heading', { name: words, exact: true });
const slips = (page: Page) => page.locator('.slip');
const make = async (page: Page, body: object): Promise<string> => {
  const id = v7();
  expect((await page.request.put(`/api/cards/${id}`, { data: body })).status()).toBe(200);
  return id;
};

test('a card is made beside the text, practised with the arrow keys, taken back, and leads to its place', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Learner');
  const { sourceId, ids } = await keepMarked(page, 'Marsh to know', ['The pegs rose by 96 mm', 'Nobody sees it turn']);
  await page.goto(`/source/${sourceId}?at=${ids[0]}`);
  await expectSeen(page.getByRole('button', { name: 'Make a card' }));
  // By one key, with words under two slips.
  await page.keyboard.press('c');
  const dialog = page.getByRole('dialog', { name: 'Make a card' });
  await expect(dialog.getByLabel('Question')).toBeFocused();
  await page.keyboard.type('How much did they rise?');
  await page.keyboard.press('Tab');
  await page.keyboard.press('ArrowRight');
  await expect(dialog.getByRole('button', { name: 'pegs' })).toBeFocused();
  for (const word of ['96', 'mm', 'years']) await dialog.getByRole('button', { name: word, exact: true }).click();
  await dialog.getByLabel('Answer').fill('About 3.2 a year.');
  await dialog.getByRole('button', { name: 'Make the card' }).click();
  await expect(dialog).toHaveCount(0);
  await make(page, { annotationId: ids[1], question: 'Who sees it turn?' });
  // Its place in the head says how many there are.
  await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Review' }).click();
  await expectSeen(question(page, 'How much did they rise?'));
  await expect(page.getByText('1 of its 2 cards')).toBeVisible();
  await expect(slips(page)).toHaveCount(2);
  await expect(page.getByText('About 3.2 a year.')).toHaveCount(0);
  // An answer counts only once the slip is lifted.
  await page.keyboard.press('ArrowRight');
  await expectSeen(page.getByText('About 3.2 a year.'));
  await expectSeen(page.getByText('Comes back in 10 minutes'));
  await page.keyboard.press('ArrowUp');
  await expectSeen(question(page, 'Who sees it turn?'));
  const [first] = (await cards(page)).cards.filter((one) => one.question.startsWith('How'));
  await expect.poll(async () => (await card(page, first!.id)).seen).toBe(1);
  await page.keyboard.press('Control+z');
  await expectSeen(question(page, 'How much did they rise?'));
  await expectSeen(page.getByText('About 3.2 a year.'));
  await expect.poll(async () => (await card(page, first!.id)).seen).toBe(0);
  await page.getByRole('button', { name: 'Without thinking' }).click();
  await expectSeen(question(page, 'Who sees it turn?'));
  // Space presses the button it is on.
  await page.getByRole('button', { name: 'Edit' }).focus();
  await page.keyboard.press('Space');
  await expectSeen(page.getByRole('dialog', { name: 'Edit the card' }));
  await page.keyboard.press('Escape');
  await expect(slips(page)).toHaveCount(1);
  await page.getByRole('button', { name: 'Open the page here' }).click();
  await expect(page).toHaveURL(new RegExp(`/source/${sourceId}\\?at=${ids[1]}`));
  await close();
});

test('answers given without a connection are kept over a reload, and stored once; two windows answer a card once', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Absent');
  const [why, whence] = [
    await make(page, { question: 'Why?', answer: 'Mud.' }),
    await make(page, { question: 'Whence?', answer: 'Sea.' }),
  ];
  await page.goto('/review');
  await expectSeen(question(page, 'Why?'));
  const answers = /\/api\/cards\/.*\/answers\//;
  await page.route(answers, (route) => route.abort());
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowUp');
  await expectSeen(question(page, 'Whence?'));
  await expectSeen(page.getByText('Not stored yet: 1 answer, kept on this computer'));
  expect((await card(page, why)).seen).toBe(0);
  await page.unroute(answers);
  await page.reload();
  await expect.poll(async () => (await card(page, why)).seen).toBe(1);
  // Another window shows the same card; who answers it later has answered nothing.
  const other = await page.context().newPage();
  await other.goto('/review');
  await expectSeen(question(other, 'Whence?'));
  await expectSeen(question(page, 'Whence?'));
  await other.route('**/api/events**', (route) => route.abort());
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowUp');
  await expectSeen(page.getByRole('heading', { name: 'Nothing more for now' }));
  await expect.poll(async () => (await card(page, whence)).seen).toBe(1);
  const { due } = await card(page, whence);
  await other.keyboard.press('Space');
  await other.keyboard.press('ArrowLeft');
  await expectSeen(other.getByRole('heading', { name: 'Nothing more for now' }));
  expect(await card(page, whence)).toMatchObject({ seen: 1, due });
  await close();
});

test('cards come in from a table, are chosen, changed, put to rest and woken, and leave as a table', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Collector');
  await page.goto('/review');
  await expectSeen(page.getByRole('heading', { name: 'No cards yet' }));
  await page.getByRole('link', { name: 'All cards' }).click();
  const table = { name: 'words.csv', mimeType: 'text/csv' };
  const bring = (words: string) =>
    page.getByLabel('A table of cards').setInputFiles({ ...table, buffer: Buffer.from(words) });
  await bring('front,back\nx,y');
  await expectSeen(page.getByText('question and answer').first());
  await bring('question,answer\nWhat is a pan?,A bare hollow\nWhat is a creek?,A channel\n,nothing\n');
  await expectSeen(page.getByRole('cell', { name: 'What is a pan?', exact: true }));
  await expectSeen(page.getByText('1 line left out. Line 4').first());
  const row = page.getByRole('row', { name: /What is a creek/ });
  await row.getByRole('button', { name: 'Let it rest' }).click();
  await expectSeen(row.getByText('rests'));
  expect((await review(page)).due).toBe(1);
  await row.getByRole('button', { name: 'Wake it' }).click();
  await expect.poll(async () => (await review(page)).due).toBe(2);
  await page.getByRole('button', { name: 'What is a pan?', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Edit the card' });
  await dialog.getByLabel('Answer').fill('');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expectSeen(dialog.getByText('Write the answer.'));
  await dialog.getByLabel('Answer').fill('A hollow where water stays.');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toHaveCount(0);
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export as CSV' }).click(),
  ]);
  expect(saved.suggestedFilename()).toBe('cards.csv');
  expect(await (await page.request.get('/api/cards.csv')).text()).toContain('A hollow where water stays.');
  // No more new ones a day than one wants.
  await page.getByRole('link', { name: 'Review', exact: true }).first().click();
  await page.getByRole('button', { name: 'Choose what to review' }).click();
  await page.getByLabel('New cards a day').fill('1');
  await page.getByLabel('Of a hundred cards').fill('20');
  await page.getByRole('button', { name: 'Review these' }).click();
  await expectSeen(page.getByText('Between 70 and 97', { exact: false }));
  await page.getByLabel('Of a hundred cards').fill('85');
  await page.getByRole('button', { name: 'Review these' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowUp');
  await expectSeen(page.getByText('1 more card would be due'));
  await close();
});
