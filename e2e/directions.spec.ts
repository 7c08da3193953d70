import { expect, test } from '@playwright/test';
import { drawn, liesOver, over } from './ink';
import { clickWords, drag, expectSeen, newcomer, opened, painted, placeOf, writtenIn } from './helpers';

/** Written for these tests: the tide, in four scripts. */
const TEXTS = [
  {
    language: 'ar',
    direction: 'rtl',
    title: 'المد في المستنقع',
    words: 'ثم ينحسر الماء',
    text: 'المد يعلو مرتين كل يوم، ثم ينحسر الماء عن الطين فتظهر الأوتاد السبعة.',
  },
  {
    language: 'he',
    direction: 'rtl',
    title: 'הגאות בביצה',
    words: 'המים נסוגים',
    text: 'הגאות עולה פעמיים ביום, ואז המים נסוגים מן הבוץ ושבע היתדות נראות.',
  },
  {
    language: 'zh',
    direction: 'ltr',
    title: '沼泽的潮水',
    words: '水又退去',
    text: '潮水一天涨两次，然后水又退去，七根木桩就露了出来。',
  },
  {
    language: 'ja',
    direction: 'ltr',
    title: '湿地の潮',
    words: 'やがて水は引き',
    text: '潮は一日に二度満ち、やがて水は引き、七本の杭が現れる。',
  },
] as const;

for (const { language, direction, title, words, text } of TEXTS) {
  test(`a text in ${language} is read, marked, moved and listed in its own direction`, async ({ browser }) => {
    const { page, close } = await newcomer(browser, `Reader${language}`);
    const html = `<!doctype html><meta charset="utf-8"><title>${title}</title><main><h1>${title}</h1><p>${`${text} `.repeat(4)}</p><p>Peg 7 stands at the bank.</p></main>`;
    await page
      .getByLabel('File to keep')
      .setInputFiles({ name: 'tide.html', mimeType: 'text/html', buffer: Buffer.from(html) });
    await page.getByRole('link', { name: 'Open it' }).first().click();
    const frame = await opened(page);
    const align = (selector: string) =>
      frame
        .locator(selector)
        .first()
        .evaluate((element) => {
          const range = element.ownerDocument.createRange();
          range.selectNodeContents(element);
          const own = range.getClientRects()[0]!;
          const box = element.getBoundingClientRect();
          return own.left - box.left > box.right - own.right + 1 ? 'rtl' : 'ltr';
        });
    expect(await align('h1')).toBe(direction);
    expect(await align('p:last-of-type')).toBe('ltr');

    // A short text says “under a minute left”: all of the strip below still has room.
    const strip = page.locator('footer').filter({ has: page.getByRole('button', { name: 'Keys' }) });
    expect(await strip.evaluate((element) => element.scrollWidth - element.clientWidth)).toBe(0);

    await drag(page, words);
    await page.keyboard.press('2');
    await expect.poll(async () => Object.values(await painted(page)).flat()).toContain(words);
    await clickWords(page, words);
    const note = page.getByRole('article').first();
    await expectSeen(note);

    // The beginning of the words is where their first letter stands.
    const { from, to } = await placeOf(page, words);
    const [start, end] = [
      await page.getByRole('button', { name: 'Beginning of the mark' }).boundingBox(),
      await page.getByRole('button', { name: 'End of the mark' }).boundingBox(),
    ];
    expect(start!.x > end!.x).toBe(direction === 'rtl');
    const edge = (box: typeof start) => box!.x + box!.width / 2;
    expect(Math.min(Math.abs(edge(start) - from.x), Math.abs(edge(start) - to.x))).toBeLessThan(40);

    // No line runs under the words.
    const column = (await page.locator('iframe').boundingBox())!;
    const text0 = await frame.locator('p').first().boundingBox();
    const lines = await page.locator('svg path[d^="M"]').evaluateAll((paths) =>
      paths
        .map((path) => path.getAttribute('d')!)
        .filter((d) => /^M[\d.]+ [\d.-]+L/.test(d))
        .map((d) => Number(/^M([\d.]+)/.exec(d)![1])),
    );
    for (const x of lines) expect(x + column.x).toBeGreaterThan(text0!.x + text0!.width - 1);

    await note.getByRole('button', { name: 'Write' }).click();
    await writtenIn(note).fill(text);
    await page.keyboard.press('Control+Enter');
    await expectSeen(note.getByText(text));
    // Ink lies over its words, also where the lines break elsewhere; the map of the text is read the same way.
    await page.keyboard.press('d');
    await over(page, words);
    await drawn(page, 'pen');
    await page.getByRole('button', { name: 'Done' }).click();
    await expect.poll(() => liesOver(page, words)).toBe(true);
    const ends = await page
      .locator('[data-line="text"]')
      .evaluateAll((all) => all.map((line) => [line.getBoundingClientRect().left, line.getBoundingClientRect().right]));
    const even = (side: number): boolean => new Set(ends.map((end) => Math.round(end[side]!))).size === 1;
    expect([ends.length > 3, even(direction === 'rtl' ? 1 : 0)]).toEqual([true, true]);
    await page.setViewportSize({ width: 390, height: 844 });
    await expect.poll(() => liesOver(page, words)).toBe(true);
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(`/find?q=${encodeURIComponent(`"${words}"`)}`);
    const hit = page.getByRole('listitem').filter({ hasText: words }).locator('p').nth(1);
    await expectSeen(hit);
    expect(await hit.evaluate((element) => getComputedStyle(element).direction)).toBe(direction);
    await close();
  });
}
