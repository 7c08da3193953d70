import { chromium } from '@playwright/test';
import PDFDocument from 'pdfkit';
import { v7 } from 'uuid';
import { CHROMIUM_ARGS } from '../e2e/constants';
import { atMost, figure, percentile, prose, seeded, type Bench } from './measure';
import { framesOf, startWhole } from './whole-server';

const PAGES = 500;

/** A report of 500 pages of text. */
function longPdf(): Promise<Buffer> {
  const doc = new PDFDocument({ size: 'A4', margin: 60, bufferPages: false });
  const parts: Buffer[] = [];
  const random = seeded(11);
  doc.on('data', (part: Buffer) => parts.push(part));
  const done = new Promise<Buffer>((resolve) => doc.on('end', () => resolve(Buffer.concat(parts))));
  for (let n = 1; n <= PAGES; n++) {
    if (n > 1) doc.addPage();
    doc
      .fontSize(15)
      .text(`Chapter ${n}`)
      .moveDown()
      .fontSize(11)
      .text(prose(2_600, random).replaceAll('\n\n', '\n'), { height: 620, ellipsis: true });
  }
  doc.end();
  return done;
}

/** Milliseconds of what somebody else asks for, every 50 ms until `work` ends. */
async function asksDuring(
  send: (method: string, url: string) => Promise<unknown>,
  work: Promise<unknown>,
): Promise<number[]> {
  const took: number[] = [];
  let busy = true;
  void work.finally(() => {
    busy = false;
  });
  while (busy) {
    const start = performance.now();
    await send('GET', '/api/sources');
    took.push(performance.now() - start);
    await new Promise((later) => setTimeout(later, 50));
  }
  await work;
  return took;
}

/** A PDF of 500 pages: kept in the background while others work, its first page, and scrolling. */
export const longPdfs: Bench = async () => {
  const server = await startWhole();
  const bytes = await longPdf();
  const before = process.memoryUsage().rss;
  const id = v7();
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(bytes)]), 'long.pdf');
  const start = performance.now();
  await server.send('POST', `/api/uploads/${id}`, form);
  let most = before;
  const watch = setInterval(() => {
    most = Math.max(most, process.memoryUsage().rss);
  }, 50);
  const kept = server.ended(id);
  const asks = await asksDuring((method, url) => server.send(method, url), kept);
  const took = performance.now() - start;
  clearInterval(watch);
  const { sourceId } = await kept;
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: server.base });
  await page.request.post('/api/session', { data: { email: server.account.email, password: server.account.password } });
  await page.goto('/library');
  const opening = performance.now();
  await page.goto(`/source/${sourceId}`);
  await page.locator('canvas[data-drawn="1"]').waitFor({ timeout: 60_000 });
  const first = performance.now() - opening;
  const frames = await framesOf(page);
  await browser.close();
  await server.close();
  return [
    figure(`keep a PDF of ${PAGES} pages (${Math.round(bytes.length / 1024)} kB), in the background`, took / 1000, 's'),
    figure(
      'memory it takes beside the server, at most (a worker is ended at 1,024 MB)',
      (most - before) / 1024 / 1024,
      'MB',
    ),
    atMost('what others ask for meanwhile, p95', percentile(asks, 0.95), 'ms', 100),
    atMost('its first page drawn in the reading view, from the address', first, 'ms', 2_000),
    atMost('scrolling through it, p95 frame', percentile(frames, 0.95), 'ms', 20),
  ];
};

/** Fifty addresses of fifty sites at once: what others feel of it. */
export const fifty: Bench = async () => {
  const server = await startWhole();
  const id = v7();
  const text = Array.from(
    { length: 50 },
    (_, n) => `http://review.saltmere.test/marsh-that-walks-inland?copy=${n}`,
  ).join('\n');
  const calm = await asksDuring(
    (method, url) => server.send(method, url),
    new Promise((later) => setTimeout(later, 2_000)),
  );
  await server.send('POST', '/api/lists', { id, text });
  const settled = (async () => {
    for (;;) {
      const [list] = await server.send<{ jobs: { state: string }[] }[]>('GET', '/api/lists');
      if (list!.jobs.filter((job) => job.state === 'done' || job.state === 'failed').length >= 12) return;
      await new Promise((later) => setTimeout(later, 200));
    }
  })();
  const asks = await asksDuring((method, url) => server.send(method, url), settled);
  await server.close();
  return [
    figure('what others ask for while nothing is kept, p95', percentile(calm, 0.95), 'ms'),
    atMost('what others ask for while fifty addresses are kept, p95', percentile(asks, 0.95), 'ms', 100),
  ];
};
