import { Readability } from '@mozilla/readability';
import JSDOMParser from '@mozilla/readability/JSDOMParser.js';
import { ASIDE_ATTRIBUTE } from '@avrelle/core/text';
import { isTag, isText } from 'domhandler';
import { decoded } from './decoded';
import {
  childElements,
  closest,
  contentOf,
  fits,
  has,
  nextElement,
  parentOf,
  previousElement,
  within,
  wordsOf,
  type PageElement,
  type PageTree,
} from './page-tree';

const NUMBER = 'data-avrelle-number';
/** Under this many characters the extraction found a fragment rather than the main text. */
const LEAST = 250;

/**
 * Marks what lies outside the main text. The extraction library works on a copy and says which elements it keeps;
 * everything without a kept element inside is aside. The page's text and order stay as they are.
 */
export function markAsides(tree: PageTree, title: string): void {
  const [body] = within(tree, isBody);
  if (!body) return;
  if (isIndex(body)) return outerBeside(body).forEach(setAside);
  const elements = within(body);
  const kept = extract(tree, elements);
  if (!kept) return;
  keepHeading(elements, kept, title);
  keepNotes(elements, kept);
  const holding = withAncestors(kept);
  markBelow(body, kept, (element) => holding.has(element));
  bringBack(body);
}

const isBody = (element: PageElement): boolean => element.name === 'body';
const isLink = (element: PageElement): boolean => element.name === 'a';
const isAside = (element: PageElement): boolean => ASIDE_ATTRIBUTE in element.attribs;
const setAside = (element: PageElement): void => void (element.attribs[ASIDE_ATTRIBUTE] = '');
const unsetAside = (element: PageElement): void => void delete element.attribs[ASIDE_ATTRIBUTE];

const length = (element: PageElement): number => wordsOf(element).length;
const sum = (elements: readonly PageElement[]): number => elements.reduce((all, element) => all + length(element), 0);
/** Characters of its links. */
const linkLength = (element: PageElement): number => sum(within(element, isLink));
const leadsOut = ({ attribs }: PageElement): boolean => LINKS_OUT.test(`${attribs.class ?? ''} ${attribs.id ?? ''}`);

/** What a page itself says is beside its content (HTML Standard, 4.3; WAI-ARIA 1.2, landmarks), or calls by such a name. */
const beside = fits(
  'nav, aside, footer, form, dialog, [role=navigation], [role=banner], [role=contentinfo], [role=search], [role=complementary], [role=dialog], body > header, [class*=sidebar i], [id*=sidebar i], [class*=navbar i], [class*=breadcrumb i], [class*=footer i], [id*=footer i]',
);
/** Under this share of what is not said to be beside it, the extraction is not to be relied on. */
const SURE = 0.9;
/** Where not even so much is left, it found no article at all, as on pages of contents and indexes. */
const NO_ARTICLE = 0.5;
/** Links of prose are a small part of it, those of a menu nearly all; of words, prose has so many characters. */
const MOST_LINKED = 0.34;
const LEAST_PROSE = 60;

/** A page of contents or an index has no article to look for: what is not said to be beside it is its main text. */
function isIndex(body: PageElement): boolean {
  const links = linkLength(body);
  if (links < LEAST_LINKED * length(body)) return false;
  const outside = outerBeside(body);
  const all = length(body) - sum(outside);
  const linked = links - outside.reduce((total, element) => total + linkLength(element), 0);
  return all >= LEAST_INDEX && linked > NO_ARTICLE * all;
}

/** Characters under which a page of links may as well be the menus around a short article. */
const LEAST_INDEX = 5_000;
/** Share of links under which a page is none of contents, whatever stands beside it. */
const LEAST_LINKED = 0.25;

const outerBeside = (body: PageElement): PageElement[] =>
  within(body, beside).filter((element) => !closest(parentOf(element) ?? body, beside));

/**
 * Where the extraction leaves out much, it took prose for something else: reference pages of definition lists, boxes used
 * as paragraphs, functions in tables. What reads as prose is then of the main text after all; menus are not.
 */
function bringBack(body: PageElement): void {
  const lost = within(body, isAside).filter((aside) => !closest(aside, beside) && !leadsOut(aside));
  const dropped = sum(lost);
  const all = Math.max(1, length(body) - sum(outerBeside(body)));
  if (dropped <= (1 - SURE) * all) return;
  for (const aside of lost) {
    if (dropped > NO_ARTICLE * all && !has(aside, beside)) unsetAside(aside);
    else bringBackProse(aside);
  }
}

/** An element, or what of it reads as prose. */
function bringBackProse(element: PageElement): void {
  const children = childElements(element);
  const all = length(element);
  const mixed = children.some((child) => beside(child) || has(child, beside));
  if (!mixed && all >= LEAST_PROSE && linkLength(element) <= MOST_LINKED * all) return unsetAside(element);
  if (all < LEAST_PROSE || children.length === 0) return;
  unsetAside(element);
  for (const child of children) {
    setAside(child);
    if (!beside(child)) bringBackProse(child);
  }
}

/** The elements given and all they stand in. */
function withAncestors(elements: Iterable<PageElement>): ReadonlySet<PageElement> {
  const all = new Set<PageElement>();
  for (const element of elements) {
    for (let here: PageElement | undefined = element; here && !all.has(here); here = parentOf(here)) all.add(here);
  }
  return all;
}

function extract(tree: PageTree, elements: readonly PageElement[]): Set<PageElement> | undefined {
  const copy = new JSDOMParser().parse(forExtraction(tree, elements), 'https://file.invalid/');
  findAtOnce(copy);
  const library = new Readability<Node>(copy, { charThreshold: LEAST, keepClasses: true, serializer: (node) => node });
  const article = library.parse();
  if (!article?.content || (article.textContent ?? '').trim().length < LEAST) return undefined;
  const found = [...(article.content as Element).getElementsByTagName('*')].map((element) =>
    element.getAttribute(NUMBER),
  );
  return new Set(found.flatMap((number) => elements[Number(number ?? NaN)] ?? []));
}

/** The library asks for elements of several names at once where it can; its own document can not. */
function findAtOnce(document: Document): void {
  const element = Object.getPrototypeOf(document.documentElement) as Element;
  if (typeof element.querySelectorAll === 'function') return;
  Object.defineProperty(element, 'querySelectorAll', {
    configurable: true,
    value(this: Element, names: string) {
      const wanted = new Set(names.toUpperCase().split(','));
      const found: Element[] = [];
      const visit = ({ children }: Element): void => {
        for (let n = 0; n < children.length; n++) {
          const child = children[n]!;
          if (wanted.has(child.tagName)) found.push(child);
          visit(child);
        }
      };
      visit(this);
      return found;
    },
  });
}

/** A name of an attribute that the library's own small document can read. */
const ATTRIBUTE = /^[a-z][\w.-]*$/i;
const PHRASE = /^(?:abbr|b|cite|code|dfn|em|i|kbd|mark|q|s|samp|small|strong|sub|sup|tt|u|var)$/;
/** Emphasised words and their like are to the library what their letters are: it keeps or drops what they stand in. */
const isPlainPhrase = ({ name, attribs, children }: PageElement): boolean =>
  PHRASE.test(name) && Object.keys(attribs).length === 0 && children.every(isText);

/**
 * Well-formed, every element of the body with its number, plain phrases as their words: the library's own small document
 * reads nothing else.
 */
function forExtraction(tree: PageTree, elements: readonly PageElement[]): string {
  const numbers = new Map(elements.map((element, n) => [element, n]));
  const parts: string[] = [];
  const write = (element: PageElement): void => {
    const number = numbers.get(element);
    parts.push('<', element.name);
    for (const [name, value] of Object.entries(element.attribs))
      if (ATTRIBUTE.test(name)) parts.push(' ', name, '="', escaped(value), '"');
    if (number !== undefined) parts.push(` ${NUMBER}="${number}"`);
    if (element.children.length === 0) return void parts.push('/>');
    parts.push('>');
    for (const child of element.children) {
      if (isText(child)) parts.push(escaped(child.data));
      else if (isTag(child) && number !== undefined && isPlainPhrase(child)) parts.push(escaped(contentOf(child)));
      else if (isTag(child)) write(child);
    }
    parts.push('</', element.name, '>');
  };
  for (const child of tree.children) if (isTag(child)) write(child);
  return parts.join('');
}

const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string): string =>
  /[&<>"]/.test(text) ? text.replace(/[&<>"]/g, (sign) => SIGNS[sign]!) : text;

const SHORT = 240;
const lineOf = /^(p|div|address|time|span)$/;
const furniture = fits('nav, ul, button, input');

/** The library takes out the heading that repeats the title, and the lines about author and date below it: put them back. */
function keepHeading(elements: readonly PageElement[], kept: Set<PageElement>, title: string): void {
  const wanted = simple(title);
  const heading = elements.find((element) => {
    if (element.name !== 'h1' && element.name !== 'h2') return false;
    const words = simple(wordsOf(element));
    return words === wanted || (element.name === 'h1' && wanted.includes(words));
  });
  if (!heading) return;
  kept.add(heading);
  for (let next = nextElement(heading); next && !kept.has(next); next = nextElement(next)) {
    if (!lineOf.test(next.name) || length(next) > SHORT || has(next, furniture)) break;
    kept.add(next);
  }
}

const simple = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

const shows = fits('img, svg, input, button');

function markBelow(
  parent: PageElement,
  kept: ReadonlySet<PageElement>,
  holds: (element: PageElement) => boolean,
): void {
  for (const child of childElements(parent)) {
    if (kept.has(child)) markWithin(child, kept, holds);
    else if (holds(child)) markBelow(child, kept, holds);
    else if (wordsOf(child) || has(child, shows)) setAside(child);
  }
}

const MAY_BE_ASIDE = /^(aside|nav|footer|form|section|div|ul|button)$/;

/** Inside a kept element, only what the library took out on purpose is aside: blocks, never words within a line. */
function markWithin(
  parent: PageElement,
  kept: ReadonlySet<PageElement>,
  holds: (element: PageElement) => boolean,
): void {
  for (const child of childElements(parent)) {
    if (kept.has(child) || holds(child)) markWithin(child, kept, holds);
    else if (MAY_BE_ASIDE.test(child.name) && !holdsContent(child)) setAside(child);
  }
}

const solid = fits('pre, math, figure figcaption, table th, table caption');
const subheading = fits('h2, h3, h4');
const control = fits('input, button');

/** What the library loses though it is content: tables with heads, code, figures with captions, formulas, headings with text below them. */
function holdsContent(element: PageElement): boolean {
  if (/^(nav|footer|form|button)$/.test(element.name) || leadsOut(element)) return false;
  const all = length(element);
  const linked = linkLength(element);
  if (has(element, solid) && linked < all / 2) return true;
  return has(element, subheading) && all >= LEAST && linked < all / 5 && !has(element, control);
}

const LINKS_OUT =
  /\b(related|share|social|promo|sponsor|advert|banner|newsletter|subscribe|comments?|recommend|cookie)/i;

const LONGEST_NOTE = 4_000;
const WHOLES = /^(body|main|article|nav|header)$/;
const listOf = fits('ol, ul, dl, section, aside');
const menu = fits('nav, form');

/** Footnotes and endnotes: what the kept text links to within the page, with the list they stand in. */
function keepNotes(elements: readonly PageElement[], kept: Set<PageElement>): void {
  const byId = firstOfEach(elements);
  for (const link of elements) {
    const parent = parentOf(link);
    if (!isLink(link) || !parent || !kept.has(parent)) continue;
    const { href = '' } = link.attribs;
    const target = href.startsWith('#') ? byId.get(decoded(href.slice(1))) : undefined;
    if (target && !kept.has(target) && mayBeNote(target)) keepWithList(target, kept);
  }
}

function firstOfEach(elements: readonly PageElement[]): ReadonlyMap<string, PageElement> {
  const byId = new Map<string, PageElement>();
  for (const element of elements) {
    const { id } = element.attribs;
    if (id && !byId.has(id)) byId.set(id, element);
  }
  return byId;
}

const mayBeNote = (element: PageElement): boolean =>
  !WHOLES.test(element.name) && !closest(element, menu) && length(element) <= LONGEST_NOTE;

function keepWithList(note: PageElement, kept: Set<PageElement>): void {
  const list = closest(note, listOf) ?? note;
  for (const element of [list, ...within(list)]) kept.add(element);
  const heading = previousElement(list);
  if (heading && /^h[1-6]$/.test(heading.name)) kept.add(heading);
}
