import { expect, test, type Page } from '@playwright/test';
import fs from 'node:fs';
import path from 'node:path';
import { PNG } from 'pngjs';
import { drag, keep, newcomer, opened, painted, placeOf, stroke, visit, expectSeen } from './helpers';
import { drawn, ink, liesOver, over } from './ink';

const PAGE = 'http://packet.saltmere.test/who-pays';
const FILES = path.resolve('demo/files');
async function upload(page: Page, name: string): Promise<void> {
  await page.goto('/library');
  await page.getByLabel('File to keep').setInputFiles(path.join(FILES, name));
  await page.getByRole('list', { name: 'Being kept' }).getByRole('link', { name: 'Open it' }).first().click();
  await opened(page);
}

test('a stroke through words stays through them: reloaded, in larger type, and on a phone', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Inky');
  await keep(page, PAGE);
  await page.keyboard.press('d');
  await over(page, 'three had answered');
  await drawn(page, 'pen');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect.poll(() => liesOver(page, 'three had answered')).toBe(true);
  await page.reload();
  await opened(page);
  await expect.poll(() => liesOver(page, 'three had answered')).toBe(true);
  await page.getByRole('button', { name: /^Display/ }).click();
  await page.getByRole('button', { name: /^More: size/ }).click();
  await page.keyboard.press('Escape');
  await expect.poll(() => liesOver(page, 'three had answered')).toBe(true);
  await page.setViewportSize({ width: 390, height: 844 });
  await expect.poll(() => liesOver(page, 'three had answered')).toBe(true);
  await close();
});

test('shapes, words and signs are drawn, chosen, moved to the pixel by keys, recoloured, rubbed out, and all of it undone', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Shapes');
  await keep(page, PAGE);
  await page.getByRole('button', { name: 'Draw', exact: true }).click();
  const { from } = await placeOf(page, 'One had framed it.');
  const at = (x: number, y: number) => ({ x: from.x + x, y: from.y + y });
  for (const key of ['4', '5', '6', '7']) {
    await page.keyboard.press(key);
    await stroke(page, at(20 + 90 * Number(key) - 360, -10), at(80 + 90 * Number(key) - 360, 22));
  }
  await drawn(page, 'line', 'arrow', 'box', 'ellipse');
  await page.keyboard.press('8');
  await page.mouse.click(at(420, 0).x, at(0, 60).y);
  await page.keyboard.type('why only three?');
  await page.keyboard.press('Enter');
  await page.keyboard.press('9');
  await page.getByRole('radio', { name: 'Doubt' }).or(page.getByTitle('Doubt')).last().click();
  await page.mouse.click(at(-40, 0).x, at(0, 0).y);
  await drawn(page, 'line', 'arrow', 'box', 'ellipse', 'why only three?', '≠');

  await page.keyboard.press('1');
  const box = page.getByRole('button', { name: /^a box/ });
  const before = (await ink(page)).find((i) => i.tool === 'box')!;
  await box.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('ArrowUp');
  await expect
    .poll(async () => (await ink(page)).find((i) => i.tool === 'box'))
    .toMatchObject({ x: before.x + 10, y: before.y - 1 });
  await page.getByRole('radio', { name: 'woad' }).click();
  await expect(page.locator('[data-tool=box]')).toHaveAttribute('stroke', 'var(--woad-line)');
  const [ellipse, arrow] = await ink(page).then(
    (all) => [all.find((i) => i.tool === 'ellipse')!, all.find((i) => i.tool === 'arrow')!] as const,
  );
  await stroke(
    page,
    { x: ellipse.x + 1, y: ellipse.y + ellipse.height / 2 },
    { x: ellipse.x + 1, y: ellipse.y + ellipse.height / 2 + 40 },
  );
  /** Beside the arrow, which stays: the page itself may stand elsewhere after a reload. */
  const fallen = async (): Promise<number> => {
    const now = await ink(page);
    const y = (tool: string) => now.find((i) => i.tool === tool)!.y;
    return Math.round(y('ellipse') - y('arrow') - ellipse.y + arrow.y);
  };
  await expect.poll(fallen).toBe(40);
  await page.keyboard.press('0');
  await expect(page.getByRole('radio', { name: /^Eraser/ })).toBeChecked();
  const line = (await ink(page)).find((i) => i.tool === 'line')!;
  await stroke(
    page,
    { x: line.x + line.width / 2, y: line.y - 20 },
    { x: line.x + line.width / 2, y: line.y + line.height + 20 },
  );
  await drawn(page, 'arrow', 'box', 'ellipse', 'why only three?', '≠');
  await page.reload();
  await opened(page);
  await drawn(page, 'arrow', 'box', 'ellipse', 'why only three?', '≠');
  await page.keyboard.press('Control+z');
  await drawn(page, 'line', 'arrow', 'box', 'ellipse', 'why only three?', '≠');
  await page.keyboard.press('Control+z');
  await expect.poll(fallen).toBe(0);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-tool=box]')).not.toHaveAttribute('stroke', 'var(--woad-line)');
  await page.keyboard.press('Control+Shift+z');
  await expect(page.locator('[data-tool=box]')).toHaveAttribute('stroke', 'var(--woad-line)');
  await close();
});

test('an eraser leaves the ends of a stroke; strokes that follow each other are one drawing', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Eraser');
  await keep(page, PAGE);
  await page.keyboard.press('d');
  // The second begins at once: a hand that waits begins a drawing of its own.
  const { from, to } = await placeOf(page, 'Nothing, for a while.');
  for (const below of [-4, 4]) await stroke(page, { ...from, y: from.y + below }, { ...to, y: to.y + below });
  await drawn(page, 'pen');
  const list = async (): Promise<{ anchor: { spot: { tied: { strokes: unknown[] } } } }[]> =>
    (await page.request.get(`/api${new URL(page.url()).pathname.replace('source', 'sources')}/annotations`)).json();
  await expect.poll(async () => (await list()).map((a) => a.anchor.spot.tied.strokes.length)).toEqual([2]);
  await page.keyboard.press('0');
  await expect(page.getByRole('radio', { name: /^Eraser/ })).toBeChecked();
  const [both] = await ink(page);
  await stroke(
    page,
    { x: both!.x + both!.width / 2, y: both!.y - 16 },
    { x: both!.x + both!.width / 2, y: both!.y + both!.height + 16 },
  );
  await expect.poll(async () => (await list()).map((a) => a.anchor.spot.tied.strokes.length)).toEqual([4]);
  await stroke(
    page,
    { x: both!.x - 10, y: both!.y + both!.height / 2 },
    { x: both!.x + both!.width + 10, y: both!.y + both!.height / 2 },
  );
  await drawn(page);
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await drawn(page, 'pen');
  await close();
});

test('by keyboard alone words are underlined, boxed, and a drawing’s note is opened', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Keys');
  await keep(page, PAGE);
  await page.keyboard.press('d');
  await page.keyboard.press('4');
  for (let n = 0; n < 6; n++) await page.keyboard.press(']');
  await page.keyboard.press('Enter');
  await drawn(page, 'line');
  await page.keyboard.press('1');
  await page.getByRole('button', { name: /^a line/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article', { name: /Note, Keys/ })).toContainText('a line');
  await page.getByRole('button', { name: /^a line/ }).focus();
  await page.keyboard.press('Delete');
  await drawn(page);
  await close();
});

test('on the pages of a PDF a drawing keeps its place at any size; a classmate sees it, and cannot move it', async ({
  browser,
}) => {
  const ines = await visit(browser, 'ines');
  const { page } = ines;
  const { sources } = (await (await page.request.get('/api/sources')).json()) as {
    sources: { id: string; kind: string; title: string; classes: { name: string }[] }[];
  };
  const report = sources.find((s) => s.kind === 'pdf')!;
  await page.goto(`/source/${report.id}`);
  await opened(page);
  await expect(page.locator('canvas[data-drawn="1"]')).toBeVisible();
  await page
    .getByRole('button', { name: /Only me/ })
    .first()
    .click();
  await page
    .getByRole('menuitemcheckbox')
    .or(page.getByRole('menuitem'))
    .filter({ hasText: 'Field Course' })
    .first()
    .click();
  await page.keyboard.press('Escape');
  const sheet = page.frameLocator('iframe[title^="Text of"]').locator('section[data-avrelle-page="1"]');
  await page.keyboard.press('d');
  await page.keyboard.press('6');
  const first = (await sheet.boundingBox())!;
  await stroke(page, { x: first.x + 60, y: first.y + 120 }, { x: first.x + 200, y: first.y + 180 });
  await drawn(page, 'box');
  const share = async (): Promise<number[]> => {
    const [box] = await ink(page);
    const on = (await sheet.boundingBox())!;
    return [(box!.x - on.x) / on.width, box!.width / on.width].map((n) => Math.round(n * 100) / 100);
  };
  const before = await share();
  await page.getByRole('button', { name: 'Smaller pages' }).click();
  await expect.poll(share).toEqual(before);
  await page.getByRole('button', { name: 'Done' }).click();

  const tomas = await visit(browser, 'tomas', `/source/${report.id}`);
  await opened(tomas.page);
  await drawn(tomas.page, 'box');
  await tomas.page.keyboard.press('d');
  await tomas.page.keyboard.press('1');
  await expect(tomas.page.getByRole('button', { name: /^a box/ })).toHaveCount(0);
  await tomas.close();
  await ines.close();
});

test('a picture is drawn on and downloaded with its marks, then cropped and blacked out for good', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Picture');
  // By night, too, a picture is as light as it is, and what is drawn on it as dark.
  await page.evaluate(() => localStorage.setItem('avrelle.theme', 'night'));
  await upload(page, 'sluice-nine-at-dawn.png');
  const image = page.frameLocator('iframe[title^="Text of"]').locator('img');
  await image.evaluate((img: HTMLImageElement) => img.decode());
  await page.keyboard.press('d');
  await page.keyboard.press('5');
  await page.getByRole('radio', { name: 'madder' }).click();
  const shown = (await image.boundingBox())!;
  await stroke(page, { x: shown.x + 100, y: shown.y + 100 }, { x: shown.x + 300, y: shown.y + 100 });
  await drawn(page, 'arrow');
  await page.getByRole('button', { name: 'Done' }).click();
  const coming = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download PNG' }).click();
  const file = await (await coming).path();
  const marked = PNG.sync.read(fs.readFileSync(file));
  const former = PNG.sync.read(fs.readFileSync(path.join(FILES, 'sluice-nine-at-dawn.png')));
  expect([marked.width, marked.height]).toEqual([former.width, former.height]);
  const colour = (png: PNG, x: number, y: number): number[] => {
    const at = 4 * (Math.round(y * png.height) * png.width + Math.round(x * png.width));
    return [...png.data.subarray(at, at + 3)];
  };
  expect(colour(marked, 200 / shown.width, 100 / shown.height)).toEqual([169, 46, 40]);

  await page.getByRole('link', { name: 'Crop, black out' }).click();
  await page.getByRole('radio', { name: 'Black out' }).click();
  for (const [name, value] of [
    ['Left', 600],
    ['Top', 0],
    ['Width', 600],
    ['Height', 200],
  ] as const)
    await page.getByLabel(name, { exact: true }).fill(String(value));
  await page.getByRole('button', { name: 'Black this out' }).click();
  await page.getByRole('radio', { name: 'Crop' }).click();
  for (const [name, value] of [
    ['Left', 0],
    ['Top', 0],
    ['Width', 1200],
    ['Height', 400],
  ] as const)
    await page.getByLabel(name, { exact: true }).fill(String(value));
  await page.getByRole('button', { name: 'Crop to this' }).click();
  await expectSeen(page.getByText('1200 × 400 pixels'));
  await page.getByRole('button', { name: 'Keep it so' }).click();
  await page.getByRole('button', { name: 'Delete the old picture, keep this one' }).click();
  await opened(page);
  await drawn(page, 'arrow');
  await image.evaluate((img: HTMLImageElement) => img.decode());
  const { versionId } = (await (
    await page.request.get(`/api${new URL(page.url()).pathname.replace('source', 'sources')}`)
  ).json()) as { versionId: string };
  const after = PNG.sync.read(await (await page.request.get(`/files/${versionId}`)).body());
  expect([after.width, after.height, colour(after, 0.75, 0.25)]).toEqual([1200, 400, [0, 0, 0]]);
  const now = (await image.boundingBox())!;
  const [arrow] = await ink(page);
  expect(Math.abs((arrow!.x - now.x) / now.width - 100 / shown.width)).toBeLessThan(0.02);
  await close();
});

test('words can be marked and notes written while drawings lie over them', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Both');
  await keep(page, PAGE);
  await page.keyboard.press('d');
  await page.keyboard.press('3');
  await over(page, 'By Friday three had answered.');
  await drawn(page, 'broad');
  await page.keyboard.press('Escape');
  await drag(page, 'By Friday three had answered.');
  await page.keyboard.press('2');
  await expect
    .poll(async () => (await painted(page))['avrelle-verdigris-dashed'])
    .toEqual(['By Friday three had answered.']);
  const { from } = await placeOf(page, 'By Friday three had answered.');
  const session = await page.context().newCDPSession(page);
  for (const type of ['mousePressed', 'mouseReleased'] as const)
    await session.send('Input.dispatchMouseEvent', {
      type,
      x: from.x + 20,
      y: from.y,
      button: 'left',
      buttons: type === 'mousePressed' ? 1 : 0,
      clickCount: 1,
    });
  await expect(page.getByRole('article', { name: /Note, Both/ })).toContainText('drawn with the broad pen');
  await close();
});

test('a point and an area of plain text, and the whole source, are written about; each stands where it was set', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Points');
  await keep(page, PAGE);
  const margin = page.getByRole('complementary', { name: 'Margin' });
  const note = (words: string) => margin.getByRole('article').filter({ hasText: words });
  await page.getByRole('button', { name: 'General note' }).click();
  await page.keyboard.type('Read this before the walk.');
  await page.keyboard.press('Control+Enter');
  await expect(note('Read this before the walk.')).toContainText('the whole source');
  const { from, to } = await placeOf(page, 'Nothing, for a while.');
  await page.getByRole('button', { name: 'Area', exact: true }).click();
  await page.mouse.click(from.x - 30, from.y);
  await page.keyboard.type('Here.');
  await page.keyboard.press('Control+Enter');
  await drawn(page, '†');
  await page.keyboard.press('a');
  await stroke(page, { x: from.x - 6, y: from.y - 14 }, { x: to.x + 6, y: to.y + 14 });
  await page.keyboard.type('All of this.');
  await page.keyboard.press('Control+Enter');
  await drawn(page, '†', 'box');
  await page.reload();
  await opened(page);
  await drawn(page, '†', 'box');
  for (const words of ['Read this before the walk.', 'Here.', 'All of this.']) await expectSeen(note(words));
  const again = await placeOf(page, 'Nothing, for a while.');
  const box = (await ink(page)).find((i) => i.tool === 'box')!;
  expect([Math.abs(box.x - again.from.x + 6) < 4, Math.abs(box.y - again.from.y + 14) < 4]).toEqual([true, true]);
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(page.getByRole('region', { name: 'Notes' })).toContainText('Read this before the walk.');
  await close();
});
