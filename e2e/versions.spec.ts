import { expect, test, type Page } from '@playwright/test';
import { drag, keep, newcomer, opened, painted, expectSeen } from './helpers';

const FIRST = [
  '# The Gate at Nine Acres',
  'The gate was hung in spring and nobody has mended it since.',
  'It holds the creek back on all but the lowest tides.',
  'The keeper reads the gauge before breakfast every day.',
  'Eels wait below the sill until the water drops in the evening.',
];
const SECOND = [
  '# The Gate at Nine Acres',
  'A storm took the railing in November.',
  'The gate was hung in spring and two smiths have mended it since.',
  'The keeper reads the gauge before breakfast every day.',
  'Herons stand beside the pool and look as though they owned it.',
];
const file = (lines: readonly string[]) => ({
  name: 'gate.md',
  mimeType: 'text/markdown',
  buffer: Buffer.from(lines.join('\n\n')),
});

async function open(page: Page): Promise<void> {
  await page.goto('/library');
  await page.getByLabel('File to keep').setInputFiles(file(FIRST));
  await page.getByRole('link', { name: 'Open it' }).click();
  await opened(page);
}

async function mark(page: Page, words: string, digit: string): Promise<void> {
  await drag(page, words);
  await page.keyboard.press(digit);
  await expect.poll(async () => Object.values(await painted(page)).flat()).toContain(words);
}

async function bringNewer(page: Page, lines: readonly string[]): Promise<void> {
  await page.getByTitle('Versions of this source').click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('menuitem', { name: 'Upload a newer file' }).click();
  await (await chooser).setFiles(file(lines));
}

test('a source is kept again; every annotation is in place, moved, edited or unplaced, and can be put in its place', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Vera');
  await open(page);
  await mark(page, 'The gate was hung in spring and nobody has mended it since.', '1');
  await mark(page, 'The keeper reads the gauge before breakfast every day.', '2');
  await mark(page, 'Eels wait below the sill until the water drops', '5');
  const reading = page.url();
  const second = await page.context().newPage();
  await second.goto(reading);
  await opened(second);

  await test.step('the same text is no new version', async () => {
    await page.bringToFront();
    await bringNewer(page, FIRST);
    await expectSeen(page.getByText('Nothing has changed since the version you have.').first());
  });

  await test.step('the page is not taken from under a reader, in any window', async () => {
    await bringNewer(page, SECOND);
    for (const window of [page, second]) {
      await window.bringToFront();
      await expectSeen(window.getByText('You are reading version 1'));
      await expectSeen(window.frameLocator('iframe').getByText('Eels wait below the sill'));
    }
    await drag(second, 'It holds the creek back');
    await second.keyboard.press('3');
    await expectSeen(second.getByText('This is version 1. Go to the newest version').first());
    expect((await painted(second))['avrelle-woad-wavy']).toBeUndefined();
    await second.close();
  });

  await test.step('what changed, and what became of the annotations', async () => {
    await page.getByRole('link', { name: 'What changed' }).click();
    await expectSeen(page.locator('ins', { hasText: 'two smiths have' }));
    await expectSeen(page.locator('del', { hasText: 'nobody has' }));
    const fates = page.getByRole('complementary', { name: 'What became of the annotations' });
    await expect(fates.getByRole('heading')).toHaveText('What became of 3 annotations');
    await expectSeen(fates.getByText('The gate was hung in spring and two smiths have mended it since.'));
    await expectSeen(fates.getByText('Moved along'));
    await fates
      .getByRole('listitem', { name: /Unplaced: Eels wait/ })
      .getByRole('button', { name: 'Choose its place on the page' })
      .click();
  });

  await test.step('placed by hand, undone, done again: nothing is deleted', async () => {
    await opened(page);
    await expect(page.getByRole('button', { name: 'Put it here' })).toBeDisabled();
    await drag(page, 'Herons stand beside the pool');
    await page.getByRole('button', { name: 'Put it here' }).click();
    await expect
      .poll(async () => (await painted(page))['avrelle-madder-double'])
      .toEqual(['Herons stand beside the pool']);
    await page.keyboard.press('Control+z');
    await expectSeen(page.getByText('1 annotation is unplaced'));
    await page.keyboard.press('Control+y');
    await expect
      .poll(async () => (await painted(page))['avrelle-madder-double'])
      .toEqual(['Herons stand beside the pool']);
    await page.reload();
    await opened(page);
    await expect
      .poll(() => painted(page))
      .toEqual({
        'avrelle-weld-solid': ['The gate was hung in spring and two smiths have mended it since.'],
        'avrelle-verdigris-dashed': ['The keeper reads the gauge before breakfast every day.'],
        'avrelle-madder-double': ['Herons stand beside the pool'],
      });
  });

  await test.step('the old version still stands as it stood', async () => {
    await page.getByTitle('Versions of this source').click();
    await page.getByRole('menuitem', { name: /^Version 1/ }).click();
    await expect
      .poll(async () => (await painted(page))['avrelle-madder-double'])
      .toEqual(['Eels wait below the sill until the water drops']);
  });
  await close();
});

test('an address with a passage opens there, and a note gives one', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Paz');
  await page
    .getByLabel('Address of a page')
    .fill('http://harbour.saltmere.test/dredger#:~:text=Six%20in%20a%20hundred,like%20nothing');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'Open it at the passage' }).click();
  await opened(page);
  await expect
    .poll(async () => (await painted(page))['avrelle-found'])
    .toEqual(['Six in a hundred sounds like nothing']);
  await drag(page, 'the ferry brings the bread');
  await page.keyboard.press('6');
  await page.keyboard.press('.');
  await page
    .getByRole('article', { name: /Keep, Paz/ })
    .getByRole('button', { name: 'Address' })
    .click();
  await expectSeen(page.getByText('Address copied.').first());
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(
    'http://harbour.saltmere.test/dredger#:~:text=the%20ferry%20brings%20the%20bread',
  );
  await close();
});

test('annotations of another program are brought in; what cannot be placed is told', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Wes');
  await keep(page, 'http://harbour.saltmere.test/dredger');
  const foreign = (exact: string) => ({
    type: 'Annotation',
    bodyValue: `About ${exact}`,
    target: { selector: { type: 'TextQuoteSelector', exact } },
  });
  const bring = async (content: string): Promise<void> =>
    page
      .getByLabel('File of W3C annotations')
      .setInputFiles({ name: 'from.jsonld', mimeType: 'application/ld+json', buffer: Buffer.from(content) });
  await page.getByRole('button', { name: /Export/ }).click();
  await bring('no JSON');
  await expect(page.getByRole('alert')).toContainText('“from.jsonld” is not JSON');
  await bring(JSON.stringify([foreign('the ferry brings the bread'), foreign('Penguins live here')]));
  await expect(page.getByRole('alert')).toContainText(
    '1 of the file could not be placed. Number 2: None of the selectors leads to a passage',
  );
  await expect.poll(async () => Object.values(await painted(page)).flat()).toContain('the ferry brings the bread');
  await close();
});
