import { Readability } from '@mozilla/readability';
import { ASIDE_ATTRIBUTE } from '@avrelle/core/text';
import { decoded } from './decoded';

const NUMBER = 'data-avrelle-number';
/** Under this many characters the extraction found a fragment rather than the main text. */
const LEAST = 250;

/**
 * Marks what lies outside the main text. The extraction library works on a copy and says which elements it keeps;
 * everything without a kept element inside is aside. The document's text and order stay as they are.
 */
export function markAsides(document: Document, title: string): void {
  const elements = [...document.body.querySelectorAll('*')];
  elements.forEach((element, n) => element.setAttribute(NUMBER, String(n)));
  const kept = extract(document);
  if (kept) {
    keepHeading(elements, kept, title);
    keepNotes(document, kept);
    const holding = withAncestors(kept);
    markBelow(document.body, kept, (element) => holding.has(element));
    bringBack(document.body);
  }
  for (const element of elements) element.removeAttribute(NUMBER);
}

/** What a page itself says is beside its content (HTML Standard, 4.3; WAI-ARIA 1.2, landmarks). */
const BESIDE = 'nav, aside, footer, form, dialog, [role=navigation], [role=banner], [role=contentinfo], [role=search], [role=complementary], [role=dialog], body > header, [class*=sidebar i], [id*=sidebar i], [class*=navbar i], [class*=breadcrumb i], [class*=footer i], [id*=footer i]';
/** Under this share of what is not said to be beside it, the extraction is not to be relied on. */
const SURE = 0.9;
/** Where not even so much is left, it found no article at all, as on pages of contents and indexes. */
const NO_ARTICLE = 0.5;
/** Links of prose are a small part of it, those of a menu nearly all; of words, prose has so many characters. */
const MOST_LINKED = 0.34, LEAST_PROSE = 60;

/**
 * Where the extraction leaves out much, it took prose for something else: reference pages of definition lists, boxes used
 * as paragraphs, functions in tables. What reads as prose is then of the main text after all; menus are not.
 */
function bringBack(body: HTMLElement): void {
  const asides = [...body.querySelectorAll(`[${ASIDE_ATTRIBUTE}]`)], length = (element: Element): number => (element.textContent ?? '').trim().length;
  const lost = asides.filter((aside) => !aside.closest(BESIDE) && !LINKS_OUT.test(`${aside.className} ${aside.id}`)), dropped = lost.reduce((sum, aside) => sum + length(aside), 0);
  const beside = [...body.querySelectorAll(BESIDE)].filter((element) => !element.parentElement?.closest(BESIDE)).reduce((sum, element) => sum + length(element), 0);
  const all = Math.max(1, length(body) - beside);
  if (dropped <= (1 - SURE) * all) return;
  for (const aside of lost) {
    if (dropped > NO_ARTICLE * all && !aside.querySelector(BESIDE)) aside.removeAttribute(ASIDE_ATTRIBUTE);
    else bringBackProse(aside);
  }
}

/** An element, or what of it reads as prose. */
function bringBackProse(element: Element): void {
  const linked = [...element.querySelectorAll('a')].reduce((sum, a) => sum + (a.textContent ?? '').trim().length, 0), all = (element.textContent ?? '').trim().length;
  const within = elementsIn(element).filter((child) => child.matches(BESIDE) || child.querySelector(BESIDE) !== null);
  if (within.length === 0 && all >= LEAST_PROSE && linked <= MOST_LINKED * all) return element.removeAttribute(ASIDE_ATTRIBUTE);
  if (all < LEAST_PROSE || element.firstElementChild === null) return;
  element.removeAttribute(ASIDE_ATTRIBUTE);
  for (const child of elementsIn(element)) {
    child.setAttribute(ASIDE_ATTRIBUTE, '');
    if (!child.matches(BESIDE)) bringBackProse(child);
  }
}

/** The elements given and all they stand in. */
function withAncestors(elements: Iterable<Element>): ReadonlySet<Element> {
  const all = new Set<Element>();
  for (const element of elements) for (let here: Element | null = element; here && !all.has(here); here = here.parentElement) all.add(here);
  return all;
}

function extract(document: Document): Set<Element> | undefined {
  const copy = document.cloneNode(true) as Document;
  const article = new Readability<Node>(copy, { charThreshold: LEAST, keepClasses: true, serializer: (node) => node }).parse();
  if (!article?.content || (article.textContent ?? '').trim().length < LEAST) return undefined;
  const numbers = new Set([...(article.content as Element).querySelectorAll(`[${NUMBER}]`)].map((el) => el.getAttribute(NUMBER)));
  return new Set([...document.querySelectorAll(`[${NUMBER}]`)].filter((el) => numbers.has(el.getAttribute(NUMBER))));
}

const SHORT = 240;

/** The library takes out the heading that repeats the title, and the lines about author and date below it: put them back. */
function keepHeading(elements: readonly Element[], kept: Set<Element>, title: string): void {
  const wanted = simple(title);
  const heading = elements.find((el) => /^H[12]$/.test(el.nodeName) && (simple(el.textContent ?? '') === wanted || (el.nodeName === 'H1' && wanted.includes(simple(el.textContent ?? '')))));
  if (!heading) return;
  kept.add(heading);
  for (let next = heading.nextElementSibling; next && !kept.has(next); next = next.nextElementSibling) {
    const fits = /^(P|DIV|ADDRESS|TIME|SPAN)$/.test(next.nodeName) && (next.textContent ?? '').length <= SHORT && !next.querySelector('nav, ul, button, input');
    if (!fits) break;
    kept.add(next);
  }
}

const simple = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ').trim();

function markBelow(parent: Element, kept: ReadonlySet<Element>, holds: (element: Element) => boolean): void {
  for (const child of elementsIn(parent)) {
    if (kept.has(child)) markWithin(child, kept, holds);
    else if (holds(child)) markBelow(child, kept, holds);
    else if ((child.textContent ?? '').trim() || child.querySelector('img, svg, input, button')) child.setAttribute(ASIDE_ATTRIBUTE, '');
  }
}

/** Inside a kept element, only what the library took out on purpose is aside: blocks, never words within a line. */
function markWithin(parent: Element, kept: ReadonlySet<Element>, holds: (element: Element) => boolean): void {
  for (const child of elementsIn(parent)) {
    if (kept.has(child) || holds(child)) markWithin(child, kept, holds);
    else if (/^(ASIDE|NAV|FOOTER|FORM|SECTION|DIV|UL|BUTTON)$/.test(child.nodeName) && !holdsContent(child)) child.setAttribute(ASIDE_ATTRIBUTE, '');
  }
}

/** What the library loses though it is content: tables with heads, code, figures with captions, formulas, headings with text below them. */
function holdsContent(element: Element): boolean {
  if (/^(NAV|FOOTER|FORM|BUTTON)$/.test(element.nodeName) || LINKS_OUT.test(`${element.className} ${element.id}`)) return false;
  const solid = element.querySelector('pre, math, figure figcaption, table th, table caption');
  const linked = [...element.querySelectorAll('a')].reduce((sum, a) => sum + (a.textContent ?? '').length, 0), length = (element.textContent ?? '').trim().length;
  return (solid !== null && linked < length / 2) || (element.querySelector('h2, h3, h4') !== null && length >= LEAST && linked < length / 5 && !element.querySelector('input, button'));
}

const LINKS_OUT = /\b(related|share|social|promo|sponsor|advert|banner|newsletter|subscribe|comments?|recommend|cookie)/i;

/** Footnotes and endnotes: what the kept text links to within the page, with the list they stand in. */
function keepNotes(document: Document, kept: Set<Element>): void {
  for (const link of document.querySelectorAll('a[href^="#"]')) {
    const holder = link.parentElement && kept.has(link.parentElement), target = document.getElementById(decoded(link.getAttribute('href')!.slice(1)));
    if (!holder || !target || kept.has(target) || /^(BODY|MAIN|ARTICLE|NAV|HEADER)$/.test(target.nodeName) || target.closest('nav, form') || (target.textContent ?? '').length > LONGEST_NOTE) continue;
    const list = target.closest('ol, ul, dl, section, aside') ?? target;
    for (const element of [list, ...list.querySelectorAll('*')]) kept.add(element);
    const heading = list.previousElementSibling;
    if (heading && /^H[1-6]$/.test(heading.nodeName)) kept.add(heading);
  }
}

const LONGEST_NOTE = 4_000;

/** Not `children`: that live collection is searched anew at every step once attributes change. */
function elementsIn(parent: Element): Element[] {
  const found: Element[] = [];
  for (let child = parent.firstElementChild; child; child = child.nextElementSibling) found.push(child);
  return found;
}
