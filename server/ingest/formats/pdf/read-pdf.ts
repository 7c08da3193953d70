import { createRequire } from 'node:module';
import path from 'node:path';
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import type { TextItem } from 'pdfjs-dist/types/src/display/api';
import { AppError } from '../../../errors';
import { AssetCollector } from '../../assets';
import type { Got } from '../../got';
import { titleOf, type Reader, type ReadyPage } from '../../made';
import { readDate, readDoi, type Metadata } from '../../metadata';
import { joined, markAsideLines, markHeadings, paragraphsOf, type Bookmark, type Paragraph } from './paragraphs';
import { PAGE_CSS, pageHtml } from './page-html';
import type { PdfPage } from './pdf-page';
import { readingOrder, type Run } from './reading-order';

const MOST_PAGES = 2_000;

/** PDF (ISO 32000): each page a section whose words stand where the file sets them, in the order they are read. */
export const readPdf: Reader = async (got, { password, progress }): Promise<ReadyPage> => {
  const document = await open(got, password);
  try {
    if (document.numPages > MOST_PAGES)
      throw new AppError(
        'too_many_pages',
        { name: got.name, pages: document.numPages, limit: MOST_PAGES },
        { field: 'file' },
      );
    const labels = await document.getPageLabels().catch(() => null);
    const pages: PdfPage[] = [];
    for (let n = 0; n < document.numPages; n++) {
      if (n % 5 === 0) progress(`Reading page ${n + 1} of ${document.numPages}`, 0.1 + (0.7 * n) / document.numPages);
      pages.push(await readPage(document, n, labels?.[n] ?? String(n + 1)));
    }
    const paragraphs = pages.map((page) => page.paragraphs);
    markAsideLines(
      paragraphs,
      pages.map((page) => page.height),
    );
    markHeadings(paragraphs, await bookmarksOf(document));
    const compounds = compoundsIn(paragraphs);
    const scanned = pages.filter((page) => page.paragraphs.length === 0).length;
    return {
      form: 'ready',
      kind: 'pdf',
      collector: new AssetCollector(undefined),
      styles: [{ css: PAGE_CSS, media: '' }],
      body: `<main>${pages.map((page, n) => pageHtml(page, n + 1, (word) => compounds.has(word.toLowerCase()))).join('\n')}</main>`,
      meta: await metadataOf(document, got, paragraphs),
      file: { bytes: got.bytes, mediaType: 'application/pdf' },
      facts: { pages: pages.length, ...(scanned ? { scanned } : {}), ...(password ? { password } : {}) },
    };
  } catch (cause) {
    throw cause instanceof AppError
      ? cause
      : new AppError('bad_pdf', { name: got.name, reason: (cause as Error).message }, { field: 'file' });
  } finally {
    await document.loadingTask.destroy();
  }
};

async function open({ bytes, name }: Got, password: string | undefined): Promise<PDFDocumentProxy> {
  const { getDocument, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const home = path.dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));
  // A copy: the library takes the bytes it is given for itself.
  const task = getDocument({
    data: new Uint8Array(bytes),
    verbosity: VerbosityLevel.ERRORS,
    cMapUrl: `${home}/cmaps/`,
    cMapPacked: true,
    standardFontDataUrl: `${home}/standard_fonts/`,
    useSystemFonts: false,
    isOffscreenCanvasSupported: false,
    stopAtErrors: false,
    ...(password === undefined ? {} : { password }),
  });
  try {
    return await task.promise;
  } catch (cause) {
    await task.destroy();
    const { name: kind, code, message } = cause as { name?: string; code?: number; message?: string };
    if (kind === 'PasswordException')
      throw new AppError(code === 2 ? 'password_mismatch' : 'password_needed', { name }, { field: 'password' });
    throw new AppError('bad_pdf', { name, reason: message ?? String(cause) }, { field: 'file' });
  }
}

async function readPage(document: PDFDocumentProxy, index: number, label: string): Promise<PdfPage> {
  const page = await document.getPage(index + 1);
  const { width, height, transform } = page.getViewport({ scale: 1 });
  const content = await textOf(page);
  const upright: Run[] = [];
  const turned: Run[] = [];
  for (const item of content) {
    const run = toRun(item, transform);
    if (run) (run.angle === 0 ? upright : turned).push(run);
  }
  page.cleanup();
  return {
    width,
    height,
    label,
    paragraphs: paragraphsOf([...readingOrder(upright, height), ...readingOrder(turned)]),
  };
}

/** A page whose text cannot be taken apart is shown as a picture, rather than losing the whole file. */
async function textOf(page: PDFPageProxy): Promise<TextItem[]> {
  const { items } = await page
    .getTextContent({ disableNormalization: true })
    .catch(() => ({ items: [] as TextItem[] }));
  return items.flatMap((item) => ('str' in item && item.str !== '' ? [item] : []));
}

function toRun(item: TextItem, [a, b, c, d, e, f]: number[]): (Run & { angle: number }) | undefined {
  const [ia, ib, ic, id, ix, iy] = item.transform as number[];
  const size = Math.hypot(a! * ic! + c! * id!, b! * ic! + d! * id!);
  const angle = Math.round((Math.atan2(b! * ia! + d! * ib!, a! * ia! + c! * ib!) * 180) / Math.PI);
  const text = opened(item.str);
  if (!(size > 0.5) || !text.trim()) return undefined;
  return {
    text,
    x: a! * ix! + c! * iy! + e!,
    baseline: b! * ix! + d! * iy! + f!,
    width: item.width,
    size,
    angle: Math.abs(angle) < 3 ? 0 : angle,
  };
}

// eslint-disable-next-line no-control-regex -- looking for exactly these
const NO_CHARACTERS = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uE000-\uF8FF]/g;
/** Ligatures as their letters (Unicode Alphabetic Presentation Forms, FB00 to FB06), and nothing that is no character. */
const opened = (text: string): string =>
  text.replace(/[\uFB00-\uFB06]/g, (ligature) => ligature.normalize('NFKC')).replace(NO_CHARACTERS, '');

/** Words with a hyphen inside a line: at a line's end, too, their hyphen is their own. */
function compoundsIn(pages: readonly (readonly Paragraph[])[]): ReadonlySet<string> {
  const found = new Set<string>();
  for (const { lines } of pages.flat())
    for (const line of lines)
      for (const [word] of line.text.matchAll(/\p{L}+[-\u2010]\p{L}+/gu)) found.add(word.toLowerCase());
  return found;
}

async function bookmarksOf(document: PDFDocumentProxy): Promise<Bookmark[]> {
  type Node = NonNullable<Awaited<ReturnType<PDFDocumentProxy['getOutline']>>>[number];
  const found: Bookmark[] = [];
  const pageOf = async (ref: unknown): Promise<number> =>
    ref ? document.getPageIndex(ref as Parameters<PDFDocumentProxy['getPageIndex']>[0]).catch(() => -1) : -1;
  const visit = async (nodes: readonly Node[], depth: number): Promise<void> => {
    for (const node of nodes) {
      const dest = typeof node.dest === 'string' ? await document.getDestination(node.dest) : node.dest;
      const [ref] = dest ?? [];
      const page = typeof ref === 'number' ? ref : await pageOf(ref);
      if (page >= 0 && found.length < 5_000) found.push({ title: node.title, page, depth });
      if (depth < 6) await visit(node.items as Node[], depth + 1);
    }
  };
  await visit((await document.getOutline().catch(() => null)) ?? [], 1);
  return found;
}

async function metadataOf(
  document: PDFDocumentProxy,
  got: Got,
  pages: readonly (readonly Paragraph[])[],
): Promise<Partial<Metadata>> {
  const { info, metadata } = await document.getMetadata().catch(() => ({ info: {}, metadata: null }));
  const said = info as Record<string, unknown>;
  const xmp = (name: string): string => wordsOf(metadata?.get(name) as unknown);
  const [first = []] = pages;
  return {
    title: sensible(xmp('dc:title') || wordsOf(said.Title)) || headingOf(first) || titleOf(got.name),
    author: xmp('dc:creator') || wordsOf(said.Author),
    description: (xmp('dc:description') || wordsOf(said.Subject)).slice(0, 600),
    language: wordsOf(said.Language) || xmp('dc:language'),
    publishedAt: readDate(xmp('prism:publicationDate') || xmp('dc:date') || madeOn(wordsOf(said.CreationDate))),
    doi: readDoi(xmp('prism:doi') || xmp('dc:identifier') || beginning(first)),
  };
}

/** What programs write as a title of their own accord is none. */
const sensible = (title: string): string => (/^(untitled|.*\.(docx?|tex|indd|pdf|dvi))/i.test(title) ? '' : title);
const headingOf = (page: readonly Paragraph[]): string => page.find((p) => p.level === 1)?.text.trim() ?? '';

function wordsOf(value: unknown): string {
  const words = Array.isArray(value) ? value.join('; ') : value;
  return typeof words === 'string' ? words.trim() : '';
}

/** ISO 32000-1, 7.9.4: `D:20260915…`, from the year on as far as it is known. */
const madeOn = (date: string): string =>
  (/^D:(\d{4})(\d{2})?(\d{2})?/.exec(date) ?? []).slice(1).filter(Boolean).join('-');

/** The words of a page, as far as one looks for what it is known by. */
const beginning = (page: readonly Paragraph[]): string =>
  page
    .map(({ lines }) =>
      joined(lines, () => false)
        .map((piece) => piece.text)
        .join(''),
    )
    .join('\n')
    .slice(0, 6_000);
