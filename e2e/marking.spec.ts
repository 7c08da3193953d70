import { expect, test, type Page } from '@playwright/test';
import { clickWords, drag, keep, newcomer, opened, painted, stroke, expectSeen } from './helpers';

const PAGE = 'http://packet.saltmere.test/who-pays';
const mark = async (page: Page, words: string, key: string): Promise<void> => {
  await drag(page, words);
  await page.keyboard.press(key);
};
const ofKind = (page: Page, look: string) => expect.poll(async () => (await painted(page))[`avrelle-${look}`]);

test('a kind of the Legend is renamed, given another look, moved to another digit and replaced throughout', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Keyes');
  await keep(page, PAGE);
  await mark(page, 'One had framed it.', '1');
  await mark(page, 'By Friday three had answered.', '5');
  await page.getByRole('button', { name: 'Edit the Legend…' }).click();
  const dialog = page.getByRole('dialog', { name: 'The Legend' });
  await dialog.getByLabel('Name of kind 1').fill('Thesis');
  // A key that leads elsewhere does not take a dialog away.
  await dialog.getByRole('button', { name: 'Cancel' }).focus();
  await page.keyboard.press('k');
  await expect(page).toHaveURL(/\/source\//);
  await dialog.getByRole('button', { name: 'Look of Thesis' }).click();
  await page.getByRole('radio', { name: 'lichen' }).check({ force: true });
  await page.getByRole('radio', { name: 'wavy' }).check({ force: true });
  await page.keyboard.press('Escape');
  await dialog.getByRole('button', { name: 'More for Doubt' }).click();
  await page.getByRole('menuitem', { name: 'Evidence' }).click();
  await ofKind(page, 'verdigris-dashed').toEqual(['By Friday three had answered.']);
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await ofKind(page, 'madder-double').toEqual(['By Friday three had answered.']);
  await dialog.getByRole('button', { name: 'Add a kind' }).click();
  await dialog.getByRole('button', { name: 'Save this Legend' }).click();
  await expect(dialog.getByRole('alert')).toContainText('Give every kind a name');
  await dialog.getByLabel('Name of kind 7').fill('Method');
  await dialog.getByRole('button', { name: 'Move Method' }).focus();
  await page.keyboard.press('Space');
  // Each step is told before the next is taken.
  const told = dialog.page().locator('[id^=DndLiveRegion]').last();
  await expect(told).toContainText('was moved over');
  for (let n = 0; n < 6; n++) {
    const before = (await told.textContent())!;
    await page.keyboard.press('ArrowUp');
    await expect(told).not.toHaveText(before);
  }
  await page.keyboard.press('Space');
  await expect(dialog.getByLabel('Name of kind 1')).toHaveValue('Method');
  await dialog.getByRole('button', { name: 'Save this Legend' }).click();
  await ofKind(page, 'lichen-wavy').toEqual(['One had framed it.']);
  await expect(page.getByRole('group', { name: /^The Legend/ }).getByRole('button')).toHaveText([
    /Method/,
    /Thesis/,
    /Evidence/,
    /Question/,
    /Term/,
    /Doubt/,
    /Keep/,
    /Edit…/,
  ]);
  await mark(page, 'Nothing, for a while.', '2');
  await ofKind(page, 'lichen-wavy').toHaveLength(2);
  await close();
});

test('the open mark grows and shrinks by its ends, with the pointer and with keys, and that is undone', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Ends');
  await keep(page, PAGE);
  await mark(page, 'three had answered', '1');
  await clickWords(page, 'three had answered');
  await page.keyboard.press('g');
  await expect(page.getByRole('button', { name: 'End of the mark' })).toBeFocused();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Enter');
  await ofKind(page, 'weld-solid').toEqual(['three had answered.']);
  await page.keyboard.press('Shift+G');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Enter');
  await ofKind(page, 'weld-solid').toEqual(['By Friday three had answered.']);
  const end = (await page.getByRole('button', { name: 'Beginning of the mark' }).boundingBox())!;
  await stroke(page, { x: end.x + 12, y: end.y + end.height / 2 }, { x: end.x + 12 + 42, y: end.y + end.height / 2 });
  await ofKind(page, 'weld-solid').toEqual(['Friday three had answered.']);
  await page.reload();
  await opened(page);
  await ofKind(page, 'weld-solid').toEqual(['Friday three had answered.']);
  await page.keyboard.press('Control+z');
  await ofKind(page, 'weld-solid').toEqual(['By Friday three had answered.']);
  await page.keyboard.press('Control+z');
  await ofKind(page, 'weld-solid').toEqual(['three had answered.']);
  await page.keyboard.press('Control+Shift+z');
  await ofKind(page, 'weld-solid').toEqual(['By Friday three had answered.']);
  await close();
});

test('while marking as one selects, every selection is a mark, but for those with Alt held, which can be copied', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Quick');
  await keep(page, PAGE);
  await page.getByRole('button', { name: 'Mark as I select' }).click();
  await drag(page, 'One had framed it.', { leaves: true });
  await ofKind(page, 'weld-solid').toEqual(['One had framed it.']);
  await drag(page, 'By Friday three had answered.', { alt: true });
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('By Friday three had answered.');
  expect((await painted(page))['avrelle-weld-solid']).toEqual(['One had framed it.']);
  await drag(page, 'One had framed it.', { leaves: true });
  await expectSeen(page.getByRole('article', { name: /Claim, Quick/ }));
  expect((await painted(page))['avrelle-weld-solid']).toHaveLength(1);
  await close();
});

test('several marks are chosen and given a kind, a tag and away in one step each, which one undo takes back', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Several');
  await keep(page, PAGE);
  await mark(page, 'One had framed it.', '1');
  await mark(page, 'By Friday three had answered.', '2');
  await mark(page, 'Nothing, for a while.', '3');
  const margin = page.getByRole('complementary', { name: 'Margin' });
  await margin.getByRole('button', { name: 'Choose several' }).click();
  await margin.getByLabel('Choose: One had framed it.').check();
  await margin.getByLabel('Choose: By Friday three had answered.').check();
  await margin.getByRole('button', { name: /^Kind/ }).click();
  await page.getByRole('menuitem', { name: 'Keep' }).click();
  await ofKind(page, 'ochre-thick').toEqual(['By Friday three had answered.', 'One had framed it.']);
  await margin.getByRole('button', { name: /^Tags/ }).click();
  await page.getByLabel('Tag for all of them').fill('#letters');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(margin.getByText('#letters')).toHaveCount(2);
  await margin.getByRole('button', { name: 'All of mine' }).click();
  await expectSeen(margin.getByText('3 chosen'));
  await margin.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect.poll(() => painted(page)).toEqual({});
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await ofKind(page, 'ochre-thick').toHaveLength(2);
  await margin.getByRole('button', { name: 'Done' }).click();
  await page.keyboard.press('Control+z');
  await expect(margin.getByText('#letters')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect
    .poll(() => painted(page))
    .toEqual({
      'avrelle-weld-solid': ['One had framed it.'],
      'avrelle-verdigris-dashed': ['By Friday three had answered.'],
      'avrelle-woad-wavy': ['Nothing, for a while.'],
    });
  await close();
});

test('one person’s marks, one kind’s, and none are shown without moving the page; notes are listed by time and author', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Looker');
  await keep(page, PAGE);
  await mark(page, 'One had framed it.', '1');
  await mark(page, 'By Friday three had answered.', '2');
  const at = () => page.frameLocator('iframe[title^="Text of"]').getByText('By Friday three').boundingBox();
  const before = await at();
  await page.getByRole('button', { name: 'none', exact: true }).click();
  await expect.poll(() => painted(page)).toEqual({});
  expect(await at()).toEqual(before);
  await page.getByRole('button', { name: /^Show only some/ }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Evidence' }).click();
  await page.getByRole('button', { name: 'all', exact: false }).filter({ hasText: /^all/ }).click();
  await page.getByRole('button', { name: /^Show only some/ }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Evidence' }).click();
  await expect.poll(() => painted(page)).toEqual({ 'avrelle-verdigris-dashed': ['By Friday three had answered.'] });
  expect(await at()).toEqual(before);
  await page.getByRole('button', { name: /^all/ }).click();
  await page.getByRole('button', { name: /^by place/ }).click();
  await page.getByRole('menuitemradio', { name: /By time/ }).click();
  await expect(page.getByRole('article')).toHaveCount(2);
  await expect(page.getByRole('article').first()).toHaveAccessibleName(/^Evidence/);
  await close();
});
