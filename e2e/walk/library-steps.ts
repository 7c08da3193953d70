import type { Page } from '@playwright/test';
import { ownTexts, sourcesOf, until, type Step, type Walker } from './walker';

const VIEWS = ['Detailed', 'Compact', 'Table', 'Board', 'Calendar'];
const SEARCHES = [
  '',
  'tide',
  'tag:mud',
  'is:to-read',
  'is:finished OR is:reading',
  'has:note -is:mine',
  'title:text (seven OR eight)',
];
const STATES = ['To read', 'Reading', 'Finished', 'Set aside'];

/** The way back that a message offers. */
const undoIn = (page: Page, words: RegExp) => async (): Promise<void> =>
  page.getByRole('listitem').filter({ hasText: words }).getByRole('button', { name: 'Undo' }).last().click();

/** All sources in a list, a row each. */
async function listed(page: Page): Promise<void> {
  await page.goto('/library?view=detailed');
  await until('sources are listed', async () => (await page.locator('[data-row]').count()) > 0);
}

async function chosenText(walker: Walker): Promise<string | undefined> {
  const texts = await ownTexts(walker);
  return texts.length > 0 ? walker.pick(texts).title : undefined;
}

/** Chooses one of the things in the menu of a row. */
async function inMenu(page: Page, title: string, item: string): Promise<void> {
  await page.getByRole('button', { name: `More for ${title}`, exact: true }).click();
  await page.getByRole('menuitem', { name: item }).click();
}

const dialogGone = (page: Page): Promise<void> =>
  until('the dialog is closed', async () => (await page.getByRole('dialog').count()) === 0);

export const LIBRARY_STEPS: readonly Step[] = [
  {
    name: 'search',
    weight: 3,
    run: async (walker) => {
      const field = walker.page.getByRole('combobox', { name: 'Search the Library' });
      await field.fill(walker.pick(SEARCHES));
      await field.press('Enter');
      return {};
    },
  },
  {
    name: 'see them in another way',
    weight: 3,
    run: async (walker) => {
      await walker.page.getByRole('button', { name: walker.pick(VIEWS), exact: true }).click();
      return {};
    },
  },
  {
    name: 'give a source another state',
    weight: 3,
    run: async (walker) => {
      await listed(walker.page);
      const { sources } = await sourcesOf(walker);
      const source = walker.pick(sources);
      const state = walker.pick(STATES);
      await inMenu(walker.page, source.title, state);
      const now = async () => (await sourcesOf(walker)).sources.find((s) => s.id === source.id)?.state;
      const wanted = state.toLowerCase().replace(' ', '_');
      await until(`it is ${wanted}`, async () => (await now()) === wanted);
      return source.state === wanted ? {} : { undo: undoIn(walker.page, new RegExp(`: ${state.toLowerCase()}\\.`)) };
    },
  },
  {
    name: 'tag several',
    weight: 3,
    run: async (walker) => {
      const { page } = walker;
      const tag = walker.word();
      await listed(page);
      const boxes = page.getByRole('checkbox', { name: /^Choose / });
      if ((await sourcesOf(walker)).total < 2) return undefined;
      for (const n of [0, 1]) await boxes.nth(n).check({ force: true });
      const bar = page.getByRole('region', { name: 'The chosen sources' });
      await bar.getByRole('button', { name: 'Tags' }).click();
      await page.getByLabel('Tags to add').fill(`#${tag}`);
      await page.keyboard.press('Enter');
      await until('both are tagged', async () => (await sourcesOf(walker, `tag:${tag}`)).total === 2);
      return { typed: tag, undo: undoIn(page, new RegExp(`tagged #${tag}`)) };
    },
  },
  {
    name: 'correct a title in the table',
    weight: 3,
    run: async (walker) => {
      const title = await chosenText(walker);
      if (!title) return undefined;
      const words = `text ${walker.word()}`;
      await walker.page.goto('/library?view=table');
      await walker.page.getByRole('row', { name: title }).locator('[data-row]').first().focus();
      await walker.page.keyboard.press('F2');
      await walker.page.keyboard.type(words);
      await walker.page.keyboard.press('Enter');
      await until('it is corrected', async () => (await sourcesOf(walker)).sources.some((s) => s.title === words));
      return { typed: words, undo: undoIn(walker.page, new RegExp(`“${words}” corrected`)) };
    },
  },
  {
    name: 'delete a text',
    weight: 2,
    run: async (walker) => {
      const title = await chosenText(walker);
      if (!title) return undefined;
      await listed(walker.page);
      await inMenu(walker.page, title, 'Delete');
      await until('it is gone', async () => !(await sourcesOf(walker)).sources.some((s) => s.title === title));
      return { undo: undoIn(walker.page, new RegExp(`“${title}” deleted`)) };
    },
  },
  {
    name: 'make a collection and put a source into it',
    weight: 2,
    run: async (walker) => {
      const { page } = walker;
      const name = walker.word();
      await listed(page);
      await page.getByRole('button', { name: 'New collection' }).click();
      await page.getByRole('dialog').getByLabel('Name').fill(name);
      await page.getByRole('button', { name: 'Save' }).click();
      await until('it is there', async () => page.getByRole('heading', { name }).isVisible());
      await listed(page);
      const { sources } = await sourcesOf(walker);
      const { title } = walker.pick(sources);
      await page.getByRole('button', { name: `More for ${title}`, exact: true }).click();
      await page.getByRole('menuitem', { name: 'Put into' }).press('ArrowRight');
      await page.getByRole('menuitem', { name, exact: true }).press('Enter');
      await until('it is in it', async () => (await sourcesOf(walker, `in:${name}`)).total === 1);
      return { typed: name };
    },
  },
  {
    name: 'write a remark',
    weight: 2,
    run: async (walker) => {
      const title = await chosenText(walker);
      if (!title) return undefined;
      const words = walker.word();
      await listed(walker.page);
      await inMenu(walker.page, title, 'About it');
      await walker.page.getByLabel('Remark, for yourself').fill(words);
      await walker.page.getByRole('button', { name: 'Save' }).click();
      await dialogGone(walker.page);
      return { typed: words };
    },
  },
  {
    name: 'keep a search',
    weight: 1,
    run: async (walker) => {
      const { page } = walker;
      const name = walker.word();
      await page.goto('/library?view=detailed&q=tide');
      await page.getByRole('button', { name: 'Save this search' }).click();
      await page.getByRole('dialog').getByLabel('Name').fill(name);
      await page.getByRole('button', { name: 'Save' }).click();
      await dialogGone(page);
      return { typed: name };
    },
  },
  {
    name: 'open what both read',
    weight: 6,
    run: async ({ page, shared }) => {
      await page.goto(`/source/${shared.sourceId}`);
      await until('the text is there', async () => (await page.frameLocator('iframe').locator('p').count()) > 0);
      return {};
    },
  },
];
