import type { Element as HastElement, ElementContent, Root } from 'hast';
import { sanitize } from 'hast-util-sanitize';
import { Document, isTag, isText, Text } from 'domhandler';
import { html as standard } from 'parse5';
import { ALLOWED } from './allowed-markup';
import {
  appendNodes,
  bodyOf,
  closest,
  contentOf,
  fits,
  isOfSvg,
  isQuirky,
  newElement,
  parseTree,
  removeAll,
  rootOf,
  select,
  serializeTree,
  within,
  type PageElement,
  type PageNode,
  type PageTree,
} from './page-tree';
import { plainEscapes } from './stylesheets';

/** Contents of these go with the element; of others that are taken out, the content stays. */
const WITH_CONTENT = new Set(
  'script style template noscript noembed noframes iframe object embed audio video base meta link head frameset annotation annotation-xml foreignObject'.split(
    ' ',
  ),
);
const LISTINGS = 'xmp, listing, plaintext';

/** What is left of a page, and attributes worth keeping. */
export interface CleanPage {
  readonly body: string;
  readonly bodyClass: string;
  readonly bodyDirection: string;
  readonly rootClass: string;
  readonly rootDirection: string;
}

/**
 * Removes everything that could act, lets forms stand as they are without taking input, and makes addresses of links
 * absolute. Changes the tree it is given.
 */
export function sanitise(tree: PageTree, base: string): CleanPage {
  const root = rootOf(tree);
  const body = bodyOf(tree);
  keepFormulas(tree);
  // They are read otherwise than anything else; their text is shown as in a `pre`.
  for (const listing of select(body, LISTINGS)) listing.name = 'pre';
  removeAll(within(body, (element) => WITH_CONTENT.has(element.name) || isUnseen(element)));
  const page = base.split('#')[0]!;
  for (const element of within(body)) {
    absoluteLink(element, base, page);
    dropRemote(element);
    if (element.attribs.name !== undefined && !NAMED.test(element.name)) delete element.attribs.name;
    if (FIELD.test(element.name)) element.attribs.inert = '';
  }
  return {
    body: cleaned(body, isQuirky(tree)),
    bodyClass: body.attribs.class ?? '',
    bodyDirection: directionOf(body),
    rootClass: root.attribs.class ?? '',
    rootDirection: directionOf(root),
  };
}

/** How often what is written is read again until nothing of it changes. */
const MOST_READINGS = 6;

/**
 * What is allowed of an element's content. Where drawings or formulas stand, what is nested wrongly on purpose may be read
 * as other elements than it was written from: it is read and cleaned until it stays the same, and stands without these
 * where it does not.
 */
function cleaned(body: PageElement, quirky: boolean): string {
  let markup = serializeTree(allowed(body));
  for (let reading = 1; reading <= MOST_READINGS && /<(svg|math)[\s>/]/.test(markup); reading++) {
    const again = bodyOf(parseTree(`${quirky ? '' : '<!doctype html>'}<body>${markup}`));
    if (reading === MOST_READINGS) removeAll(select(again, 'svg, math'));
    const next = serializeTree(allowed(again));
    if (next === markup) break;
    markup = next;
  }
  return markup;
}

function allowed(element: PageElement): PageTree {
  const tree: Root = { type: 'root', children: element.children.flatMap(toHast) };
  const found = sanitize(tree, ALLOWED);
  const kept = new Document([]);
  const nodes = found.type === 'root' ? found.children : [found];
  appendNodes(kept, nodes.flatMap(fromHast));
  return kept;
}

const NAMESPACES: Readonly<Record<string, standard.NS>> = { svg: standard.NS.SVG, math: standard.NS.MATHML };
const SPACES: Readonly<Record<string, string>> = { [standard.NS.SVG]: 'svg:', [standard.NS.MATHML]: 'math:' };

function toHast(node: PageNode): ElementContent[] {
  if (isText(node)) return [{ type: 'text', value: node.data }];
  if (!isTag(node)) return [];
  const prefixes = node['x-attribsPrefix'] ?? {};
  const properties: HastElement['properties'] = {};
  for (const [name, value] of Object.entries(node.attribs))
    properties[prefixes[name] ? `${prefixes[name]}:${name}` : name] = value;
  // An element of HTML with a colon in its name is none that HTML knows.
  const space = SPACES[node.namespace ?? ''];
  const tagName = space ? `${space}${node.name}` : node.name.replace(':', '-');
  return [{ type: 'element', tagName, properties, children: node.children.flatMap(toHast) }];
}

function fromHast(node: Root['children'][number]): PageNode[] {
  if (node.type === 'text') return [new Text(node.value)];
  if (node.type !== 'element') return [];
  const [space, name] = node.tagName.includes(':') ? node.tagName.split(':') : ['', node.tagName];
  const element = newElement(
    name!,
    node.properties as Record<string, string>,
    NAMESPACES[space ?? ''] ?? standard.NS.HTML,
  );
  appendNodes(element, node.children.flatMap(fromHast));
  return [element];
}

const isMath = fits('math');

/** What a formula was written as (MathML 3, 5.2.1, annotations) goes with its annotation, but for a word of it on the formula. */
function keepFormulas(tree: PageTree): void {
  for (const note of select(tree, 'annotation[encoding="application/x-tex"]')) {
    const formula = closest(note, isMath);
    if (formula) formula.attribs.alttext ??= contentOf(note).trim();
  }
}

const FIELD = /^(input|select|textarea)$/;
const LINK = /^(a|area)$/;
/** Only of these may an element have a name: by another, it could stand in for what a document itself has (HTML Standard, 3.1.6). */
const NAMED = /^(a|map|input|select|textarea|button|meter|output)$/;

const isUnseen = ({ attribs: { hidden, style } }: PageElement): boolean =>
  hidden !== undefined || (style !== undefined && /display\s*:\s*none/i.test(style));

/** As an element says it itself (HTML Standard, 3.2.6.4); '' where it says nothing. */
function directionOf({ attribs }: PageElement): string {
  const direction = (attribs.dir ?? '').toLowerCase();
  return /^(rtl|ltr|auto)$/.test(direction) ? direction : '';
}

/** Links within the page stay within it; others become absolute, so that they lead somewhere from the snapshot. */
function absoluteLink({ name, attribs }: PageElement, base: string, page: string): void {
  const { href } = attribs;
  if (!LINK.test(name) || href === undefined || href.startsWith('#') || !URL.canParse(href, base)) return;
  const { href: absolute, protocol } = new URL(href, base);
  if (!/^(https?|mailto):$/.test(protocol)) delete attribs.href;
  else attribs.href = absolute.startsWith(`${page}#`) ? absolute.slice(page.length) : absolute;
}

/** After everything was brought inside, an address is a link's, a place within the page, or an asset's; nothing else loads. */
function dropRemote(element: PageElement): void {
  const { name, attribs } = element;
  for (const [key, value] of Object.entries(attribs)) {
    const leads = key === 'href' || key === 'xlink:href';
    if (key === 'src' && !value.startsWith('asset/')) delete attribs[key];
    else if (leads && !LINK.test(name) && !/^(#|asset\/)/.test(value)) delete attribs[key];
    else if (key !== 'style' && value.includes('(') && isOfSvg(element) && LOADS.test(plainEscapes(value)))
      delete attribs[key];
  }
}

const LOADS = /url\((?!\s*["']?#)/i;
