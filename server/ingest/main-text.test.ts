import { expect, test } from '@jest/globals';
import { mainText } from '@avrelle/core/text';
import { ingest } from './ingest';

const OPEN = { names: [], privateHosts: [] };
const main = async (body: string): Promise<string> => {
  const kept = await ingest(
    {
      type: 'file',
      name: 'a.html',
      bytes: Buffer.from(
        `<!doctype html><html lang="en"><head><title>Handbook of the marsh</title></head><body>${body}</body></html>`,
      ),
    },
    OPEN,
  );
  return mainText(kept.text, kept.outline);
};
const sentence = (n: number): string =>
  `Reading ${n} was taken at the third peg, an hour before low water, by whoever was there.`;
const MENU = `<div class="top"><ul>${Array.from({ length: 12 }, (_, n) => `<li><a href="/${n}">Menu ${n}</a></li>`).join('')}</ul></div>`;
const SIDE = `<div class="sidebar"><h3>See also</h3><p>Another page of the handbook, about boots and about those who forgot theirs at home.</p></div>`;

/** Pages of reference and handbooks as generators write them (common practice); shares of their sentences. */
test.each<[string, (n: number) => string, (all: string) => string]>([
  [
    'definition lists',
    (n) => `<dt><code>peg_${n}()</code></dt><dd><p>${sentence(n)}</p></dd>`,
    (all) => `<div class="body"><h1>Functions</h1><dl>${all}</dl></div>`,
  ],
  [
    'boxes used as paragraphs',
    (n) => `<div class="para">${sentence(n)}</div>`,
    (all) => `<div class="section"><h2>Readings</h2>${all}</div>`,
  ],
  [
    'functions in tables',
    (n) => `<tr><td><code>peg_${n}</code></td><td>${sentence(n)}</td></tr>`,
    (all) => `<h1>Functions</h1><p>What follows.</p><table>${all}</table>`,
  ],
  [
    'a command’s manual',
    (n) =>
      `<h3>-${String.fromCharCode(97 + n)}</h3><div class="opt"><pre>peg -${n}</pre><div>${sentence(n)}</div></div>`,
    (all) => `<div class="refentry"><h1>peg</h1>${all}</div>`,
  ],
  [
    'an index',
    (n) => `<li><a href="#p${n}">${sentence(n)}</a></li>`,
    (all) => `<h1>Index</h1><div class="index"><ul>${all}</ul></div>`,
  ],
])('a page of %s keeps its prose, and lets no menu in', async (_, part, page) => {
  const text = await main(
    MENU +
      SIDE +
      page(Array.from({ length: 20 }, (_each, n) => part(n)).join('\n')) +
      '<div class="footer">Set down by the handbook’s own press, long ago, and never mended since that time.</div>',
  );
  const kept = Array.from({ length: 20 }, (_each, n) => n).filter((n) => text.includes(sentence(n)));
  expect(kept).toHaveLength(20);
  for (const other of ['never mended', 'forgot theirs']) expect(text).not.toContain(other);
});

test('an ordinary article is as it was: its menus and what it advertises stay out', async () => {
  const text = await main(
    `${MENU}<article><h1>The marsh</h1>${Array.from({ length: 12 }, (_, n) => `<p>${sentence(n)}</p>`).join('')}</article><div class="promo">Buy boots that never leak, whatever the tide, from the only shop in the village that sells them.</div>`,
  );
  expect(text).toContain(sentence(11));
  for (const other of ['Menu 3', 'Buy boots']) expect(text).not.toContain(other);
});
