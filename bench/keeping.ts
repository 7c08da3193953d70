import http from 'node:http';
import type { Ingested } from '../server/ingest/ingested';
import { Readability } from '@mozilla/readability';
import JSDOMParser from '@mozilla/readability/JSDOMParser.js';
import { parse, serialize } from 'parse5';
import { ingest } from '../server/ingest/ingest';
import { atMost, inTurn, prose, seeded, time, type Bench, type Result } from './measure';

/** A page of about 2 MB with 60 pictures from a server on this machine. */
export const keeping: Bench = async () => {
  const picture = Buffer.concat([Buffer.from('89504e470d0a1a0a', 'hex'), Buffer.alloc(32_000)]);
  const html = `<html><head><title>p</title></head><body><article><h1>p</h1>${prose(80_000, seeded(6))
    .split('\n\n')
    .map((p, n) => `<p>${p}</p>${n < 60 ? `<img src="/i${n}.png">` : ''}`)
    .join('')}</article></body></html>`;
  const site = http.createServer((request, response) => {
    const n = /^\/i(\d+)/.exec(request.url ?? '')?.[1];
    response
      .writeHead(200, { 'content-type': n ? 'image/png' : 'text/html' })
      .end(n ? Buffer.concat([picture, Buffer.from([Number(n)])]) : html);
  });
  await new Promise<void>((ready) => site.listen(0, '127.0.0.1', ready));
  const { port } = site.address() as { port: number };
  const run = () =>
    ingest(
      { type: 'address', address: 'http://long.saltmere.test/' },
      { names: [{ suffix: 'saltmere.test', host: '127.0.0.1', port }], privateHosts: [] },
    );
  await run();
  let kept: Ingested | undefined;
  const took = await time(async () => {
    kept = await run();
  });
  site.close();
  const size = kept!.snapshot.length + kept!.assets.reduce((sum, a) => sum + a.bytes.byteLength, 0);
  const replaced = html.length + 60 * (picture.length + 1);
  return [
    atMost(`keep a page of ${(replaced / 1e6).toFixed(1)} MB with ${kept!.assets.length} pictures`, took, 'ms', 1500),
    atMost('its size, of the bytes it replaces', size / replaced, '×', 1.4),
  ];
};

/** A page as handbooks and references are: entries of a definition list with code, links and tables. */
function handbook(kilobytes: number): string {
  const words = prose(kilobytes * 400, seeded(8)).split(/\s+/);
  const entries: string[] = [];
  let size = 0;
  for (let n = 0; size < kilobytes * 1_000; n++) {
    const some = (from: number, count: number): string => {
      const at = (n * 40 + from) % (words.length - count);
      return words.slice(at, at + count).join(' ');
    };
    const entry = `<dt id="e${n}"><code>gauge.${n}</code> <a href="#e${n}">${some(0, 2)}</a></dt><dd><p>${some(2, 14)} <em>${some(16, 2)}</em>, <code>${some(18, 1)}</code> ${some(19, 12)} <a href="/see/${n}">${some(31, 2)}</a>.</p><table><tr><td>${some(33, 2)}</td><td>${some(35, 3)}</td></tr></table></dd>`;
    entries.push(entry);
    size += entry.length;
  }
  return `<!doctype html><html><head><title>Handbook</title></head><body><nav><a href="/">Home</a></nav><h1>Handbook</h1><dl>${entries.join('\n')}</dl></body></html>`;
}

/** The work of a thread alone: nothing is fetched. */
function keepFile(html: string): () => Promise<number> {
  const bytes = Buffer.from(html);
  return () => time(() => ingest({ type: 'file', name: 'handbook.html', bytes }, { names: [], privateHosts: [] }));
}

/** Its yardstick: one standard parse, and one run of the extraction library on its own tree, as it comes. */
const parseAndExtract = (html: string) => (): Promise<number> =>
  time(() => {
    const document = new JSDOMParser().parse(serialize(parse(html)));
    // What ours adds to that tree stays with all of its kind.
    delete (Object.getPrototypeOf(document.documentElement) as Partial<Element>).querySelectorAll;
    if (!new Readability(document).parse()) throw new Error('Nothing was extracted.');
  });

export const handbooks: Bench = async (): Promise<Result[]> => {
  const html = handbook(755);
  const keep = keepFile(html);
  await keep();
  const once = await inTurn(9, keep, parseAndExtract(html));
  const twice = await inTurn(3, keepFile(handbook(1_510)), keep);
  const elements = (html.match(/<[a-z]/g) ?? []).length;
  return [
    atMost(`keep a reference page of 755 kB with ${elements.toLocaleString('en')} elements`, once.ours, 'ms', 1_500),
    atMost('that, of a bare parse and extraction', once.ratio, '×', 2),
    atMost('one twice as long, of the time for that', twice.ratio, '×', 2.3),
  ];
};
