import { indexText, type TextIndex } from '@avrelle/core/anchor';
import { sentences, type Outline } from '@avrelle/core/text';
import type { Extent } from './page-frame';

const known = new WeakMap<object, TextIndex>();
const parted = new WeakMap<object, ReturnType<typeof sentences>>();

/** The index of a version's text, made once, when the first passage is marked. */
export function indexOf(source: { readonly text: string; readonly outline: Outline }): TextIndex {
  let index = known.get(source);
  if (!index) known.set(source, (index = indexText(source.text, source.outline)));
  return index;
}

/** Its sentences, made once, when somebody first steps through them. */
export function sentencesOf(source: { readonly text: string }, language: string): ReturnType<typeof sentences> {
  let list = parted.get(source);
  if (!list) parted.set(source, (list = sentences(source.text, language || 'en')));
  return list;
}

/** The sentences that stand on the page as it is shown. */
export function spokenSentences(
  source: { readonly text: string },
  language: string,
  blocks: readonly Extent[],
): ReturnType<typeof sentences> {
  let at = 0;
  return sentencesOf(source, language).filter((s) => {
    while (at < blocks.length && blocks[at]!.block.end <= s.start) at++;
    const block = blocks[at]?.block;
    return (
      block !== undefined &&
      block.start <= s.start &&
      s.end <= block.end &&
      source.text.slice(s.start, s.end).trim() !== ''
    );
  });
}
