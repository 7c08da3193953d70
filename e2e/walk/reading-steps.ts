import type { Locator, Page } from '@playwright/test';
import { drag, selectedText } from '../helpers';
import { marksOf, stateOf, until, type Outcome, type Step, type Walker } from './walker';

/** As it stands in one piece on the page; there are more of them than marks in a walk. */
function phraseOf({ shared, random }: Walker): string {
  const sentences = shared.text.match(/[A-Z][^.\n“”‘’]{30,160}\./g) ?? [];
  const words = sentences[Math.floor(random() * sentences.length)]!.split(' ');
  const from = Math.floor(random() * Math.max(1, words.length - 4));
  return words.slice(from, from + 2 + Math.floor(random() * 4)).join(' ');
}

/** Nothing is open, nothing is selected. */
async function lettingGo(page: Page): Promise<void> {
  await page
    .locator('h1')
    .first()
    .click({ trial: true })
    .catch(() => undefined);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await until(
    'no note is open',
    async () => (await page.getByRole('button', { name: 'End of the mark' }).count()) === 0,
  );
}

/** Selects a phrase with the pointer; undefined where it stands in several pieces. */
async function selecting(walker: Walker): Promise<string | undefined> {
  const { page } = walker;
  await lettingGo(page);
  // What is marked already would be given another kind.
  const marked = new Set((await marksOf(walker)).map((a) => a.anchor?.quote.exact));
  for (let tries = 0; tries < 5; tries++) {
    const words = phraseOf(walker);
    if (marked.has(words)) continue;
    const dragged = await drag(page, words, { leaves: true }).then(
      () => true,
      () => false,
    );
    if (!dragged) continue;
    const chosen = await until('words are selected', async () => (await selectedText(page)) !== '', 3_000).then(
      () => true,
      () => false,
    );
    if (chosen) return words;
  }
  return undefined;
}

const cards = (page: Page): Locator => page.getByRole('article');
const undo = (page: Page) => async (): Promise<void> => {
  // Where keys mean commands.
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Control+z');
};

/** A card of one's own, opened; undefined where there is none. */
async function ownCard(walker: Walker): Promise<Locator | undefined> {
  const { page } = walker;
  const marks = (await marksOf(walker)).filter((a) => a.rootId === null);
  if (marks.length === 0) return undefined;
  await lettingGo(page);
  const { id } = walker.pick(marks);
  const card = page.locator(`[data-annotation="${id}"]`);
  if ((await card.count()) === 0) return undefined;
  const head = card.getByRole('button').first();
  await head.scrollIntoViewIfNeeded();
  if ((await head.getAttribute('aria-expanded')) !== 'true') await head.click();
  await until('the note is open', async () => (await card.getByRole('button', { name: 'Delete' }).count()) > 0);
  return card;
}

/** Once it is stored it can be undone; it may have been so before. */
const changed = (walker: Walker, before: string): Promise<Outcome> =>
  until('something is changed', async () => (await stateOf(walker)) !== before, 3_000).then(
    () => ({ undo: undo(walker.page) }),
    () => ({}),
  );

const stored = (walker: Walker, words: string): Promise<void> =>
  until(`“${words}” is stored`, async () => (await marksOf(walker)).some((a) => a.note.includes(words)));

export const READING_STEPS: readonly Step[] = [
  {
    name: 'mark words',
    weight: 5,
    run: async (walker) => {
      const before = (await marksOf(walker)).length;
      if (!(await selecting(walker))) return undefined;
      await walker.page.keyboard.press(walker.pick(['1', '2', '3', '4', '5', '6']));
      await until('the mark is stored', async () => (await marksOf(walker)).length === before + 1);
      return { undo: undo(walker.page) };
    },
  },
  {
    name: 'write a note',
    weight: 5,
    run: async (walker) => {
      if (!(await selecting(walker))) return undefined;
      const words = walker.word();
      await walker.page.keyboard.type(`${words} in the margin${walker.random() < 0.4 ? ' #mud' : ''}`);
      await walker.page.keyboard.press('Control+Enter');
      await stored(walker, words);
      return { typed: words, undo: undo(walker.page) };
    },
  },
  {
    name: 'leave a note half-written',
    weight: 2,
    run: async (walker) => {
      if (!(await selecting(walker))) return undefined;
      const words = walker.word();
      await walker.page.keyboard.type(`${words} is not finished`);
      await walker.page.keyboard.press('Escape');
      return { typed: words };
    },
  },
  {
    name: 'change a note',
    weight: 3,
    run: async (walker) => {
      const card = await ownCard(walker);
      if (!card) return undefined;
      await card.getByRole('button', { name: /^(Edit|Write)$/ }).click();
      const words = walker.word();
      await card.getByRole('textbox', { name: 'Note', exact: true }).click();
      await walker.page.keyboard.press('Control+End');
      await walker.page.keyboard.type(` ${words}`);
      await walker.page.keyboard.press('Control+Enter');
      await stored(walker, words);
      return { typed: words, undo: undo(walker.page) };
    },
  },
  {
    name: 'give a mark another kind',
    weight: 2,
    run: async (walker) => {
      const before = await stateOf(walker);
      const card = await ownCard(walker);
      if (!card) return undefined;
      await card.getByRole('button', { name: 'Kind' }).click();
      await walker.page
        .getByRole('menuitem')
        .nth(Math.floor(walker.random() * 6))
        .click();
      return changed(walker, before);
    },
  },
  {
    name: 'show a mark to the class, or no more',
    weight: 2,
    run: async (walker) => {
      const before = await stateOf(walker);
      const card = await ownCard(walker);
      if (!card) return undefined;
      await card.getByRole('button', { name: /^Seen by/ }).click();
      await walker.page.getByRole('menuitemcheckbox').first().click();
      await walker.page.keyboard.press('Escape');
      await until('the menu is closed', async () => (await walker.page.getByRole('menu').count()) === 0);
      return changed(walker, before);
    },
  },
  {
    name: 'delete a mark',
    weight: 2,
    run: async (walker) => {
      const before = (await marksOf(walker)).length;
      const card = await ownCard(walker);
      if (!card) return undefined;
      await card.getByRole('button', { name: 'Delete' }).first().click();
      await until('it is gone', async () => (await marksOf(walker)).length < before);
      return { undo: undo(walker.page) };
    },
  },
  {
    name: 'answer somebody',
    weight: 2,
    run: async (walker) => {
      const { page } = walker;
      const theirs = cards(page).filter({ hasNot: page.getByRole('button', { name: 'Delete' }) });
      await lettingGo(page);
      if ((await theirs.count()) === 0) return undefined;
      const head = theirs.first().getByRole('button').first();
      await head.click();
      const field = page.getByRole('textbox', { name: 'Reply' });
      if (
        !(await field
          .first()
          .isVisible()
          .catch(() => false))
      )
        return undefined;
      const words = walker.word();
      await field.first().fill(`${words}, I should think`);
      await field.first().press('Control+Enter');
      await stored(walker, words);
      return { typed: words };
    },
  },
  {
    name: 'undo and redo',
    weight: 2,
    run: async (walker) => {
      const { page } = walker;
      const before = await stateOf(walker);
      await lettingGo(page);
      // With nothing to undo there is nothing to redo either, unless something was undone before: that is done again.
      const said = async (): Promise<number> => page.getByText(/^(Undone|There is nothing to undo)/).count();
      await page.keyboard.press('Control+z');
      await until('it says what was undone', async () => (await said()) > 0);
      if ((await stateOf(walker)) === before) return {};
      await page.keyboard.press('Control+Shift+z');
      await until('undone and redone it is as before', async () => (await stateOf(walker)) === before);
      return {};
    },
  },
  {
    name: 'show some marks, then all',
    weight: 1,
    run: async (walker) => {
      const show = walker.page.getByRole('group', { name: 'Show marks' });
      const button = (name: string) => show.getByRole('button', { name, exact: true });
      await button(walker.pick(['none', 'mine'])).click();
      await button('all').click();
      return {};
    },
  },
  {
    name: 'look at the whole page, or the main text',
    weight: 1,
    run: async ({ page }) => {
      await lettingGo(page);
      await page.getByRole('button', { name: /^(Whole page|Main text)$/ }).click();
      return {};
    },
  },
  {
    name: 'find words in it',
    weight: 1,
    run: async ({ page }) => {
      await lettingGo(page);
      await page.keyboard.press('f');
      await page.keyboard.type('marsh');
      await page.keyboard.press('Enter');
      await page.keyboard.press('Escape');
      return {};
    },
  },
  {
    name: 'come back to it',
    weight: 1,
    run: async ({ page }) => {
      await page.reload();
      await until('the text is there', async () => (await page.frameLocator('iframe').locator('p').count()) > 0);
      return {};
    },
  },
  {
    name: 'go to the Library',
    weight: 3,
    run: async ({ page }) => {
      await page.goto('/library');
      return {};
    },
  },
];
