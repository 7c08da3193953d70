import { expect, test, type Locator, type Page } from '@playwright/test';
import type { ClassRow, LibraryOutline, SourcePage, StudyNoteRow } from '@avrelle/core/wire';
import {
  arrive,
  beyond,
  cutOff,
  inBothThemes,
  ofApi,
  PHONE,
  SPACING,
  tooSmall,
  violations,
  type Rules,
} from './accessible';
import { expectSeen, opened, visit } from './helpers';

/** axe waits for timers, which do not run in a frame without scripting: as in WebKit, it is allowed here. */
async function letAxeIntoFrames(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const set = Element.prototype.setAttribute;
    Element.prototype.setAttribute = function (name, value) {
      set.call(this, name, name === 'sandbox' ? `${value} allow-scripts` : value);
    };
  });
}

/**
 * What axe finds in the document that is read. Landmarks are those of the page around it, the order of headings is its
 * author's, and nobody knows every text's language.
 */
async function inFrame(page: Page, rules: Rules): Promise<string[]> {
  const handle = await page.locator('iframe[title^="Text of"]').elementHandle();
  const frame = (await handle!.contentFrame())!;
  const hasLanguage = (await handle!.getAttribute('lang')) !== null;
  const left = ['landmark-one-main', 'region', 'heading-order', ...(hasLanguage ? [] : ['html-has-lang'])];
  return violations(frame, rules, 'html', left);
}

/** Every main view of the demo, by its address. */
async function addresses(page: Page) {
  const { sources } = await ofApi<SourcePage>(page, '/api/sources');
  const of = (title: string): string => sources.find((s) => s.title.includes(title))!.id;
  const [classRow] = await ofApi<ClassRow[]>(page, '/api/classes');
  const { collections } = await ofApi<LibraryOutline>(page, '/api/library');
  const collection = collections.find((c) => c.name.startsWith('Essay'))!;
  const essay = (await ofApi<StudyNoteRow[]>(page, '/api/notes')).find((n) => n.title.includes('essay'));
  return {
    marsh: `/source/${of('Walks Inland')}`,
    dawn: `/source/${of('Sluice nine at dawn')}`,
    class: `/classes/${classRow!.id}`,
    library: ['/library', ...['compact', 'table', 'board', 'calendar'].map((view) => `/library?view=${view}`)],
    others: [
      '/desk',
      '/library/deleted',
      '/work-through',
      '/topic?tag=essay',
      `/collection/${collection.id}`,
      '/classes',
      '/find?q=marsh',
      '/find?q=marsh&of=sources',
      '/gather',
      '/account',
      '/notifications',
      '/notes',
      '/review',
      '/review/cards',
      '/review/statistics',
      ...(essay ? [`/notes/${essay.id}`] : []),
      `/source/${of('Sluice Nine')}/changes`,
    ],
    sources: [
      `/source/${of('Sluice Nine')}?version=1`,
      ...['State of the Saltmere', 'Walk along', 'Walker’s Booklet'].map((title) => `/source/${of(title)}`),
    ],
  };
}

const OVER = '[data-radix-popper-content-wrapper], [role=dialog]';

/** Opens everything on a page that opens something, one after the other, and looks at what has opened; of rows, one. */
async function popups(page: Page): Promise<string[]> {
  const found: string[] = [];
  const triggers = page.locator(':is(main, header) :is([aria-haspopup=menu], [aria-haspopup=dialog]):enabled:visible');
  const names = await triggers.evaluateAll((all) => all.map((e) => e.getAttribute('aria-label') ?? e.textContent));
  const kinds = names.map((name) => name.replace(/^(More for|Change) .*/, '$1'));
  for (const [at, name] of names.entries()) {
    if (kinds.indexOf(kinds[at]!) < at) continue;
    const over = page.locator(OVER).first();
    await expect(async () => {
      // A row may have been drawn anew, and what it opened gone with it.
      if (!(await over.isVisible())) await triggers.nth(at).press('Enter');
      await expect(over, `“${name}” opens`).toBeVisible({ timeout: 3_000 });
      await expectSeen(over, 3_000);
      found.push(...(await inBothThemes(page, OVER)).map((v) => `“${name}” ${v}`));
    }).toPass({ timeout: 20_000 });
    await page.keyboard.press('Escape');
    await expect(over).toHaveCount(0);
  }
  return found;
}

/** Narrow, all is looked at where it is narrowest (WCAG 2.2, 1.4.10); a little wider, only whether it fits. */
const SIZES = [
  { width: 1280, height: 800, also: [] },
  { width: 320, height: 640, also: [390] },
] as const;

for (const { width, height, also } of SIZES) {
  test.describe(`${width} pixels wide, by day and night`, () => {
    const begin = async (browser: Parameters<typeof visit>[0]) => {
      const { page, close } = await visit(browser, 'ines');
      await page.setViewportSize({ width, height });
      return { page, close, at: await addresses(page) };
    };
    const tooWide = async (page: Page): Promise<readonly string[]> => {
      const found: string[] = [];
      for (const wide of [...also, width]) {
        if (also.length > 0) await page.setViewportSize({ width: wide, height });
        if ((await beyond(page)) > 0) found.push(`${await beyond(page)} pixels too wide for ${wide}`);
      }
      return found;
    };

    test('axe finds nothing on any view, and none is too wide', async ({ browser }) => {
      const { page, close, at } = await begin(browser);
      const found: string[] = [];
      for (const path of [...at.library, ...at.others, at.class, ...at.sources]) {
        await arrive(page, path);
        found.push(...[...(await inBothThemes(page)), ...(await tooWide(page))].map((v) => `${path} ${v}`));
      }
      expect(found).toEqual([]);
      await close();
    });

    test('axe finds nothing in any menu', async ({ browser }) => {
      const { page, close, at } = await begin(browser);
      const found: string[] = [];
      for (const path of [at.marsh, '/library', '/library?view=table', '/find?q=marsh', at.class, '/desk']) {
        await arrive(page, path);
        found.push(...(await popups(page)).map((v) => `${path} ${v}`));
      }
      expect(found).toEqual([]);
      await close();
    });

    test('axe finds nothing in any dialog, nor while one draws, writes or signs in', async ({ browser }) => {
      const { page, close, at } = await begin(browser);
      const found: string[] = [];
      const look = async (what: string, seen: Locator, within?: string): Promise<void> => {
        await expectSeen(seen);
        found.push(...(await inBothThemes(page, within)).map((v) => `${what} ${v}`));
        if ((await beyond(page)) > 0) found.push(`${what}: the page is ${await beyond(page)} pixels too wide`);
      };
      await arrive(page, at.marsh);
      await page.getByRole('button', { name: 'Edit the Legend' }).click();
      await look('Legend', page.getByRole('dialog'), OVER);
      await page.keyboard.press('Escape');
      await page.keyboard.press('?');
      await look('commands', page.getByRole('dialog', { name: 'Commands' }), OVER);
      await page.keyboard.press('Escape');
      await page.keyboard.press('f');
      await look('find', page.getByLabel('Words in this source'));
      await page.keyboard.press('Escape');
      await page.keyboard.press('n');
      await look('note', page.getByRole('textbox', { name: /note/i }).first());
      await arrive(page, at.dawn);
      for (const digit of ['1', '2', '9']) {
        if (!(await page.getByRole('button', { name: 'Done' }).isVisible())) await page.keyboard.press('d');
        await page.keyboard.press(digit);
        await look(`drawing ${digit}`, page.getByRole('radiogroup', { name: 'Drawing tools' }));
      }
      await arrive(page, `${at.dawn}/picture`);
      await look('picture', page.getByText('1200 × 800 pixels'));
      await arrive(page, '/library?q=mud');
      await page.getByRole('button', { name: 'Save this search' }).click();
      await look('search', page.getByRole('dialog', { name: 'Save this search' }), OVER);
      await arrive(page, '/library');
      await page.getByLabel('Address of a page').fill('http://packet.saltmere.test/letters/gate-at-night');
      await page.getByRole('button', { name: 'Look first' }).click();
      await look('look first', page.getByRole('form', { name: 'How it is kept' }));
      await page.request.delete('/api/session');
      await page.goto('/library');
      await look('sign in', page.getByRole('heading', { name: 'Sign in' }));
      expect(found).toEqual([]);
      await close();
    });
  });
}

/** As the policy of Avrelle says it for WebKit: scripting is allowed to the frame, and nothing is there to run. */
const AS_WEBKIT =
  'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.5 Safari/605.1.15';

test('axe finds nothing in the document that is read, by day and night, marked and while words are looked for', async ({
  browser,
}) => {
  const { page, close } = await visit(browser, 'ines', '/library', { userAgent: AS_WEBKIT });
  await letAxeIntoFrames(page);
  const { marsh, sources, dawn } = await addresses(page);
  const found: string[] = [];
  for (const [theme, rules] of [
    ['day', 'all'],
    ['night', 'colours'],
  ] as const) {
    await page.evaluate((t) => localStorage.setItem('avrelle.theme', t), theme);
    for (const path of [marsh, dawn, ...sources]) {
      await arrive(page, path);
      if ((await page.locator('iframe[title^="Text of"]').count()) === 0) continue;
      await opened(page);
      const look = async (what: string): Promise<void> => {
        found.push(...(await inFrame(page, rules)).map((v) => `${path} ${theme} ${what} ${v}`));
      };
      await look('as it is');
      if (path !== marsh) continue;
      await page.keyboard.press('f');
      await page.getByLabel('Words in this source').fill('mud');
      await look('found');
      await page.keyboard.press('Escape');
    }
  }
  expect(found).toEqual([]);
  await close();
});

test('every page names its window and is begun at its heading; what stands before it can be skipped', async ({
  browser,
}) => {
  const { page, close } = await visit(browser, 'ines');
  await expect(page).toHaveTitle('Library · Avrelle');
  await page.keyboard.press('Tab');
  const skip = page.getByRole('button', { name: 'Skip to the page' });
  await expectSeen(skip);
  await expect(skip).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Library' })).toBeFocused();
  await expect(skip).not.toBeInViewport();
  for (const name of ['Desk', 'Classes']) {
    await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name }).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { level: 1, name })).toBeFocused();
    await expect(page).toHaveTitle(`${name} · Avrelle`);
  }
  // Who writes in the field above goes on writing.
  await page.keyboard.press('/');
  await page.keyboard.type('mud');
  await page.keyboard.press('Enter');
  await expect(page).toHaveTitle('Find · Avrelle');
  await expect(page.getByRole('searchbox', { name: 'Find a passage, note or tag' })).toBeFocused();
  const { marsh } = await addresses(page);
  await arrive(page, marsh);
  await expect(page).toHaveTitle('The Marsh That Walks Inland · Avrelle');
  for (const [name, place] of [
    ['Skip to the notes', page.getByRole('complementary', { name: 'Margin' })],
    ['Skip to the text', page.locator('iframe[title^="Text of"]')],
  ] as const) {
    await page.getByRole('button', { name }).focus();
    await expectSeen(page.getByRole('button', { name }));
    await page.keyboard.press('Enter');
    await expect(place).toBeFocused();
  }
  await close();
});

test('with WCAG text spacing no words are cut off and no page is too wide', async ({ browser }) => {
  const { page, close } = await visit(browser, 'ines');
  const at = await addresses(page);
  const found: string[] = [];
  for (const path of [...at.library, ...at.others, at.class, at.marsh]) {
    await arrive(page, path);
    await page.addStyleTag({ content: SPACING });
    found.push(...(await cutOff(page)).map((what) => `${path} ${what}`));
    if ((await beyond(page)) > 0) found.push(`${path} is ${await beyond(page)} pixels too wide`);
  }
  expect(found).toEqual([]);
  await close();
});

test('where colours are forced, every kind of the Legend keeps a line of its own', async ({ browser }) => {
  const { page, close } = await visit(browser, 'ines');
  await page.emulateMedia({ forcedColors: 'active' });
  await arrive(page, (await addresses(page)).marsh);
  const lines = await page
    .locator('footer :is(.line-solid, .line-dashed, .line-wavy, .line-dotted, .line-double, .line-thick)')
    .evaluateAll((kinds) =>
      kinds.map((kind) => {
        const { textDecorationLine, textDecorationStyle, textDecorationThickness } = getComputedStyle(kind);
        return [textDecorationLine, textDecorationStyle, textDecorationThickness].join(' ');
      }),
    );
  expect(new Set(lines).size).toBe(6);
  expect(lines.every((line) => line.startsWith('underline'))).toBe(true);
  await close();
});

test('every target fits a finger, on every view and in the menus of reading', async ({ browser }) => {
  const { page, close } = await visit(browser, 'ines', '/library', PHONE);
  const at = await addresses(page);
  const found: string[] = [];
  for (const path of [...at.library, ...at.others, at.class, at.marsh, ...at.sources]) {
    await arrive(page, path);
    found.push(...(await tooSmall(page)).map((what) => `${path} ${what}`));
    if ((await beyond(page)) > 0) found.push(`${path} is ${await beyond(page)} pixels too wide`);
  }
  await arrive(page, at.marsh);
  for (const name of [/^Read\b/, /^Organise/, /^Export/, /^Writing for/]) {
    await page.getByRole('button', { name }).first().tap();
    await expectSeen(page.locator(OVER).first());
    found.push(...(await tooSmall(page, `:is(${OVER})`)).map((what) => `${String(name)} ${what}`));
    await page.keyboard.press('Escape');
    await expect(page.locator(OVER)).toHaveCount(0);
  }
  expect(found).toEqual([]);
  await close();
});
