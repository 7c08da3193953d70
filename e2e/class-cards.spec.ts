import { expect, test, type Page } from '@playwright/test';
import type { ClassRow, Review } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { beyond, violations } from './accessible';
import { expectSeen, makeClass, newcomers, opened, painted } from './helpers';
import { keepMarked } from './study';

const get = async <T>(page: Page, path: string): Promise<T> => (await (await page.request.get(path)).json()) as T;
const send = async (page: Page, path: string, data?: object): Promise<void> => {
  const answer = await page.request.put(path, { data });
  expect(answer.status(), await answer.text()).toBeLessThan(300);
};

test('a teacher gives cards to a class, and sees how hard they are; a student learns from whom a card is', async ({
  browser,
}) => {
  const all = await newcomers(browser, 'Quay', 'Reed', 'Sedge', 'Tern');
  const [t, s, ...others] = all.map(({ page }) => page) as [Page, Page, Page, Page];
  await makeClass(t, 'Mud Cards', [s, ...others]);
  const id = (await get<ClassRow[]>(t, '/api/classes')).find(({ name }) => name === 'Mud Cards')!.id;
  const { sourceId, ids } = await keepMarked(t, 'Marsh for all', ['The pegs rose by 96 mm', 'Nobody sees it turn']);
  const make = (annotationId: string | undefined, question: string): Promise<void> =>
    send(t, `/api/cards/${v7()}`, { annotationId, question, answer: 'So they say.' });
  await make(ids[0], 'How much did they rise?');
  await make(ids[1], 'Who sees it turn?');

  await test.step('only of what the class reads; several at once', async () => {
    await t.goto(`/classes/${id}`);
    await t.getByRole('link', { name: 'Cards', exact: true }).click();
    await t.getByRole('button', { name: 'Give cards' }).click();
    const dialog = t.getByRole('dialog', { name: 'Give cards to Mud Cards' });
    await expectSeen(dialog.getByText('There is nothing more to give'));
    await t.keyboard.press('Escape');
    await send(t, `/api/classes/${id}/sources/${sourceId}`);
    await t.reload();
    await t.getByRole('button', { name: 'Give cards' }).click();
    await dialog.getByRole('button', { name: 'Give cards' }).click();
    await expectSeen(dialog.getByText('Choose at least one card.'));
    await dialog.getByRole('button', { name: 'Choose all' }).click();
    await dialog.getByLabel('Show me who answers how').check();
    expect(await violations(t, 'all', '[role=dialog]')).toEqual([]);
    await dialog.getByRole('button', { name: 'Give 2 cards' }).click();
    await expectSeen(
      t.getByRole('table', { name: 'Cards of Marsh for all' }).getByText('Who sees it turn?', { exact: true }),
    );
  });

  await test.step('it comes to the student at once, who cannot change it', async () => {
    await s.goto('/review');
    await expectSeen(s.getByRole('heading', { name: 'How much did they rise?' }));
    await expectSeen(s.getByText('from Quay Test for Mud Cards, whose teachers see how you answer'));
    await expect(s.getByRole('button', { name: 'Edit' })).toHaveCount(0);
    await s.keyboard.press('e');
    await s.keyboard.press('Space');
    await expectSeen(s.getByText('So they say.'));
    await expect(s.getByRole('dialog')).toHaveCount(0);
    await s.keyboard.press('ArrowLeft');
    await expectSeen(s.getByRole('heading', { name: 'Who sees it turn?' }));
    // The mark is its teacher's alone; the words are found all the same.
    await s.getByRole('button', { name: 'Open the page here' }).click();
    const text = await opened(s);
    await expectSeen(text.getByText('Nobody sees it turn'));
    await expect.poll(async () => (await painted(s))['avrelle-found']).toEqual(['Nobody sees it turn']);
  });

  await test.step('how it goes is told of three together; each by name, as was said', async () => {
    const row = t.getByRole('row', { name: /^How much did they rise/ });
    await expect(row).toContainText('fewer than 3');
    for (const page of others) {
      const { cards } = await get<Review>(page, '/api/review');
      for (const { id: card, seen } of cards)
        await send(page, `/api/cards/${card}/answers/${v7()}`, { rating: 'knew', seen });
    }
    await t.reload();
    await expect(row).toContainText('3 of 3');
    await expect(row).toContainText('33 % of 3');
    await expectSeen(t.getByRole('img', { name: /^Hardest along the text: “How much did they rise\?”/ }));
    await row.getByRole('button', { name: 'Who answered' }).click();
    const dialog = t.getByRole('dialog', { name: 'Who answered' });
    await expectSeen(dialog.getByRole('row', { name: /^Reed Test I did not know it, today .* 1 1$/ }));
    await t.keyboard.press('Escape');
    await t.setViewportSize({ width: 320, height: 640 });
    expect([await violations(t, 'all'), await beyond(t)]).toEqual([[], 0]);
    await t.setViewportSize({ width: 1280, height: 800 });
  });

  await test.step('taken back, it is gone from the student’s page; undone, it is there as it was', async () => {
    await s.goto('/review/cards');
    const theirs = s.getByRole('table', { name: 'Cards' }).getByRole('row', { name: /^Who sees it turn/ });
    await expectSeen(theirs);
    await t
      .getByRole('row', { name: /^Who sees it turn/ })
      .getByRole('button', { name: 'Take back' })
      .click();
    await expectSeen(t.getByRole('button', { name: 'Undo' }));
    await expect(theirs).toHaveCount(0);
    await t.getByRole('button', { name: 'Undo' }).click();
    await expectSeen(t.getByRole('row', { name: /^Who sees it turn/ }));
    await expectSeen(theirs);
  });
  for (const { close } of all) await close();
});
