import { chromium } from '@playwright/test';
import { buildSync } from 'esbuild';
import { CHROMIUM_ARGS } from '../e2e/constants';
import { atMost, figure, prose, seeded, type Bench } from './measure';

/** Painting in the real browser, by the code of the reading view. */
export const paint: Bench = async () => {
  const script = buildSync({
    stdin: {
      contents:
        "export { openPage } from './web/page/page-frame'; export { Painter } from './web/page/painter'; export { KEY } from './core/key';",
      resolveDir: process.cwd(),
      loader: 'ts',
    },
    bundle: true,
    write: false,
    format: 'iife',
    globalName: 'Reader',
  }).outputFiles[0]!.text;
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const body = prose(500_000, seeded(7))
    .split('\n\n')
    .map((p) => `<p>${p}</p>`)
    .join('');
  await page.setContent(
    `<style>body{margin:0}iframe{width:900px;height:700px}</style><iframe sandbox="allow-same-origin" srcdoc='<!doctype html><body>${body}'></iframe>`,
  );
  await page.evaluate(script);
  const { read, painted } = await page.evaluate(async () => {
    type Made = {
      openPage(f: HTMLIFrameElement): { stream: { text: string } };
      Painter: new (page: unknown) => { dress(s: CSSStyleDeclaration): void; paint(marks: object[]): void };
      KEY: readonly object[];
    };
    const { openPage, Painter, KEY } = (window as unknown as { Reader: Made }).Reader;
    const frame = document.querySelector('iframe')!;
    frame.contentDocument!.body.getBoundingClientRect();
    const before = performance.now();
    const adapter = openPage(frame);
    const opened = performance.now();
    const painter = new Painter(adapter);
    painter.dress(getComputedStyle(document.documentElement));
    const length = adapter.stream.text.length;
    const marks = Array.from({ length: 5000 }, (_, n) => {
      const start = Math.floor((n / 5000) * (length - 200));
      return { start, end: start + 60, kind: KEY[n % 6] };
    });
    const start = performance.now();
    painter.paint(marks);
    await new Promise<void>((done) => requestAnimationFrame(() => requestAnimationFrame(() => done())));
    let held = 0;
    (frame.contentWindow as Window & typeof globalThis).CSS.highlights.forEach((h) => {
      held += h.size;
    });
    if (held !== marks.length) throw new Error(`${held} of ${marks.length} highlights were painted.`);
    return { read: opened - before, painted: performance.now() - start };
  });
  await browser.close();
  return [
    atMost('paint 5,000 highlights on 500,000 characters, to the next frame', painted, 'ms', 150),
    figure('read the text stream of 500,000 characters in the browser', read, 'ms'),
  ];
};
