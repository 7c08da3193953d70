import { ELEMENT_NODE, type TextNodeLike } from './tree';

export const INLINE_TYPES = ['link', 'strong', 'emphasis', 'code', 'super', 'sub', 'formula', 'picture'] as const;
export type InlineType = (typeof INLINE_TYPES)[number];

/** What words are within their line, beside being words. */
export interface Inline {
  /** In the stream, half-open; of a picture both are the place it stands at. */
  readonly start: number;
  readonly end: number;
  readonly type: InlineType;
  /** Of a link its address, of a formula its TeX, of a picture what it shows; otherwise ''. */
  readonly value: string;
}

/** What a piece of a quotation is, wherever it stands. */
export type InlineStyle = Pick<Inline, 'type' | 'value'>;

/** Beyond so many, a page's words are quoted plainly. */
export const MOST_INLINES = 50_000;
const LONGEST_VALUE = 2_000;

const TYPES: Readonly<Record<string, InlineType>> = {
  a: 'link',
  strong: 'strong',
  b: 'strong',
  em: 'emphasis',
  i: 'emphasis',
  cite: 'emphasis',
  dfn: 'emphasis',
  code: 'code',
  kbd: 'code',
  samp: 'code',
  sup: 'super',
  sub: 'sub',
  math: 'formula',
  img: 'picture',
};
const VALUES: Readonly<Partial<Record<InlineType, string>>> = { link: 'href', formula: 'alttext', picture: 'alt' };

/** What an element makes of its words; undefined where that is nothing to be kept in a quotation. */
export function inlineOf(node: TextNodeLike, name: string): InlineStyle | undefined {
  const type = node.nodeType === ELEMENT_NODE ? TYPES[name] : undefined;
  if (!type) return undefined;
  const attribute = VALUES[type];
  const value = attribute === undefined ? '' : (node.getAttribute?.(attribute) ?? '').trim();
  if (value.length > LONGEST_VALUE) return undefined;
  if (type === 'link' && !/^(https?|mailto):/.test(value)) return undefined;
  return attribute !== undefined && value === '' ? undefined : { type, value };
}
