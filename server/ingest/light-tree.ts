import { isTag, isText } from 'domhandler';
import type { TextNodeLike } from '@avrelle/core/text';
import { parseTree, rootOf, serializeTree, type PageNode, type PageTree } from './page-tree';

/** How often what is nested wrongly may come out otherwise than it was written. */
const MOST_READINGS = 8;

/** HTML as it is written once it has been parsed, so that it parses to the same tree again; and that tree. */
export function settled(html: string): { readonly html: string; readonly tree: PageTree } {
  let before = html;
  for (let reading = 1; ; reading++) {
    const tree = parseTree(before);
    const after = serializeTree(tree);
    if (after === before || reading === MOST_READINGS) return { html: after, tree };
    before = after;
  }
}

/** The root element of some HTML, as the text stream is read from it. */
export const lightTree = (html: string): TextNodeLike => asTextTree(parseTree(html));

/** The root element of a tree, as the text stream is read from it. */
export const asTextTree = (tree: PageTree): LightNode => new LightNode(rootOf(tree), null);

/** A node of a page, as the walk of the text asks for it. */
export class LightNode implements TextNodeLike {
  private children: readonly LightNode[] | undefined;
  private next: LightNode | null = null;

  constructor(
    readonly node: PageNode,
    readonly parentNode: LightNode | null,
  ) {}

  get nodeType(): number {
    if (isTag(this.node)) return 1;
    return isText(this.node) ? 3 : 8;
  }
  get nodeName(): string {
    if (isTag(this.node)) return this.node.name;
    return isText(this.node) ? '#text' : '#comment';
  }
  get nodeValue(): string | null {
    return isText(this.node) ? this.node.data : null;
  }
  get firstChild(): LightNode | null {
    if (!this.children) {
      this.children = 'children' in this.node ? this.node.children.map((child) => new LightNode(child, this)) : [];
      this.children.forEach((child, n, all) => {
        child.next = all[n + 1] ?? null;
      });
    }
    return this.children[0] ?? null;
  }
  get nextSibling(): LightNode | null {
    return this.next;
  }
  getAttribute(name: string): string | null {
    return isTag(this.node) ? (this.node.attribs[name] ?? null) : null;
  }
}
