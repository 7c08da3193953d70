import { ELEMENT_NODE, TEXT_NODE, type TextNodeLike } from './tree';

export interface FakeNode extends TextNodeLike {
  firstChild: FakeNode | null;
  nextSibling: FakeNode | null;
  parentNode: FakeNode | null;
}

/** A tree made by hand for tests: `h('p', 'words ', h('b', 'bold'))`. */
export function h(name: string, ...children: readonly (string | FakeNode)[]): FakeNode {
  return element(name, {}, children);
}

export function element(
  name: string,
  attributes: Readonly<Record<string, string>>,
  children: readonly (string | FakeNode)[],
): FakeNode {
  const node: FakeNode = {
    nodeType: ELEMENT_NODE,
    nodeName: name.toUpperCase(),
    nodeValue: null,
    firstChild: null,
    nextSibling: null,
    parentNode: null,
    getAttribute: (key: string) => attributes[key] ?? null,
  };
  let last: FakeNode | null = null;
  for (const given of children) {
    const child = typeof given === 'string' ? textNode(given) : given;
    child.parentNode = node;
    if (last) last.nextSibling = child;
    else node.firstChild = child;
    last = child;
  }
  return node;
}

export function textNode(value: string): FakeNode {
  return {
    nodeType: TEXT_NODE,
    nodeName: '#text',
    nodeValue: value,
    firstChild: null,
    nextSibling: null,
    parentNode: null,
  };
}
