import { range, type Range } from './offset';

/** Sentence boundaries by Unicode UAX #29 (through Intl.Segmenter), never across a line of the stream. */
export function sentences(text: string, language = 'en'): readonly Range[] {
  const segmenter = new Intl.Segmenter(language, { granularity: 'sentence' });
  const found: Range[] = [];
  let line = 0;
  for (const part of text.split('\n')) {
    for (const piece of segmenter.segment(part)) {
      const words = piece.segment.trimEnd();
      const lead = words.length - words.trimStart().length;
      if (words.length > lead) found.push(range(line + piece.index + lead, line + piece.index + words.length));
    }
    line += part.length + 1;
  }
  return found;
}
