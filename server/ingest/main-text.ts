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
  }
  for (const element of elements) element.removeAttribute(NUMBER);
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
