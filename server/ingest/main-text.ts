import { Readability } from '@mozilla/readability';
import { ASIDE_ATTRIBUTE } from '@avrelle/core/text';

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
    else if (/^(ASIDE|NAV|FOOTER|FORM|SECTION|DIV|UL|BUTTON)$/.test(child.nodeName)) child.setAttribute(ASIDE_ATTRIBUTE, '');
  }
}

/** Not `children`: that live collection is searched anew at every step once attributes change. */
function elementsIn(parent: Element): Element[] {
  const found: Element[] = [];
  for (let child = parent.firstElementChild; child; child = child.nextElementSibling) found.push(child);
  return found;
}
