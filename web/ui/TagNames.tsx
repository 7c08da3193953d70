import { createContext, use, type ReactNode } from 'react';
import { tintOfTag } from '@avrelle/core/tags';
import { lineOf } from './Tint';

export type Tints = Readonly<Record<string, string>>;
/** The tints that the reader has given to tags. */
export const TintContext = createContext<Tints>({});

/** A tag as it is written, with its ribbon where it has one. */
export function TagName({ tag, children }: { tag: string; children?: ReactNode }) {
  const tint = tintOfTag(use(TintContext), tag);
  return (
    <span
      className="whitespace-nowrap"
      style={tint ? { borderLeft: `3px solid ${lineOf(tint)}`, paddingLeft: 4, marginLeft: 2 } : undefined}
    >
      {children ?? `#${tag}`}
    </span>
  );
}

/** Tags one after the other. */
export const TagNames = ({ tags }: { tags: readonly string[] }) =>
  tags.map((tag, n) => (
    <span key={tag}>
      {n > 0 && ' '}
      <TagName tag={tag} />
    </span>
  ));
