import { compile } from 'css-select';
import { type AnyNode, type Document, type Element, isTag } from 'domhandler';
import { textContent } from 'domutils';
import { parse, serialize } from 'parse5';
import { adapter, type Htmlparser2TreeAdapterMap } from 'parse5-htmlparser2-tree-adapter';

export type PageElement = Element;
export type PageTree = Document;

/**
 * A page as a light tree: parsed by the HTML standard, as by a browser that runs no scripts, without the methods of a
 * document. Far quicker to make and to go through than a whole DOM.
 */
export function parseTree(html: string): PageTree {
  return parse<Htmlparser2TreeAdapterMap>(html, { treeAdapter: adapter, scriptingEnabled: false });
}

/** Written so that it parses to the same tree again. */
export function serializeTree(tree: PageTree): string {
  return serialize<Htmlparser2TreeAdapterMap>(tree, { treeAdapter: adapter });
}

/** Asks of an element whether it fits a selector; compiled once, for elements of many pages. */
export type Test = (element: PageElement) => boolean;
export function fits(selector: string): Test {
  const query = compile<AnyNode, Element>(selector);
  return (element) => query(element);
}

/** The elements within, in document order, that pass; without calling itself. */
export function within(root: PageTree | PageElement, test: Test = () => true): PageElement[] {
  const found: PageElement[] = [];
  for (const element of elementsBelow(root)) if (test(element)) found.push(element);
  return found;
}

export function has(root: PageElement, test: Test): boolean {
  for (const element of elementsBelow(root)) if (test(element)) return true;
  return false;
}

function* elementsBelow(root: PageTree | PageElement): Generator<PageElement> {
  for (let node: AnyNode | null = root.firstChild; node;) {
    if (isTag(node)) yield node;
    if ('firstChild' in node && node.firstChild) {
      node = node.firstChild;
      continue;
    }
    while (node && node !== root && !node.nextSibling) node = node.parentNode;
    node = node === root || !node ? null : node.nextSibling;
  }
}

/** The nearest that passes, itself first. */
export function closest(element: PageElement, test: Test): PageElement | undefined {
  for (let here: PageElement | undefined = element; here; here = parentOf(here)) if (test(here)) return here;
  return undefined;
}

export function parentOf(element: PageElement): PageElement | undefined {
  return element.parent && isTag(element.parent) ? element.parent : undefined;
}

export function childElements(parent: PageElement): PageElement[] {
  return parent.children.filter(isTag);
}

export function nextElement(element: PageElement): PageElement | undefined {
  let next = element.nextSibling;
  while (next && !isTag(next)) next = next.nextSibling;
  return next ?? undefined;
}

export function previousElement(element: PageElement): PageElement | undefined {
  let before = element.previousSibling;
  while (before && !isTag(before)) before = before.previousSibling;
  return before ?? undefined;
}

export const wordsOf = (element: PageElement): string => textContent(element).trim();
