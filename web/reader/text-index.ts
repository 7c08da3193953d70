import { indexText, type TextIndex } from '@avrelle/core/anchor';
import type { Outline } from '@avrelle/core/text';

const known = new WeakMap<object, TextIndex>();

/** The index of a version's text, made once, when the first passage is marked. */
export function indexOf(source: { readonly text: string; readonly outline: Outline }): TextIndex {
  let index = known.get(source);
  if (!index) known.set(source, (index = indexText(source.text, source.outline)));
  return index;
}
