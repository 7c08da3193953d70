import { AppError } from '../../errors';
import { AssetCollector, makeSelfContained } from '../assets';
import { decoded } from '../decoded';
import { escapeHtml } from '../documents';
import { NOWHERE, PartLoader, typeOfName } from '../loader';
import type { Got } from '../got';
import type { Reader, ReadyPage } from '../made';
import { readDate, readDoi, type Metadata } from '../metadata';
import {
  appendNodes,
  bodyOf,
  contentOf,
  parentOf,
  parseTree,
  rootOf,
  select,
  selectOne,
  serializeTree,
  within,
  type PageElement,
  type PageTree,
} from '../page-tree';
import { parseHtml } from '../parse-html';
import { parseXml } from '../parse-xml';
import { sanitise } from '../sanitise';
import { tameCss } from '../tame';
import { unzip } from '../unzip';

interface Chapter {
  /** Path within the book, as its contents and links name it. */
  readonly path: string;
  readonly number: number;
}

interface Package {
  readonly chapters: readonly Chapter[];
  readonly meta: Partial<Metadata>;
  /** Path of the cover, of the contents. */
  readonly cover: string | undefined;
  readonly contents: string | undefined;
}

/** EPUB 2 and 3 (W3C EPUB 3.3): all chapters of the reading order as one page, each in a section that names its file. */
export const readBook: Reader = async (got, { progress }): Promise<ReadyPage> => {
  const files = await unzip(got.bytes, got.name);
  if (isLocked(files)) throw new AppError('locked_book', { name: got.name }, { field: 'file' });
  const book = readPackage(files, got);
  const loader = new PartLoader(
    [...files].map(([path, bytes]) => [addressOf(path), { bytes, contentType: typeOfName(path) }] as const),
  );
  const collector = new AssetCollector(loader);
  const titles = readContents(files, book.contents);
  const sections: string[] = [];
  const styles: { css: string; media: string }[] = [];
  for (const chapter of book.chapters) {
    progress(
      `Reading chapter ${chapter.number} of ${book.chapters.length}`,
      0.3 + (0.4 * chapter.number) / book.chapters.length,
    );
    const made = await readChapter(files.get(chapter.path)!, chapter, book.chapters, collector);
    const heading = titles.get(chapter.path);
    const title =
      heading && !/<h[1-6][\s>]/i.test(made.body) && made.text.trim() ? `<h2>${escapeHtml(heading)}</h2>` : '';
    sections.push(
      `<section id="f${chapter.number}" data-avrelle-file="${escapeHtml(chapter.path)}"${made.language ? ` lang="${escapeHtml(made.language)}"` : ''}>${title}${made.body}</section>`,
    );
    styles.push(...made.styles);
  }
  const lead = book.cover === undefined ? null : ((await collector.resolve(addressOf(book.cover))) ?? null);
  return {
    form: 'ready',
    kind: 'book',
    collector,
    body: `<main>${sections.join('\n')}</main>`,
    styles,
    meta: { ...book.meta, lead },
    file: { bytes: got.bytes, mediaType: 'application/epub+zip' },
  };
};

const addressOf = (path: string): string => new URL(path.split('/').map(encodeURIComponent).join('/'), NOWHERE).href;
const pathOf = (address: string): string => decoded(new URL(address).pathname.slice(1));

/** Encryption other than the obfuscating of fonts (EPUB 3.3, 4.4) locks a book. */
function isLocked(files: ReadonlyMap<string, Uint8Array>): boolean {
  const encryption = files.get('META-INF/encryption.xml');
  const tree = encryption && parseXml(encryption);
  if (files.has('META-INF/rights.xml') || (encryption && !tree)) return true;
  const methods = tree ? named(tree, 'EncryptionMethod') : [];
  return methods
    .filter((method) => parentOf(method)?.name === 'EncryptedData')
    .some(({ attribs }) => !/obfuscation|2008\/embedding|pdf\/enc#RC/i.test(attribs.Algorithm ?? ''));
}

/** Elements of XML by their name without a prefix. */
const named = (tree: PageTree | PageElement, name: string): PageElement[] =>
  within(tree, (element) => element.name === name);

const xmlAt = (files: ReadonlyMap<string, Uint8Array>, path: string): PageTree | undefined => {
  const bytes = files.get(path);
  return bytes && parseXml(bytes);
};
/** Where the package file lies (EPUB Open Container Format 3.3, container.xml). */
const packagePath = (files: ReadonlyMap<string, Uint8Array>): string | undefined => {
  const container = xmlAt(files, 'META-INF/container.xml');
  return container && named(container, 'rootfile')[0]?.attribs['full-path'];
};

function readPackage(files: ReadonlyMap<string, Uint8Array>, got: Got): Package {
  const bad = (reason: string): AppError => new AppError('bad_book', { name: got.name, reason }, { field: 'file' });
  const root = packagePath(files);
  const tree = root === undefined ? undefined : xmlAt(files, root);
  if (root === undefined || !tree) throw bad('its package file is missing or broken');
  const items = new Map(
    named(tree, 'item').map(({ attribs }) => [
      attribs.id ?? '',
      {
        path: pathOf(new URL(attribs.href ?? '', addressOf(root)).href),
        properties: attribs.properties ?? '',
        type: attribs['media-type'] ?? '',
      },
    ]),
  );
  const refs = named(tree, 'itemref').map(({ attribs }) => attribs);
  const inOrder = [...refs.filter((ref) => ref.linear !== 'no'), ...refs.filter((ref) => ref.linear === 'no')].flatMap(
    (ref) => items.get(ref.idref ?? '') ?? [],
  );
  const chapters = [...new Set(inOrder.map((item) => item.path))]
    .filter((path) => files.has(path))
    .map((path, n) => ({ path, number: n + 1 }));
  if (chapters.length === 0) throw bad('it names no chapters to read (its spine is empty)');
  const all = [...items.values()];
  const coverId = named(tree, 'meta').find(({ attribs }) => attribs.name === 'cover')?.attribs.content;
  return {
    chapters,
    meta: metadataOf(tree, got),
    cover: (all.find((i) => /\bcover-image\b/.test(i.properties)) ?? (coverId ? items.get(coverId) : undefined))?.path,
    contents: (all.find((i) => /\bnav\b/.test(i.properties)) ?? all.find((i) => i.type === 'application/x-dtbncx+xml'))
      ?.path,
  };
}

const DUBLIN_CORE = 'http://purl.org/dc/elements/1.1/';

function metadataOf(tree: PageTree, got: Got): Partial<Metadata> {
  const all = (name: string): string[] =>
    named(tree, name)
      .filter((element) => (element.namespace as string | undefined) === DUBLIN_CORE)
      .map((element) => contentOf(element).replace(/\s+/g, ' ').trim())
      .filter(Boolean);
  return {
    title: all('title')[0] ?? got.name,
    author: all('creator').join('; '),
    site: all('publisher')[0] ?? '',
    language: all('language')[0] ?? '',
    description: (all('description')[0] ?? '').replace(/<[^>]+>/g, '').slice(0, 600),
    publishedAt: readDate(all('date')[0] ?? ''),
    doi: readDoi([...all('identifier'), ...all('source')].join(' ')),
  };
}

/** What the book's own contents call each file (EPUB 3 navigation document, EPUB 2 NCX). */
function readContents(files: ReadonlyMap<string, Uint8Array>, path: string | undefined): ReadonlyMap<string, string> {
  const bytes = path === undefined ? undefined : files.get(path);
  const tree = bytes && parseXml(bytes);
  const titles = new Map<string, string>();
  if (!tree || path === undefined) return titles;
  const entries = path.endsWith('.ncx')
    ? named(tree, 'navPoint').map(
        (point) => [named(point, 'content')[0]?.attribs.src, contentOf(named(point, 'text').slice(0, 1))] as const,
      )
    : select(tree, 'nav a[href]').map((link) => [link.attribs.href, contentOf(link)] as const);
  for (const [href, title] of entries) {
    if (!href || !title.trim() || !URL.canParse(href, addressOf(path))) continue;
    const file = pathOf(new URL(href, addressOf(path)).href);
    if (!titles.has(file)) titles.set(file, title.replace(/\s+/g, ' ').trim());
  }
  return titles;
}

async function readChapter(
  bytes: Uint8Array,
  chapter: Chapter,
  chapters: readonly Chapter[],
  collector: AssetCollector,
): Promise<{ body: string; styles: { css: string; media: string }[]; language: string; text: string }> {
  const address = addressOf(chapter.path);
  const tree = asHtml(bytes, address);
  const sheets = await makeSelfContained(tree, address, collector);
  const language = rootOf(tree).attribs.lang ?? '';
  const body = bodyOf(parseTree(`<!doctype html><body>${sanitise(tree, address).body}`));
  for (const { name, attribs } of within(body)) {
    if (attribs.id) attribs.id = `f${chapter.number}-${attribs.id}`;
    if (name === 'a' && attribs.name !== undefined) {
      attribs.id ||= `f${chapter.number}-${attribs.name}`;
      delete attribs.name;
    }
    if (name === 'a' && attribs.href !== undefined) attribs.href = placeOf(attribs.href, address, chapters);
    delete attribs.style;
  }
  const scope = `#f${chapter.number}`;
  return {
    body: serializeTree(body),
    styles: sheets
      .map(({ css, media }) => ({ css: tameCss(css, scope), media }))
      .filter(({ css, media }) => css && !/print|amzn/.test(media)),
    language,
    text: contentOf(body),
  };
}

/** XHTML as an HTML document: parsed as XML, where it is well-formed, so that empty elements stay empty. */
function asHtml(bytes: Uint8Array, address: string): PageTree {
  const xml = parseXml(bytes);
  const source = xml && selectOne(xml, 'body');
  if (!xml || !source) return parseHtml(bytes, address);
  const { lang, 'xml:lang': xmlLang } = rootOf(xml).attribs;
  const html = parseTree('<!doctype html>');
  rootOf(html).attribs.lang = lang ?? xmlLang ?? '';
  appendNodes(selectOne(html, 'head')!, select(xml, 'head style, head link'));
  appendNodes(bodyOf(html), source.children);
  return html;
}

/** A link between chapters leads to a place within the one page they have become. */
function placeOf(href: string, address: string, chapters: readonly Chapter[]): string {
  if (/^mailto:/i.test(href) || !URL.canParse(href, address)) return href;
  const url = new URL(href, address);
  if (!url.href.startsWith(NOWHERE)) return href;
  const chapter = chapters.find(({ path }) => path === pathOf(url.href));
  if (!chapter) return '#';
  return url.hash ? `#f${chapter.number}-${decoded(url.hash.slice(1))}` : `#f${chapter.number}`;
}
