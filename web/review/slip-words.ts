import { placeSlips, slipsOver, type Slip } from '@avrelle/core/review';
import { wordsIn } from '@avrelle/core/text';
import type { CardPassage } from '@avrelle/core/wire';

/** A stretch of a paragraph: a word that can lie under a slip, or what stands between words. */
export interface Stretch {
  /** Null for what stands between words. */
  readonly key: string | null;
  readonly text: string;
  readonly marked: boolean;
}

/** A paragraph of a passage, in words. `start` is where it begins in the text. */
export interface WordBlock {
  readonly start: number;
  readonly text: string;
  readonly stretches: readonly Stretch[];
}

/** The paragraphs of a passage in words, of which some can be put under slips. */
export const wordBlocks = ({ blocks }: CardPassage, language: string): readonly WordBlock[] =>
  blocks.flatMap(({ start, parts, holds }) => {
    if (!holds) return [];
    const text = parts.map((part) => part.text).join('');
    const marks = markedRanges(parts);
    const stretches: Stretch[] = [];
    let at = 0;
    for (const word of wordsIn(text, { start: 0, end: text.length }, language || 'en')) {
      if (word.start > at) stretches.push({ key: null, text: text.slice(at, word.start), marked: false });
      const marked = marks.some((mark) => mark.start < word.end && word.start < mark.end);
      stretches.push({ key: keyOf(start, word.start), text: text.slice(word.start, word.end), marked });
      at = word.end;
    }
    if (at < text.length) stretches.push({ key: null, text: text.slice(at), marked: false });
    return [{ start, text, stretches }];
  });

const keyOf = (block: number, at: number): string => `${block + at}`;

function markedRanges(parts: CardPassage['blocks'][number]['parts']): { start: number; end: number }[] {
  let at = 0;
  return parts.flatMap(({ text, marked }) => {
    const start = at;
    at += text.length;
    return marked ? [{ start, end: at }] : [];
  });
}

/** Slips over the words with these keys. */
export function slipsOf(blocks: readonly WordBlock[], passageStart: number, chosen: readonly string[]): Slip[] {
  const keys = new Set(chosen);
  return blocks.flatMap(({ start, text, stretches }) => {
    const words = stretches.flatMap(({ key, text: word }) => {
      if (key === null || !keys.has(key)) return [];
      const at = Number(key) - start;
      return [{ start: at, end: at + word.length }];
    });
    return slipsOver(text, passageStart - start, words);
  });
}

/** Keys of the words that lie under slips. */
export function chosenBy(blocks: readonly WordBlock[], passageStart: number, slips: readonly Slip[]): string[] {
  return blocks.flatMap(({ start, text, stretches }) => {
    const placed = placeSlips(text, passageStart - start, slips);
    return stretches.flatMap(({ key, text: word }) => {
      const at = Number(key) - start;
      const under = placed.some((slip) => slip !== null && slip.start < at + word.length && at < slip.end);
      return key !== null && under ? [key] : [];
    });
  });
}
