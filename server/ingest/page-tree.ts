import { compile } from 'css-select';
import { type AnyNode, type Document, Element, isTag, type ParentNode } from 'domhandler';
import { appendChild, removeElement, replaceElement, textContent } from 'domutils';
import { html, parse, parseFragment, serialize, serializeOuter } from 'parse5';
import { adapter, type Htmlparser2TreeAdapterMap } from 'parse5-htmlparser2-tree-adapter';

export type PageElement = Element;
export type PageTree = Document;
export type PageNode = AnyNode;

/**
 * A page as a light tree: parsed by the HTML standard, as by a browser that runs no scripts, without the methods of a
 * document. Far quicker to make and to go through than a whole DOM.
 */
export function parseTree(html: string): PageTree {
  return parse<Htmlparser2TreeAdapterMap>(html, { treeAdapter: adapter, scriptingEnabled: false });
}

/** Written so that it parses to the same tree again. */
export function serializeTree(tree: PageTree | PageElement): string {
  return serialize<Htmlparser2TreeAdapterMap>(tree, { treeAdapter: adapter });
}

/** The element itself with what is in it. */
export function serializeElement(element: PageElement): string {
  return serializeOuter<Htmlparser2TreeAdapterMap>(element, { treeAdapter: adapter });
}

/** Markup as nodes that stand nowhere yet, read as if within a `body`. */
export function nodesOf(markup: string): PageNode[] {
  return parseFragment<Htmlparser2TreeAdapterMap>(markup, { treeAdapter: adapter, scriptingEnabled: false }).children;
}

/** The root element, which the parser always makes. */
export const rootOf = (tree: PageTree): PageElement => tree.children.find(isTag)!;
/** The parser always makes one, but for a page of frames; then the root. */
export function bodyOf(tree: PageTree): PageElement {
  const root = rootOf(tree);
  return childElements(root).find(({ name }) => name === 'body') ?? root;
}

/** Whether the page is laid out as those that were written without a doctype (HTML Standard, 13.2.6.4.1). */
export const isQuirky = (tree: PageTree): boolean => tree['x-mode'] === html.DOCUMENT_MODE.QUIRKS;

/** Asks of an element whether it fits a selector; compiled once, for elements of many pages. */
export type Test = (element: PageElement) => boolean;
export function fits(selector: string): Test {
  const query = compile<AnyNode, Element>(selector);
  return (element) => query(element);
}

/** All elements within that fit a selector, in document order. */
export const select = (root: PageTree | PageElement, selector: string): PageElement[] => within(root, fits(selector));
export const selectOne = (root: PageTree | PageElement, selector: string): PageElement | undefined =>
  select(root, selector)[0];

/** The elements within, in document order, that pass; without calling itself. */
export function within(root: PageTree | PageElement, test: Test = () => true): PageElement[] {
  const found: PageElement[] = [];
  for (let element = elementAfter(root, root); element; element = elementAfter(element, root))
    if (test(element)) found.push(element);
  return found;
}

export function has(root: PageElement, test: Test): boolean {
  for (let element = elementAfter(root, root); element; element = elementAfter(element, root))
    if (test(element)) return true;
  return false;
}

/** The next element in document order below `root`. */
function elementAfter(from: PageTree | PageElement, root: PageTree | PageElement): PageElement | undefined {
  let node: AnyNode = from;
  for (;;) {
    if ('children' in node && node.children.length > 0) node = node.children[0]!;
    else {
      while (node !== root && !node.next) node = node.parent!;
      if (node === root) return undefined;
      node = node.next!;
    }
    if (isTag(node)) return node;
  }
}

/** Takes elements out, each list of children gone through once. */
export function removeAll(elements: readonly PageElement[]): void {
  const gone = new Set<PageNode>(elements);
  for (const parent of new Set(elements.map((element) => element.parent))) {
    if (!parent) continue;
    parent.children = parent.children.filter((child) => !gone.has(child));
    parent.children.forEach((child, n, all) => {
      child.prev = all[n - 1] ?? null;
      child.next = all[n + 1] ?? null;
    });
  }
  for (const element of elements) element.parent = element.prev = element.next = null;
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

/** As it stands, with its spaces. */
export const contentOf = (node: PageNode | readonly PageNode[]): string => textContent(node as PageNode | PageNode[]);

/** A new element of HTML, standing nowhere. */
export function newElement(
  name: string,
  attributes: Record<string, string> = {},
  namespace: string = html.NS.HTML,
): PageElement {
  const element = new Element(name, attributes);
  element.namespace = namespace;
  return element;
}

export const isOfSvg = (element: PageElement): boolean => element.namespace === html.NS.SVG;
export const removeNode = (node: PageNode): void => removeElement(node as PageElement);
export const replaceNode = (node: PageNode, by: PageNode): void =>
  replaceElement(node as PageElement, by as PageElement);

/** Moves nodes to the end of an element, from wherever they stand. */
export function appendNodes(parent: ParentNode, nodes: readonly PageNode[]): void {
  for (const node of [...nodes]) appendChild(parent, node as PageElement);
}

export { cloneNode } from 'domhandler';
