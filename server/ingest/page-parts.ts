import { html as standard } from 'parse5';
import { decoded } from './decoded';
import {
  appendNodes,
  closest,
  cloneNode,
  fits,
  newElement,
  previousElement,
  removeNode,
  replaceNode,
  select,
  selectOne,
  within,
  type PageElement,
  type PageNode,
  type PageTree,
} from './page-tree';
import { Text } from 'domhandler';

/** Where pages put the address of a picture that is to come later (common practice). */
const LATER = ['data-src', 'data-original', 'data-lazy-src', 'data-lazy', 'data-url', 'data-image'];
const LATER_SETS = ['data-srcset', 'data-lazy-srcset', 'data-original-set'];

/** Pictures that wait for a script or for scrolling get their address now. */
export function showLazy(tree: PageTree): void {
  for (const { name, attribs } of select(tree, 'img, source')) {
    const later = LATER.map((key) => attribs[key]).find(Boolean);
    const set = LATER_SETS.map((key) => attribs[key]).find(Boolean);
    if (later && name === 'img') attribs.src = later;
    if (set) attribs.srcset = set;
  }
  for (const fallback of select(tree, 'noscript')) showFallback(fallback);
}

/** The picture for those without scripts stands in place of the one that waits for them. */
function showFallback(fallback: PageElement): void {
  const picture = selectOne(fallback, 'img');
  const before = previousElement(fallback);
  const placeholder = before?.name === 'img' ? before : before && selectOne(before, 'img');
  if (!picture || (placeholder && !/^data:|^$/.test(placeholder.attribs.src ?? ''))) return;
  replaceNode(placeholder ?? fallback, cloneNode(picture, true));
}

/** What plays or embeds something from elsewhere becomes a still of it, where it has one, and a link to it. */
export function noteEmbedded(tree: PageTree, base: string): void {
  for (const element of select(tree, 'iframe, video, audio, object, embed')) {
    const address = embeddedAddress(element, base);
    if (!/^https?:/.test(address) || isTiny(element)) continue;
    const { title, 'aria-label': label, poster } = element.attribs;
    const name = title ?? label ?? '';
    const caption = newElement('figcaption');
    const link = newElement('a', { href: address });
    appendNodes(link, [new Text(name || address)]);
    appendNodes(caption, [new Text(`${WORDS[element.name] ?? 'Embedded'}: `), link]);
    const figure = newElement('figure');
    appendNodes(figure, [...(poster ? [newElement('img', { src: poster, alt: name })] : []), caption]);
    replaceNode(element, figure);
  }
}

function embeddedAddress(element: PageElement, base: string): string {
  const { src, data, 'data-src': later } = element.attribs;
  const given = src ?? later ?? data ?? selectOne(element, 'source[src]')?.attribs.src;
  return given && URL.canParse(given, base) ? new URL(given, base).href : '';
}

const WORDS: Readonly<Record<string, string>> = { video: 'Film', audio: 'Recording', iframe: 'Embedded page' };

/** Frames that nobody sees are trackers. */
function isTiny({ attribs }: PageElement): boolean {
  const size = (name: string): number => Number.parseInt(attribs[name] ?? '100', 10);
  return (
    'hidden' in attribs ||
    size('width') < 5 ||
    size('height') < 5 ||
    /display:\s*none|visibility:\s*hidden|(width|height):\s*[01](px)?\s*(;|$)/i.test(attribs.style ?? '')
  );
}

/** `background="…"` of old pages, as a declaration. */
export function backgroundsAsStyle(tree: PageTree): void {
  for (const { attribs } of select(tree, '[background]')) {
    const address = attribs.background!.replace(/["\\\n]/g, encodeURIComponent);
    attribs.style = `background-image:url("${address}");${attribs.style ?? ''}`;
  }
}

/** Elements that symbols may come to in all: a large one that is used a thousand times would be a page of millions. */
const MOST_DRAWN = 100_000;
const isSvg = fits('svg');
const DRAWN = ['transform', 'fill', 'stroke', 'class', 'style'];

interface MarkupSource {
  /** Markup of another file, read; undefined where it cannot be had. */
  loadMarkup(absolute: string): Promise<PageTree | undefined>;
}

/** SVG pictures that use a symbol of the page or of a file of symbols hold it themselves. */
export async function standAlone(tree: PageTree, base: string, collector: MarkupSource): Promise<void> {
  const uses = select(tree, 'svg use');
  if (uses.length === 0) return;
  const here = byId(tree);
  let room = MOST_DRAWN;
  await Promise.all(
    uses.map(async (use) => {
      const [file = '', id = ''] = (use.attribs.href ?? use.attribs['xlink:href'] ?? '').split('#');
      const owner =
        file === '' ? here : byId(await collector.loadMarkup(URL.canParse(file, base) ? new URL(file, base).href : ''));
      const symbol = id ? owner.get(decoded(id)) : undefined;
      room -= symbol ? within(symbol).length : 0;
      if (!symbol || room < 0 || closest(use, (around) => around === symbol)) return removeNode(use);
      drawInPlace(use, symbol);
    }),
  );
}

/** A copy of a symbol where it is used. */
function drawInPlace(use: PageElement, symbol: PageElement): void {
  const svg = closest(use, isSvg)!;
  const box = symbol.attribs.viewBox;
  if (box && !('viewBox' in svg.attribs)) svg.attribs.viewBox = box;
  const kept = Object.fromEntries(DRAWN.flatMap((name) => (name in use.attribs ? [[name, use.attribs[name]!]] : [])));
  const group = newElement('g', kept, standard.NS.SVG);
  const parts: readonly PageNode[] = symbol.name === 'symbol' ? symbol.children : [symbol];
  appendNodes(
    group,
    parts.map((part) => cloneNode(part, true)),
  );
  replaceNode(use, group);
}

/** The first of each id, as a document has it. */
function byId(tree: PageTree | undefined): ReadonlyMap<string, PageElement> {
  const found = new Map<string, PageElement>();
  for (const element of tree ? within(tree) : []) {
    const { id } = element.attribs;
    if (id && !found.has(id)) found.set(id, element);
  }
  return found;
}
