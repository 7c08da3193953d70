import { ASIDE_ATTRIBUTE, mainText, readingMinutes, readTree, toTree } from '@avrelle/core/text';
import { AppError } from '../errors';
import { Text } from 'domhandler';
import type { Choices, Ingested } from './ingested';
import { asTextTree, lightTree, LightNode } from './light-tree';
import {
  appendNodes,
  bodyOf,
  childElements,
  newElement,
  parseTree,
  removeAll,
  rootOf,
  select,
  serializeTree,
  type PageElement,
  type PageNode,
  type PageTree,
} from './page-tree';

/** What is kept of a page as it was fetched. Its snapshot is written anew, so the stream is read from it anew. */
export function shape(whole: Ingested, { amount, width = null, removed = [], passage }: Choices): Ingested {
  if (amount === 'whole' && removed.length === 0) return { ...whole, width };
  const { stored } = whole;
  const tree = parseTree(whole.snapshot);
  const root = rootOf(tree);
  const body = bodyOf(tree);
  const out = removed.map((path) => elementAt(root, path));
  removeAll(out.filter((element) => element !== undefined && element !== root && element !== body) as PageElement[]);
  if (amount === 'main') removeAll(select(root, `[${ASIDE_ATTRIBUTE}]`));
  if (amount === 'passage') keepPassage(tree, passage ?? undefined);
  if (amount === 'link') keepLink(tree, whole);
  const snapshot = serializeTree(tree);
  const { text, outline, inlines } = readTree(lightTree(snapshot));
  if (!text.trim()) throw new AppError('empty_page', { address: whole.address ?? whole.meta.title });
  const assets = whole.assets.filter(({ hash }) => hash === whole.lead || snapshot.includes(hash));
  return {
    ...whole,
    amount,
    width,
    snapshot,
    text,
    outline,
    inlines,
    minutes: readingMinutes(mainText(text, outline)),
    assets,
    ...(stored ? { stored: { ...stored, assets: assets.map((a) => a.hash) } } : {}),
  };
}

function elementAt(root: PageElement, path: string): PageElement | undefined {
  let here: PageElement | undefined = root;
  for (const step of path.split('/')) here = here && childElements(here)[Number(step)];
  return here;
}

/** The passage with the elements it stands in, so that it keeps its look. */
function keepPassage(tree: PageTree, passage: { start: number; end: number } | undefined): void {
  const stream = readTree(asTextTree(tree));
  const points = passage && passage.end <= stream.text.length ? toTree(stream, passage.start, passage.end) : undefined;
  if (!points || !passage)
    throw new AppError('outside_text', {
      start: passage?.start ?? 0,
      end: passage?.end ?? 0,
      length: stream.text.length,
    });
  const body = bodyOf(tree);
  const [start, end] = [points.start, points.end].map(({ node, offset }) => ({
    node: (node as LightNode).node as Text,
    offset,
  })) as [CutPoint, CutPoint];
  end.node.data = end.node.data.slice(0, end.offset);
  start.node.data = start.node.data.slice(start.offset);
  removeOutside(body, start.node, end.node);
  for (const aside of select(body, `[${ASIDE_ATTRIBUTE}]`)) delete aside.attribs[ASIDE_ATTRIBUTE];
}

interface CutPoint {
  readonly node: Text;
  readonly offset: number;
}

/** Leaves what lies between two texts, both included, and the elements these stand in. */
function removeOutside(body: PageElement, first: Text, last: Text): void {
  const around = new Set<PageNode | null>();
  for (const text of [first, last]) for (let node: PageNode | null = text; node; node = node.parent) around.add(node);
  const state = { begun: false, ended: false };
  const walk = (parent: PageElement): void => {
    const kept: PageNode[] = [];
    for (const child of parent.children) {
      if (child === first) state.begun = true;
      const enters = around.has(child);
      if ((state.begun && !state.ended) || enters) kept.push(child);
      if (enters && 'attribs' in child) walk(child);
      if (child === last) state.ended = true;
    }
    parent.children = [];
    appendNodes(parent, kept);
  };
  walk(body);
}

/** Title, what the page says of itself, and where it is. */
function keepLink(tree: PageTree, { meta, address }: Ingested): void {
  removeAll(select(tree, 'style'));
  const body = bodyOf(tree);
  const main = newElement('main');
  const add = (name: string, inner: PageNode): void => {
    const element = newElement(name);
    appendNodes(element, [inner]);
    appendNodes(main, [element]);
  };
  add('h1', new Text(meta.title));
  if (meta.description) add('p', new Text(meta.description));
  if (address) {
    const link = newElement('a', { href: address });
    appendNodes(link, [new Text(address)]);
    add('p', link);
  }
  delete body.attribs.class;
  body.children = [];
  appendNodes(body, [main]);
}
