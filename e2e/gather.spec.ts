import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { pdf } from '../server/testing/files';
import type { SourcePage } from '@avrelle/core/wire';
import { sendLetter } from '../standins/mail/send';
import { MAIL_PORT } from './constants';
import { drag, newcomer, opened, painted, stroke, expectSeen } from './helpers';

const FILES = fileURLToPath(new URL('../demo/files/', import.meta.url));
const frameText = (page: Page, title: RegExp) => page.frameLocator('iframe').locator('body').filter({ hasText: title });
const address = (page: Page) => page.getByLabel('Address of a page');

async function upload(
  page: Page,
  files: Parameters<ReturnType<Page['getByLabel']>['setInputFiles']>[0],
): Promise<void> {
  await page.goto('/library');
  await page.getByLabel('File to keep').setInputFiles(files);
}

async function openKept(page: Page): Promise<void> {
  await page.getByRole('list', { name: 'Being kept' }).getByRole('link', { name: 'Open it' }).first().click();
  await opened(page);
}

test('a page is looked at first: sections are clicked away, one comes back, and it is kept for a desk', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Trim');
  await address(page).fill('http://packet.saltmere.test/who-pays');
  await page.getByRole('button', { name: 'Look first' }).click();
  await expect(page).toHaveURL(/\/look\//);
  const body = page.frameLocator('iframe').locator('body');
  const choices = page.getByRole('form', { name: 'How it is kept' });
  await body.getByText('Your advertisement could stand here').click();
  await expect(choices).toContainText('1 section removed');
  await body.getByText('WIN A WHEELBARROW').click();
  await body.getByText('One had framed it.').click();
  await expect(choices).toContainText('3 sections removed');
  await expect(body.getByText('One had framed it.')).toBeHidden();
  await page.keyboard.press('Control+z');
  await expectSeen(body.getByText('One had framed it.'));
  await choices.getByRole('button', { name: 'desk' }).click();
  await choices.getByRole('textbox', { name: 'Title' }).fill('The sluice and its bill');
  await choices.getByRole('textbox', { name: 'Remark' }).fill('For the essay on retreat');
  await choices.getByRole('button', { name: 'Keep', exact: true }).click();
  await openKept(page);
  await page.getByRole('button', { name: 'Whole page' }).click();
  const kept = page.frameLocator('iframe[title^="Text of"]').locator('body');
  await expectSeen(kept.getByText('One had framed it.'));
  await expect(kept.getByText('Your advertisement could stand here')).toHaveCount(0);
  await expect(kept.getByText('WIN A WHEELBARROW')).toHaveCount(0);
  // Its own 1280 pixels, shown smaller: boxes in the margin's measure are those one sees.
  const shown = await page.locator('iframe[title^="Text of"]').boundingBox();
  expect(await page.evaluate(() => document.querySelector('iframe')!.contentWindow!.innerWidth)).toBe(1280);
  expect(shown!.width).toBeLessThan(900);
  await close();
});

test('only a passage, only a link, or an area as a picture is kept', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Amount');
  const look = async (): Promise<void> => {
    await page.goto('/library');
    await address(page).fill('http://packet.saltmere.test/letters/in-praise-of-soup');
    await page.getByRole('button', { name: 'Look first' }).click();
    await expect(page).toHaveURL(/\/look\//);
    await expectSeen(page.frameLocator('iframe').getByText('The soup was leek.'));
  };
  const choices = page.getByRole('form', { name: 'How it is kept' });
  const keep = choices.getByRole('button', { name: /^Keep/ });

  await look();
  await choices.getByRole('radio', { name: /Picture/ }).check();
  await expect(keep).toBeDisabled();
  const box = (await page.getByRole('application', { name: 'Draw an area' }).boundingBox())!;
  await stroke(page, { x: box.x + 10, y: box.y + 10 }, { x: box.x + 310, y: box.y + 110 });
  await choices.getByLabel('Author').fill('The cook');
  await choices.getByLabel('Remark').fill('For the poster.');
  await keep.click();
  await openKept(page);
  const {
    sources: [kept],
  } = (await (await page.request.get('/api/sources')).json()) as SourcePage;
  expect([kept!.author, kept!.remark]).toEqual(['The cook', 'For the poster.']);
  const picture = await page
    .frameLocator('iframe[title^="Text of"]')
    .locator('img')
    .evaluate((img: HTMLImageElement) => img.decode().then(() => [img.naturalWidth, img.naturalHeight]));
  expect(picture).toEqual([600, 200]);

  await look();
  await choices.getByRole('radio', { name: /Passage/ }).check();
  await page.evaluate(() => {
    const inner = document.querySelector('iframe')!.contentDocument!;
    const paragraph = [...inner.querySelectorAll('p')].find((p) => p.textContent!.includes('eighty-six'))!;
    inner.getSelection()!.selectAllChildren(paragraph);
  });
  await expect(choices).toContainText('put her spoon on it');
  await keep.click();
  await openKept(page);
  await expectSeen(frameText(page, /put her spoon on it/));
  await expect(page.frameLocator('iframe[title^="Text of"]').getByText('The soup was leek.')).toHaveCount(0);
  await close();
});

test('what was kept before is said with its day, and can be opened, kept as a new version, or apart', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Twice');
  const keep = async (given: string): Promise<void> => {
    await address(page).fill(given);
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
  };
  await keep('http://harbour.saltmere.test/dredger');
  await expectSeen(page.getByRole('list', { name: 'Being kept' }).getByText('Kept.'));
  await keep('http://www.harbour.saltmere.test/dredger/?utm_source=letter');
  const job = page
    .getByRole('list', { name: 'Being kept' })
    .getByRole('listitem')
    .filter({ hasText: 'You kept “What the Dredger Said” on' });
  await expectSeen(job);
  await job.getByRole('button', { name: 'Keep as a new version' }).click();
  await expectSeen(page.getByRole('listitem').getByText('Nothing has changed since the version you have'));
  await keep('http://harbour.saltmere.test/dredger#again');
  await page.getByRole('button', { name: 'Keep it apart' }).first().click();
  await expect(page.getByRole('heading', { name: 'What the Dredger Said' })).toHaveCount(2);
  await close();
});

test('a list of addresses tells of each what became of it, and a feed’s news are kept, skipped, and brought back', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Many');
  await page.getByRole('link', { name: 'Lists, feeds, letters' }).click();
  await page
    .getByLabel('Addresses, one a line')
    .fill(
      'http://harbour.saltmere.test/notices/notice-of-works\nhttp://trouble.saltmere.test/broken\nhttp://pegs.saltmere.test/readings-2026',
    );
  await page.getByRole('button', { name: 'Keep 3 pages' }).click();
  const list = page.getByRole('region', { name: 'List 3 addresses' });
  await expect(list).toContainText('3 of 3 ended, 1 failed', { timeout: 20_000 });
  await expect(list).toContainText('The site is in trouble');
  await expect(list.getByRole('link')).toHaveCount(2);
  await list.getByRole('button', { name: 'Try the failed again' }).click();
  await expect(list).toContainText('3 of 3 ended, 1 failed');

  await page.getByLabel('Address of a site or feed').fill('http://packet.saltmere.test/letters');
  await page.getByRole('button', { name: 'Follow', exact: true }).click();
  const fresh = page.getByRole('region', { name: 'New arrivals' });
  await expect(fresh.getByRole('listitem')).toHaveCount(4);
  await fresh.getByRole('button', { name: 'Keep Who Counts the Birds?' }).click();
  await fresh.getByRole('button', { name: 'Skip In Praise of Soup' }).click();
  await expect(fresh.getByRole('listitem')).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect(fresh.getByRole('listitem')).toHaveCount(3);
  await page.getByLabel('Address of a site or feed').fill('http://harbour.saltmere.test/dredger');
  await page.getByRole('button', { name: 'Follow', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Feeds' }).getByRole('alert')).toContainText(
    'is no feed and names none',
  );
  await close();
});

test('a letter sent to one’s own address arrives while one looks on, and asks strangers for nothing unasked', async ({
  browser,
}) => {
  const { page, close } = await newcomer(browser, 'Post');
  await page.goto('/gather');
  const own = (await page.getByRole('region', { name: 'Letters' }).locator('p.select-all').textContent())!;
  await page.goto('/library');
  await sendLetter(MAIL_PORT, {
    from: 'Eel Watch <eels@letters.saltmere.test>',
    to: own,
    subject: 'Eleven eels',
    html: '<p>All of them were going out.</p><img src="http://studio.saltmere.test/pictures/still.svg" width="300">',
  });
  await page.getByRole('link', { name: 'Eleven eels' }).click();
  await opened(page);
  await expectSeen(page.getByText('1 picture of this letter lies with its sender'));
  await page.getByRole('button', { name: 'Fetch the pictures' }).click();
  await expect(page.getByTitle('Versions of this source')).toContainText('1 of 2');
  await close();
});

test('a PDF shows its pages, and words dragged over on them are marked in their order', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Pages');
  await address(page).fill('http://survey.saltmere.test/state-of-the-marsh-2025.pdf');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await openKept(page);
  await expect(page.locator('canvas[data-drawn="1"]')).toBeVisible();
  await drag(page, 'lies on the surface; the plate is needed because a');
  await page.keyboard.press('2');
  await expect
    .poll(async () => (await painted(page))['avrelle-verdigris-dashed'])
    .toEqual(['lies on the surface; the plate is needed because a']);
  // The words over the picture run as wide as the picture's own: to within a pixel or two.
  const off = await page.evaluate(
    () =>
      [
        ...document
          .querySelector('iframe')!
          .contentDocument!.querySelectorAll<HTMLElement>('section[data-avrelle-page="1"] span[style]'),
      ]
        .map((span) =>
          Math.abs(
            span.getBoundingClientRect().width -
              Number(span.style.getPropertyValue('--l')) *
                Number.parseFloat(getComputedStyle(span).getPropertyValue('--u')),
          ),
        )
        .filter((d) => d > 2).length,
  );
  expect(off).toBe(0);
  await page.getByRole('button', { name: 'Larger pages' }).click();
  await expect(page.getByTitle('Fill the width')).toHaveText('125 %');
  await page.getByRole('button', { name: 'Contents' }).click();
  await page.getByRole('menuitem', { name: '4 What this means p. 2' }).click();
  await expect(page.locator('canvas[data-drawn="2"]')).toBeVisible();
  await page.getByRole('button', { name: 'Find in text' }).click();
  await page.getByLabel('Words in this source').fill('neap high water');
  await expectSeen(page.getByText('1 of 1, p. 2'));
  await expect.poll(async () => (await painted(page))['avrelle-found']).toEqual(['neap high water']);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await expect(page.locator('canvas')).toHaveCount(0);
  await expect
    .poll(async () => (await painted(page))['avrelle-verdigris-dashed'])
    .toEqual(['lies on the surface; the plate is needed because a']);
  await close();
});

test('a locked PDF asks for its password beside what failed', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Locked');
  await upload(page, {
    name: 'ledger.pdf',
    mimeType: 'application/pdf',
    buffer: await pdf((doc) => doc.text('What the gate has cost.'), { userPassword: 'low tide' }),
  });
  const job = page.getByRole('list', { name: 'Being kept' }).getByRole('listitem').first();
  await expect(job).toContainText('The file wants a password');
  await job.getByLabel('Password of ledger.pdf').fill('high tide');
  await job.getByRole('button', { name: 'Open it' }).click();
  await expect(job).toContainText('That is not its password');
  await job.getByLabel('Password of ledger.pdf').fill('low tide');
  await page.keyboard.press('Enter');
  await openKept(page);
  await expect(page.locator('canvas[data-drawn="1"]')).toBeVisible();
  await close();
});

test('a recording is followed word by word, and a moment of it noted', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Sound');
  await upload(
    page,
    ['walk-along-the-bank.ogg', 'walk-along-the-bank.vtt'].map((name) => path.join(FILES, name)),
  );
  await openKept(page);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect
    .poll(async () => (await painted(page))['avrelle-cue']?.[0])
    .toMatch(/Shut the gate|We are standing|The marsh/);
  await page.getByRole('button', { name: 'Pause' }).click();
  const line = (await page.getByRole('slider', { name: 'Moment' }).locator('xpath=../..').boundingBox())!;
  await page.mouse.click(line.x + line.width * 0.79, line.y + line.height / 2);
  await expect.poll(async () => (await painted(page))['avrelle-cue']?.[0]).toContain('You lie on a door');
  await page.getByRole('button', { name: 'Note this moment' }).click();
  await page.keyboard.type('Which year was it set?');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.reload();
  await opened(page);
  await page
    .getByRole('region', { name: 'Recording' })
    .getByRole('button', { name: /^Note at 1:1\d$/ })
    .click();
  await page.getByRole('button', { name: /^Play at 1:1\d$/ }).click();
  await expectSeen(page.getByRole('button', { name: 'Pause' }));
  await expect
    .poll(async () => (await painted(page))['avrelle-cue']?.[0])
    .toMatch(/You lie on a door|closing by itself/);
  await close();
});

test('words of a transcript are marked with a real drag, and stand on the line of time', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Spoken');
  await upload(
    page,
    ['walk-along-the-bank.ogg', 'walk-along-the-bank.vtt'].map((name) => path.join(FILES, name)),
  );
  await openKept(page);
  await drag(page, 'The bank broke here');
  await page.keyboard.press('2');
  await expect.poll(async () => (await painted(page))['avrelle-verdigris-dashed']).toEqual(['The bank broke here']);
  const tick = page.getByRole('region', { name: 'Recording' }).getByRole('button', { name: /^Evidence at 0:\d\d$/ });
  await expectSeen(tick);
  await page.reload();
  await opened(page);
  await tick.click();
  await expectSeen(page.getByRole('article', { name: /Evidence, Spoken/ }));
  const moment = page.getByRole('slider', { name: 'Moment' });
  await moment.focus();
  await page.keyboard.press('Home');
  await expect(moment).toHaveAttribute('aria-valuetext', /^0:00/);
  // However fast the keys come.
  for (const key of ['PageUp', 'PageUp', 'ArrowUp', 'ArrowRight', 'ArrowRight']) await page.keyboard.press(key);
  await expect(moment).toHaveAttribute('aria-valuetext', /^0:23/);
  await close();
});

test('an area and a point of a picture are drawn with the pointer, stay, and open their notes', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Area');
  await upload(page, path.join(FILES, 'sluice-nine-at-dawn.png'));
  await openKept(page);
  await page
    .frameLocator('iframe[title^="Text of"]')
    .locator('img')
    .evaluate((img: HTMLImageElement) => img.decode());
  await page.keyboard.press('a');
  const frame = (await page.locator('iframe[title^="Text of"]').boundingBox())!;
  await stroke(page, { x: frame.x + 220, y: frame.y + 220 }, { x: frame.x + 320, y: frame.y + 310 });
  await page.keyboard.type('The hinge side.');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('button', { name: 'Area', exact: true }).click();
  await page.mouse.click(frame.x + 500, frame.y + 240);
  await page.keyboard.type('The sun.');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const area = page.getByRole('button', { name: /: area$/ });
  const point = page.getByRole('button', { name: /: point$/ });
  await expectSeen(area);
  await expectSeen(point);
  await page.reload();
  await opened(page);
  const box = (await area.boundingBox())!;
  expect([Math.round(box.width / 10), Math.round(box.height / 10)]).toEqual([10, 9]);
  await area.click();
  await expect(
    page.getByRole('article', { name: /Note, Area Test/ }).filter({ hasText: 'The hinge side.' }),
  ).toContainText('an area of the picture');
  // It is tied to the heading's words, and does not mean them.
  expect((await painted(page))['avrelle-open']).toBeUndefined();
  // A card hides the area, and nothing else of the picture.
  await page.keyboard.press('c');
  const dialog = page.getByRole('dialog', { name: 'Make a card' });
  await dialog.getByLabel('Put this area under a slip').check();
  await dialog.getByRole('button', { name: 'Make the card' }).click();
  await page.goto('/review');
  const slip = page.locator('.slip-area');
  await expectSeen(slip);
  const picture = (await page.getByAltText('The picture that was marked').boundingBox())!;
  const hidden = (await slip.boundingBox())!;
  expect(hidden.width / picture.width).toBeCloseTo(100 / frame.width, 1);
  await slip.click();
  await expect(slip).toHaveCount(0);
  await expectSeen(page.getByText('The hinge side.'));
  await close();
});

test('a book opens as one text, its links lead within it', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Book');
  await upload(page, path.join(FILES, 'walkers-booklet.epub'));
  await openKept(page);
  await drag(page, 'asking the mud a question');
  await page.keyboard.press('6');
  await expect.poll(async () => (await painted(page))['avrelle-ochre-thick']).toEqual(['asking the mud a question']);
  await expect(page.frameLocator('iframe[title^="Text of"]').getByRole('heading')).toHaveCount(5);
  await close();
});

test('files that are not what they should be are refused with what to do', async ({ browser }) => {
  const { page, close } = await newcomer(browser, 'Bad');
  for (const [name, bytes, words] of [
    ['survey.pdf', '%PDF-1.7 and then nothing', 'The PDF cannot be read'],
    ['booklet.epub', 'PK\u0003\u0004 broken', 'The archive cannot be unpacked'],
    ['gate.png', 'no picture', 'The file is not what its name says'],
    ['nothing.txt', '', 'The file is empty'],
  ] as const) {
    await upload(page, { name, mimeType: 'application/octet-stream', buffer: Buffer.from(bytes, 'latin1') });
    await expect(
      page.getByRole('list', { name: 'Being kept' }).getByRole('listitem').filter({ hasText: name }).first(),
    ).toContainText(words);
  }
  expect(fs.existsSync(FILES)).toBe(true);
  await close();
});
