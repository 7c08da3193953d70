/**
 * The least a tree must offer to be read as text. The browser's DOM satisfies it as it is, and the server's
 * light trees through `LightNode`, so that one walk gives the same string on both sides.
 */
export interface TextNodeLike {
  readonly nodeType: number;
  readonly nodeName: string;
  readonly nodeValue: string | null;
  readonly firstChild: TextNodeLike | null;
  readonly nextSibling: TextNodeLike | null;
  readonly parentNode: TextNodeLike | null;
  getAttribute?(name: string): string | null;
}

/** DOM Standard, `Node.nodeType`. */
export const ELEMENT_NODE = 1;
export const TEXT_NODE = 3;
