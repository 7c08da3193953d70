import { expect, test, type Page } from '@playwright/test';
import { v7 } from 'uuid';
import type { AnnotationPage, SourceDetail, SourcePage, SourceText } from '@avrelle/core/wire';
import { clickWords, drag, expectSeen, keep, newcomer, opened, painted, placeOf, writtenIn, wordsIn } from './helpers';

const PAGE = 'http://harbour.saltmere.test/dredger';
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
  'base64',
);
const cards = (page: Page) => page.getByRole('article');
const press = async (page: Page, x: number, y: number): Promise<void> => {
  const session = await page.context().newCDPSession(page);
  const at = { x, y, button: 'left', clickCount: 1 } as const;
  await session.send('Input.dispatchMouseEvent', { type: 'mousePressed', buttons: 1, ...at });
  await session.send('Input.dispatchMouseEvent', { type: 'mouseReleased', buttons: 0, ...at });
  await session.detach();
};

test('in Focus one writes as elsewhere: the form is seen, and letters are letters', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Quiet');
  await keep(page, PAGE);
  await page.getByRole('button', { name: 'Focus', exact: true }).click();
  await drag(page, 'in boots, and come along', { leaves: true });
  await page.keyboard.type('draw a line');
  await expectSeen(writtenIn(page));
  expect(await wordsIn(writtenIn(page))).toBe('draw a line');
  await page.keyboard.press('Control+Enter');
  await expectSeen(cards(page).getByText('draw a line'));
  await close();
});

test('what is marked while marks are hidden says so, and shows itself by one press', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Hidden');
  await keep(page, PAGE);
  await page.getByRole('group', { name: 'Show marks' }).getByRole('button', { name: 'none' }).click();
  await drag(page, 'in boots, and come along');
  await page.keyboard.press('3');
  await expectSeen(page.getByText('Such marks are hidden now.').first());
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect.poll(() => painted(page)).toEqual({ 'avrelle-woad-wavy': ['in boots, and come along'] });
  await close();
});

test('a press opens what it points at: the mark beneath, also under a handle, and nothing beside the line', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Pressing');
  await keep(page, PAGE);
  for (const [words, digit] of [
    ['in boots, and come along', '1'],
    ['come along', '3'],
  ] as const) {
    await drag(page, words);
    await page.keyboard.press(digit);
    await expect.poll(async () => Object.values(await painted(page)).flat()).toContain(words);
  }
  await clickWords(page, 'come along');
  await expectSeen(page.getByRole('article', { name: /^Question/ }).getByRole('button', { expanded: true }));
  // The end of both, under the handle of the one that is open.
  const { to } = await placeOf(page, 'come along');
  await expectSeen(page.getByRole('button', { name: 'End of the mark' }));
  await press(page, to.x - 3, to.y);
  await expectSeen(page.getByRole('article', { name: /^Claim/ }).getByRole('button', { expanded: true }));
  const frame = (await page.locator('iframe').boundingBox())!;
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { expanded: true })).toHaveCount(0);
  await press(page, frame.x + 20, to.y);
  await expect(page.getByRole('article')).toHaveCount(0);
  await close();
});

test('a note waits for its picture; a tag goes with the word it stood in', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Waiting');
  await keep(page, PAGE);
  let release = (): void => undefined;
  const held = new Promise<void>((go) => (release = go));
  await page.route('**/api/pictures', async (route) => {
    await held;
    await route.continue();
  });
  await drag(page, 'in boots, and come along');
  await page.keyboard.type('Wet #peat');
  await page.getByLabel('Picture for the note').setInputFiles({ name: 'peg.png', mimeType: 'image/png', buffer: PNG });
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expectSeen(page.getByText('Saved as soon as the picture has come.'));
  release();
  const note = cards(page).first();
  await expectSeen(note.getByRole('img', { name: 'peg' }));
  await expect(note).toContainText('#peat');
  await note.getByRole('button', { name: 'Edit' }).click();
  await expect(writtenIn(page)).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Wet');
  await page.keyboard.press('Control+Enter');
  await expect(note.getByText('Wet')).toBeVisible();
  await page.reload();
  await opened(page);
  await clickWords(page, 'in boots, and come along');
  await expectSeen(note.getByText('Wet'));
  await expect(note).not.toContainText('#peat');
  await close();
});

test('a mark that lies wholly on a link opens by the first press, the link leads on by the next', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Linked');
  const words =
    'The gate is kept by rules. They stand in the harbour rules of last year, and nobody has read them since then.';
  const html = `<!doctype html><title>Gate</title><p>${words.replace('the harbour rules', '<a href="http://harbour.saltmere.test/dredger">the harbour rules</a>')}</p>`;
  const file = { name: 'Gate.html', mimeType: 'text/html', buffer: Buffer.from(html) };
  await page.request.post(`/api/uploads/${v7()}`, { multipart: { file } });
  const sources = async () => ((await (await page.request.get('/api/sources')).json()) as SourcePage).sources;
  await expect.poll(async () => (await sources()).length).toBe(1);
  const [{ id }] = (await sources()) as [SourceDetail];
  const { versionId, text } = (await (await page.request.get(`/api/sources/${id}/text`)).json()) as SourceText;
  const start = text.indexOf('harbour');
  const anchor = { quote: { exact: 'harbour', prefix: 'the ', suffix: ' rules' }, position: { start, end: start + 7 } };
  const data = { sourceId: id, versionId, kind: 'claim', note: 'Which ones?', tags: [], anchor, classIds: [] };
  expect((await page.request.put(`/api/annotations/${v7()}`, { data })).status()).toBe(200);
  await page.goto(`/source/${id}`);
  await opened(page);
  await expect.poll(async () => Object.values(await painted(page)).flat()).toContain('harbour');
  await page.context().route('http://harbour.saltmere.test/**', (route) => route.fulfill({ body: 'The rules.' }));
  await clickWords(page, 'harbour');
  await expectSeen(cards(page).getByRole('button', { expanded: true }));
  const [led] = await Promise.all([page.context().waitForEvent('page'), clickWords(page, 'harbour')]);
  await expect(led).toHaveURL('http://harbour.saltmere.test/dredger');
  await close();
});

test('a mark that is grown stops before what the main text hides', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Grown');
  await keep(page, 'http://packet.saltmere.test/who-pays');
  const last = 'for the same safety.';
  await drag(page, last);
  await page.keyboard.press('1');
  await expect.poll(async () => Object.values(await painted(page)).flat()).toContain(last);
  await clickWords(page, last);
  const end = page.getByRole('button', { name: 'End of the mark' });
  await end.focus();
  // What follows is an advertisement, of which nothing is seen; backwards there is more to take.
  for (const key of ['PageDown', 'PageDown', 'Enter']) await page.keyboard.press(key);
  await page.getByRole('button', { name: 'Beginning of the mark' }).focus();
  for (const key of ['ArrowUp', 'Enter']) await page.keyboard.press(key);
  const marked = async () => (await (await page.request.get('/api/annotations')).json()) as AnnotationPage;
  const quote = async () => (await marked()).annotations[0]!.quote.map((p) => p.text).join('');
  await expect.poll(quote).toMatch(/^A metre of marsh.* for the same safety\.$/);
  await close();
});
