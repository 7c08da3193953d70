import { expect, test } from '@playwright/test';
import type { ClassRow } from '@avrelle/core/wire';
import { ofApi, violations } from './accessible';
import { expectSeen, opened, visit } from './helpers';

const WIM = encodeURIComponent('by:wim "brass rods"');

test('a thread is found, opened with its passage and answered beside the list; who else looks at it sees that', async ({
  browser,
}) => {
  const [tomas, ines] = [await visit(browser, 'tomas', '/classes'), await visit(browser, 'ines', '/classes')];
  const [t, i] = [tomas.page, ines.page];
  const { id } = (await ofApi<ClassRow[]>(t, '/api/classes')).find((c) => c.name.endsWith('B'))!;
  const thread = (page: typeof t) => page.getByRole('region', { name: 'Threads' }).getByRole('listitem');

  await test.step('by keyboard: looked for, starred, opened', async () => {
    await t.goto(`/classes/${id}`);
    await t.getByRole('link', { name: 'Discussion' }).press('Enter');
    await t.getByLabel('What is looked for in the discussion').fill('by:wim "brass rods"');
    await expect(thread(t)).toHaveCount(1);
    await t.getByRole('button', { name: /^Star: Read no. 9/ }).press('Enter');
    await expect(t.getByRole('button', { name: /^Star: Read no. 9/ })).toHaveAttribute('aria-pressed', 'true');
    await t.getByRole('link', { name: /Wim S\./ }).press('Enter');
    await expect(t.getByRole('region', { name: 'Passage' })).toContainText('forty-eight brass rods');
  });

  await test.step('what was answered is told to who has the list open, as unread until they open it', async () => {
    await i.goto(`/classes/${id}/discussion?q=${WIM}`);
    await i.getByRole('button', { name: 'Count all as read' }).click();
    await expect(thread(i)).not.toContainText('unread');
    await t.getByLabel('Reply').fill('It stood dry in May.');
    await t.getByRole('button', { name: 'Reply' }).click();
    // It may be told before the field that it was written in is empty again.
    await expectSeen(t.getByRole('article').getByRole('paragraph').filter({ hasText: 'It stood dry in May.' }));
    await expect(thread(i)).toContainText('1 answer, 1 unread');
    await i.getByRole('link', { name: /Wim S\./ }).click();
    await expectSeen(i.getByRole('article').getByText('It stood dry in May.'));
    await expect(thread(i)).toContainText('1 answer');
    await expect(thread(i)).not.toContainText('unread');
  });

  await test.step('ordered and narrowed, as the address keeps it; into the text and back', async () => {
    await t.getByLabel('What is looked for in the discussion').fill('');
    await expectSeen(thread(t).nth(1));
    await t.getByLabel('Show').selectOption('with my star');
    await expect(thread(t)).toHaveCount(1);
    await t.reload();
    await expectSeen(thread(t).getByText('Read no. 9 last April.', { exact: false }));
    await t.getByLabel('Show').selectOption('without answers');
    await expect(thread(t).first()).not.toContainText('answer');
    await t.getByLabel('Show').selectOption('all');
    await t.getByLabel('Order by').selectOption('number of answers');
    await expect(thread(t).first()).toContainText(/[2-9] answers/);
    await t.getByRole('link', { name: 'Open in the text' }).click();
    await opened(t);
    await t.getByRole('link', { name: 'Discussion' }).click();
    await expectSeen(t.getByRole('article').getByText('It stood dry in May.'));
  });
  await test.step('reported, settled, recommended, hidden with a reason: seen at once, and the way back', async () => {
    const aldous = await visit(browser, 'aldous', `/classes/${id}/discussion?q=${WIM}`);
    const a = aldous.page;
    await a.getByRole('link', { name: /Wim S\./ }).click();
    await i.getByRole('button', { name: 'Report…' }).first().click();
    expect(await violations(i, 'all', '[role=dialog]')).toEqual([]);
    await i.getByLabel('What is wrong with it').fill('Who is meant?');
    await i.getByRole('button', { name: 'Report', exact: true }).click();
    await expectSeen(a.getByText('Who is meant?'));
    await a.getByRole('button', { name: 'Settled' }).click();
    await expect(a.getByText('Who is meant?')).toBeHidden();
    await a.getByRole('button', { name: 'Recommend' }).first().click();
    await expect(thread(i)).toContainText('recommended');
    await a.getByRole('button', { name: 'Hide…' }).first().click();
    await a.getByRole('button', { name: 'Hide it' }).click();
    await expectSeen(a.getByText('Say why: its author and the teachers read it.'));
    await a.getByLabel('Why').fill('Names a person.');
    await a.getByRole('button', { name: 'Hide it' }).click();
    await expectSeen(a.getByText(/Hidden from the students by Dr Aldous:/));
    await expectSeen(i.getByText('This thread is not there any more.'));
    await a.getByRole('button', { name: 'Undo' }).click();
    await expect(thread(i)).toContainText('Read no. 9 last April.');
    await a.getByRole('button', { name: 'Do not recommend' }).click();
    await aldous.close();
  });
  for (const { close } of [tomas, ines]) await close();
});
