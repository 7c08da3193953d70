import { ingest } from '../server/ingest/ingest';
import { parseHtml } from '../server/ingest/parse-html';
import { parse } from 'parse5';
const make = (n: number): string => {
  let out = '<!doctype html><html lang="en"><head><title>Marsh handbook</title><style>p{margin:0}</style></head><body><nav><ul><li><a href="/a">Home</a></li></ul></nav><main><h1>Marsh handbook</h1>';
  for (let i = 0; i < n; i++) out += `<section id="s${i}"><h2>Chapter ${i}</h2><p>The creek <em>drains</em> the marsh at ebb ${i}, and <a href="#s${i + 1}">the next chapter</a> says how much water goes.</p><ul><li>first <b>thing</b> here</li><li>second thing</li></ul><table><tr><td>a</td><td>${i}</td></tr></table></section>`;
  return out + '</main></body></html>';
};
async function main() {
  for (const n of [100, 1700, 1700]) {
    const html = make(n), els = (html.match(/<[a-z]/g) ?? []).length;
    let t = performance.now();
    parse(html); const p5 = performance.now() - t;
    t = performance.now(); parseHtml(html, 'https://x.test/'); const js = performance.now() - t;
    t = performance.now();
    await ingest({ type: 'file', name: 'a.html', bytes: Buffer.from(html) }, { allowPrivate: false } as never);
    console.log(n, html.length, els, 'parse5', p5 | 0, 'jsdom', js | 0, 'ingest', (performance.now() - t) | 0);
  }
}
void main();
