import { fileURLToPath } from 'node:url';
import { expect, test, type Page } from '@playwright/test';
import { buildSync } from 'esbuild';
import { opened, visit, expectSeen } from './helpers';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
/** The walk as the browser runs it, put into the page beside the application. */
const reader = buildSync({
  stdin: { contents: "export { readTree } from './core/text/index.ts'", resolveDir: ROOT },
  bundle: true,
  write: false,
  format: 'iife',
  globalName: 'AvrelleText',
}).outputFiles[0]!.text;

const sourceId = async (page: Page, title: string): Promise<string> => {
  const { sources } = (await (await page.request.get('/api/sources')).json()) as {
    sources: { id: string; title: string }[];
  };
  return sources.find((s) => s.title.includes(title))!.id;
};

test('no page of ours asks anybody else for anything', async ({ browser }) => {
  const { page, close } = await visit(browser, 'ines');
  const foreign: string[] = [];
  page.on('request', (request) => {
    const { host, protocol } = new URL(request.url());
    if (
      !['blob:', 'data:'].includes(protocol) &&
      host !== new URL(page.url() === 'about:blank' ? 'http://127.0.0.1:4820' : page.url()).host
    )
      foreign.push(request.url());
  });
  let seen = 0;
  page.on('request', () => {
    seen++;
  });
  for (const title of [
    'Walks Inland',
    'Who pays',
    'Five Drawings',
    'αλμυρό',
    'State of the Saltmere',
    'Walk along',
    'Walker’s Booklet',
    'week on the marsh',
  ]) {
    await page.goto(`/source/${await sourceId(page, title)}`);
    await opened(page);
    await page.getByRole('group', { name: 'Show marks' }).getByRole('button', { name: /^none/ }).click();
  }
  for (const path of ['/desk', '/library', '/find?q=mud']) await page.goto(path);
  expect(seen).toBeGreaterThan(20);
  expect(foreign).toEqual([]);
  await close();
});

test('what a source needs is asked for once, though its page tells of it beforehand', async ({ browser }) => {
  const { page, close } = await visit(browser, 'esme');
  const id = await sourceId(page, 'Walks Inland');
  let asked: string[] = [];
  page.on('request', (request) => {
    const { pathname } = new URL(request.url());
    // The Library may still be fetching this code ahead of time.
    if (!request.headers().referer?.endsWith(`/source/${id}`)) return;
    if (pathname.startsWith(`/api/sources/${id}`) || pathname.startsWith('/assets/ReaderPage')) asked.push(pathname);
  });
  // A browser with much to do may ask again for what is still on its way; what we ask for twice is asked for twice each time.
  await expect(async () => {
    asked = [];
    await page.goto(`/source/${id}`);
    await opened(page);
    await expectSeen(page.locator('[data-annotation]').first());
    expect(
      ['/text', '/annotations', '/assets/ReaderPage'].map((part) => asked.filter((path) => path.includes(part)).length),
    ).toEqual([1, 1, 1]);
  }).toPass();
  await close();
});

/** Markup that parsers have to mend, and elements that stand for themselves. */
const ODD = `<p>one<p>two <b>bold <i>both</b> italic</i><table><p>foster</p><tr><td>a<td><p>b</p><tr><th>c</table><ul><li>x<li>y<ul><li>z</ul></ul>
<pre>
  kept   space
 two</pre><details><summary>more</summary>hidden away</details><ruby>潮<rp>(</rp><rt>しお</rt></ruby> so\u00ADft&nbsp;hard&#8203;zero <math><mi>x</mi><mo>=</mo><mn>2</mn></math>
<a href="#a">outer <a href="#b">inner</a></a><button>press</button><label>name <input value="v"></label><select><option>o</select><textarea>t</textarea>
<dl><dt>term<dd>meaning</dl><blockquote>said<br><br>twice</blockquote><svg><text>drawn</text></svg><h2>head<small> small</small></h2><center>old</center><font color=red>font</font><wbr>𝒳 end`;

test('the browser reads the same text stream as the server, on every sample', async ({ browser }) => {
  const { page, close } = await visit(browser, 'ines');
  await page
    .getByLabel('File to keep')
    .setInputFiles({ name: 'odd.html', mimeType: 'text/html', buffer: Buffer.from(ODD) });
  await expectSeen(page.getByText('Kept.'));
  const { sources } = (await (await page.request.get('/api/sources')).json()) as {
    sources: { id: string; title: string }[];
  };
  expect(sources.length).toBeGreaterThanOrEqual(8);
  for (const { id, title } of sources) {
    const server = (await (await page.request.get(`/api/sources/${id}/text`)).json()) as {
      text: string;
      outline: unknown[];
    };
    await page.goto(`/source/${id}`);
    await opened(page);
    await page.evaluate(reader);
    const browserText = await page.evaluate(() => {
      const { text, outline } = (
        window as unknown as { AvrelleText: { readTree(root: Node): { text: string; outline: unknown[] } } }
      ).AvrelleText.readTree(document.querySelector('iframe')!.contentDocument!.documentElement);
      return { text, outline };
    });
    expect([title, browserText]).toEqual([title, { text: server.text, outline: server.outline }]);
  }
  await close();
});

test('on a phone a reader finds, reads and opens a note', async ({ browser }) => {
  const { page, close } = await visit(browser, 'ines');
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`/source/${await sourceId(page, 'Walks Inland')}`);
  await opened(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page
    .getByRole('article', { name: /Evidence, Tomas/ })
    .getByRole('button')
    .first()
    .click();
  await expectSeen(page.getByText('Then the gap is 0.7 mm a year.'));
  for (const path of [
    '/library',
    '/library?view=compact',
    '/library?view=table',
    '/library?view=board',
    '/work-through',
    '/desk',
    '/classes',
    '/find?q=mud',
  ]) {
    await page.goto(path);
    await expectSeen(page.getByRole('main').getByRole('heading').first());
    expect([path, await page.evaluate(() => document.documentElement.scrollWidth)]).toEqual([path, 390]);
  }
  await page.goto('/library');
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('button', { name: /^Reading/ }).click();
  await expectSeen(page.getByText(/^\d+ of \d+$/));
  await close();
});
