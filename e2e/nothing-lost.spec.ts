import { expect, test, type Page } from '@playwright/test';
import { drag, keep, newcomer, opened, placeOf, wordsIn, writtenIn, expectSeen } from './helpers';

const SOURCE = 'http://harbour.saltmere.test/dredger';
interface Row {
  readonly id: string;
  readonly note: string;
  readonly kind: { readonly name: string };
  readonly createdAt: string;
}
const stored = async (page: Page, path: string): Promise<readonly Row[]> =>
  (await (await page.request.get(`/api${path.replace('source', 'sources')}/annotations`)).json()) as Row[];
/** A server that does not answer writes, while everything else of the page works. */
const cutOff = (page: Page) =>
  page
    .context()
    .route(/\/api\/(annotations|replies)/, (route) =>
      route.request().method() === 'GET' ? route.continue() : route.abort(),
    );

test('what was written without a connection is stored, and sent once and in order by the next window', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Lost');
  await keep(page, SOURCE);
  const path = new URL(page.url()).pathname;
  await cutOff(page);
  await drag(page, 'in boots, and come along');
  await page.keyboard.press('3');
  await expectSeen(page.getByText('is stored on this computer').first());
  await drag(page, 'I would not build a wall on it');
  await page.keyboard.type('Who would?');
  await page.keyboard.press('Control+Enter');
  const card = page.getByRole('article', { name: /Note, Lost/ });
  await expect(card).toContainText('Who would?');
  await card.getByRole('button', { name: 'Edit' }).click();
  await writtenIn(card).fill('Who would, indeed?');
  await card.getByRole('button', { name: 'Save', exact: true }).click();
  // The message goes; that something waits is said as long as it does.
  await expectSeen(page.getByText('not sent yet'));
  expect(await stored(page, path)).toEqual([]);
  // The window is closed before there is a connection again.
  const context = page.context();
  await page.close();
  await context.unroute(/\/api\/(annotations|replies)/);
  const next = await context.newPage();
  await next.goto('/library');
  await expect
    .poll(async () => (await stored(next, path)).map((a) => [a.kind.name, a.note]))
    .toEqual(
      expect.arrayContaining([
        ['Question', ''],
        ['Note', 'Who would, indeed?'],
      ]),
    );
  await expect(next.getByText('not sent yet')).toHaveCount(0);
  await next.goto(path);
  await opened(next);
  await expect(next.getByRole('article', { name: /Note, Lost/ })).toContainText('Who would, indeed?');
  expect(await stored(next, path)).toHaveLength(2);
  await close();
});

test('a half-written note stays with its passage, whatever key is pressed, window closed or class chosen', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Half');
  await keep(page, SOURCE);
  const form = page
    .getByRole('form')
    .or(page.locator('form').filter({ has: page.getByRole('button', { name: 'Save', exact: true }) }));
  await drag(page, 'in boots, and come along');
  await page.keyboard.type('Half a thought');
  await expect.poll(() => wordsIn(writtenIn(form))).toBe('Half a thought');
  // A menu that the form opened closes alone.
  await form.getByRole('button', { name: /^For:/ }).click();
  await expectSeen(page.getByRole('menu'));
  await page.keyboard.press('Escape');
  await expect(page.getByRole('menu')).toHaveCount(0);
  expect(await wordsIn(writtenIn(form))).toBe('Half a thought');
  await writtenIn(form).press('Escape');
  const left = page.getByRole('article', { name: 'Unfinished note' });
  await expect(left).toContainText('Half a thought');
  // The next note is another one.
  await drag(page, 'I would not build a wall on it');
  await page.keyboard.type('Whole');
  await expect.poll(() => wordsIn(writtenIn(form))).toBe('Whole');
  await page.keyboard.press('Control+Enter');
  await page.reload();
  await opened(page);
  await page.getByRole('button', { name: '1 unfinished' }).click();
  await expect(left).toContainText('Half a thought');
  await left.getByRole('button', { name: 'Discard' }).click();
  await expect(left).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await left.getByRole('button', { name: 'Go on writing' }).click();
  await expect.poll(() => wordsIn(writtenIn(form))).toBe('Half a thought');
  await writtenIn(form).press('End');
  await page.keyboard.type(', finished');
  await page.keyboard.press('Control+Enter');
  await expectSeen(page.getByRole('article', { name: /Note, Half/ }).filter({ hasText: 'Half a thought, finished' }));
  await expect(left).toHaveCount(0);
  await close();
});

test('a note that changes elsewhere while it is edited is shown beside the words that are written', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Both');
  await keep(page, SOURCE);
  await drag(page, 'in boots, and come along');
  await page.keyboard.type('First');
  await page.keyboard.press('Control+Enter');
  const card = page.getByRole('article', { name: /Note, Both/ });
  const id = (await card.getAttribute('data-annotation'))!;
  await expect.poll(async () => (await page.request.get(`/api/annotations/${id}`)).status()).toBe(200);
  await card.getByRole('button', { name: 'Edit' }).click();
  await writtenIn(card).fill('Mine');
  await page.request.patch(`/api/annotations/${id}`, { data: { version: 1, note: 'Theirs' } });
  const beside = card.getByRole('note', { name: 'The note as it is now' });
  await expect(beside).toContainText('Theirs');
  expect(await wordsIn(writtenIn(card))).toBe('Mine');
  // Seen long enough, both are known: what is saved now takes its place.
  await expect
    .poll(async () => {
      await page.waitForTimeout(300);
      return beside.isVisible();
    })
    .toBe(true);
  await page.waitForFunction(
    (since) => performance.now() - since > 1_200,
    await page.evaluate(() => performance.now()),
  );
  await card.getByRole('button', { name: 'Save', exact: true }).click();
  await expect
    .poll(async () => ((await (await page.request.get(`/api/annotations/${id}`)).json()) as Row).note)
    .toBe('Mine');
  await close();
});

test('the Undo in a message takes back its own step, also after others', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Own');
  await keep(page, SOURCE);
  const path = new URL(page.url()).pathname;
  await drag(page, 'in boots, and come along');
  await page.keyboard.press('1');
  await expect.poll(() => stored(page, path)).toHaveLength(1);
  await page.keyboard.press('.');
  await page.keyboard.press('Delete');
  await expectSeen(page.getByText('Claim removed.', { exact: true }));
  await drag(page, 'I would not build a wall on it');
  await page.keyboard.press('2');
  await expect.poll(async () => (await stored(page, path)).map((a) => a.kind.name)).toEqual(['Evidence']);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect
    .poll(async () => (await stored(page, path)).map((a) => a.kind.name).toSorted())
    .toEqual(['Claim', 'Evidence']);
  await close();
});

test('many windows of one browser share one stream, and go on hearing when the one that listens is closed', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Tabs');
  await keep(page, SOURCE);
  const path = new URL(page.url()).pathname;
  const context = page.context();
  const streams: string[] = [];
  context.on('request', (request) => {
    if (request.url().includes('/api/events')) streams.push(request.url());
  });
  const others: Page[] = [];
  for (let n = 0; n < 7; n++) {
    const other = await context.newPage();
    await other.goto(path);
    await opened(other);
    others.push(other);
  }
  expect(streams).toEqual([]);
  await page.close();
  await expect.poll(() => streams.length).toBe(1);
  await others[0]!.bringToFront();
  await drag(others[0]!, 'in boots, and come along');
  await others[0]!.keyboard.type('Heard by all');
  await others[0]!.keyboard.press('Control+Enter');
  for (const other of others) {
    await other.bringToFront();
    await placeOf(other, 'in boots, and come along');
    await expect(other.getByRole('article', { name: /Note, Tabs/ })).toContainText('Heard by all');
  }
  await close();
});
