import { visit } from 'unist-util-visit';
import { parseMarkdown } from './parse';

/** What a letter of a tag may be, and what stands before a tag in words (a backslash: the sign itself may be escaped). */
const LETTER = '[\\p{L}\\p{M}\\p{N}_/-]';
const BEFORE = '(?<=^|[\\s(])';

/**
 * A note after a tag that stands in its words was given another name, with those beneath it: `#mud` becomes `#silt`,
 * `#mud/wet` `#silt/wet`; where it was taken away (`to` empty) the word stays without its sign. What is code, a formula
 * or an address is left, and so is how the rest is written.
 */
export function renameTagInNote(markdown: string, from: string, to: string): string {
  if (!markdown.includes('#')) return markdown;
  const tag = tagPattern(from);
  const spans: { readonly start: number; readonly end: number }[] = [];
  visit(parseMarkdown(markdown), 'text', (node, _, parent) => {
    if (!node.position || parent?.type === 'link') return;
    spans.push({ start: node.position.start.offset ?? 0, end: node.position.end.offset ?? 0 });
  });
  return spans.reduceRight((text, { start, end }) => {
    const words = text.slice(start, end).replace(tag, (_, sign: string, name: string) => {
      if (to === '') return name;
      return sign + to.replaceAll('_', '\\_');
    });
    return text.slice(0, start) + words + text.slice(end);
  }, markdown);
}

/** The tag as it may be written in Markdown: its sign, and then its name; each may hold escapes. */
function tagPattern(tag: string): RegExp {
  const name = Array.from(tag, (c) => (/[_/-]/.test(c) ? `\\\\?${c}` : c)).join('');
  const ended = `(?!\\\\?${LETTER})|(?=\\\\?/${LETTER})`;
  return new RegExp(`${BEFORE}(\\\\?#)(${name})(?:${ended})`, 'giu');
}
