import { parse, serialize, type DefaultTreeAdapterMap } from 'parse5';
import type { TextNodeLike } from '@avrelle/core/text';

type Node = DefaultTreeAdapterMap['node'];

/** As a browser parses it that runs no scripts. Far lighter than a document with all its methods, for pages of many elements. */
const parsed = (html: string): DefaultTreeAdapterMap['document'] => parse(html, { scriptingEnabled: false });

/** HTML as it is written once it has been parsed: written so, it parses to the same tree. */
export const normalised = (html: string): string => serialize(parsed(html));

/** The root element of some HTML, as the text stream is read from it. */
export function lightTree(html: string): TextNodeLike {
  const root = parsed(html).childNodes.find((node) => node.nodeName === 'html');
  return new Light(root!, null);
}

class Light implements TextNodeLike {
  private children: readonly Light[] | undefined;
  private next: Light | null = null;

  constructor(
    private readonly node: Node,
    readonly parentNode: Light | null,
  ) {}

  get nodeType(): number {
    return 'tagName' in this.node ? 1 : this.node.nodeName === '#text' ? 3 : 8;
  }
  get nodeName(): string {
    return this.node.nodeName;
  }
  get nodeValue(): string | null {
    return 'value' in this.node ? this.node.value : null;
  }
  get firstChild(): Light | null {
    if (!this.children) {
      this.children = 'childNodes' in this.node ? this.node.childNodes.map((child) => new Light(child, this)) : [];
      this.children.forEach((child, n, all) => {
        child.next = all[n + 1] ?? null;
      });
    }
    return this.children[0] ?? null;
  }
  get nextSibling(): Light | null {
    return this.next;
  }
  getAttribute(name: string): string | null {
    return 'attrs' in this.node ? (this.node.attrs.find((attribute) => attribute.name === name)?.value ?? null) : null;
  }
}
