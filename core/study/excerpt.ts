import type { Nodes, Paragraph, RootContent } from 'mdast';
import { parseMarkdown } from '../markdown/parse';
import { plainWords } from '../markdown/plain-words';
import { remembering } from './chunks';
import { parseLinkAddress } from '../note/note';

/**
 * An excerpt is a quotation that leads back to its passage: the words of the passage, a line of its own with the sign
 * of the kind and a link to the annotation, and what was written beside it. It is Markdown of every program:
 *
 *     > the words of the passage
 *     >
 *     > ∴ [Farrant 2026, ¶ 3](avrelle:annotation/ID) #tag
 *     >
 *     > what was noted
 */
export interface ExcerptParts {
  readonly annotationId: string;
  /** How many blocks of the quotation are the passage; the next is the line of reference, then comes the note. */
  readonly passage: number;
}

/** What an excerpt is written from; each part Markdown but where it says otherwise. */
export interface Excerpt {
  readonly annotationId: string;
  readonly passage: string;
  /** In plain words, as in “Farrant 2026, ¶ 3”. */
  readonly reference: string;
  readonly sign: string;
  /** Who marked it, where that is somebody else than who writes. */
  readonly by?: string | undefined;
  readonly tags: readonly string[];
  readonly note: string;
  readonly answers: readonly { readonly author: string; readonly note: string }[];
}

/** Where words are left out of a passage. */
export const LEFT_OUT = '[…]';

/** The parts of a quotation that is an excerpt; undefined where a block is none. */
export function excerptIn(block: RootContent | Nodes | undefined): ExcerptParts | undefined {
  if (block?.type !== 'blockquote') return undefined;
  const passage = block.children.findIndex((child) => annotationOf(child) !== undefined);
  return passage < 0 ? undefined : { annotationId: annotationOf(block.children[passage])!, passage };
}

/** The annotation a line of reference leads to: it begins with its link, or with a sign of a kind and the link. */
function annotationOf(line: RootContent | undefined): string | undefined {
  if (line?.type !== 'paragraph') return undefined;
  const [first, second] = line.children;
  const link = first?.type === 'text' && isSign(first) ? second : first;
  const to = link?.type === 'link' ? parseLinkAddress(link.url) : undefined;
  return to?.type === 'annotation' ? to.id : undefined;
}

/** One character as a reader counts, also of several parts. */
const isSign = (node: Paragraph['children'][number]): boolean =>
  node.type === 'text' && /^(?:[\p{L}\p{N}]\p{M}*|[^\p{L}\p{N}\s]{1,10})\s$/u.test(node.value);

/** The Markdown of an excerpt in its parts, without the signs of its quotation. */
export interface ReadExcerpt extends Pick<Excerpt, 'annotationId' | 'passage' | 'reference' | 'note'> {
  /** The line that leads back, as it stands. */
  readonly line: string;
  /** What stands in that line behind the reference, in plain words: who marked it, and tags. */
  readonly after: string;
}

/** Undefined where a text is none. */
export const readExcerpt = remembering(2_000, (text: string): ReadExcerpt | undefined => {
  const inner = text
    .split('\n')
    .map((line) => line.replace(/^ {0,3}> ?/, ''))
    .join('\n');
  const blocks = parseMarkdown(inner).children;
  const at = blocks.findIndex((block) => annotationOf(block) !== undefined);
  const line = blocks[at];
  if (!line || line.type !== 'paragraph') return undefined;
  const [from, to] = [line.position?.start.offset ?? 0, line.position?.end.offset ?? 0];
  const link = line.children.find((child) => child.type === 'link')!;
  return {
    annotationId: annotationOf(line)!,
    passage: inner.slice(0, from).trim(),
    line: inner.slice(from, to),
    reference: plainWords(inner.slice(link.position?.start.offset, link.position?.end.offset)),
    after: plainWords(inner.slice(link.position?.end.offset, to)),
    note: inner.slice(to).trim(),
  };
});

/** The same excerpt with other words for its passage: some of it left out. */
export function withPassage(text: string, passage: string): string {
  const read = readExcerpt(text);
  return read ? asQuotation([passage.trim(), read.line, read.note]) : text;
}

const asQuotation = (parts: readonly string[]): string =>
  parts.filter(Boolean).join('\n\n').split('\n').map(quoted).join('\n');

/** An excerpt as one block of Markdown. */
export function writeExcerpt(excerpt: Excerpt): string {
  const { annotationId, passage, reference, sign, by = '', tags, note, answers } = excerpt;
  const named = tags.map((tag) => ` #${tag}`).join('');
  const name = by && ` · ${escapeWords(by)}`;
  const line = `${escapeWords(sign)} [${escapeWords(reference)}](avrelle:annotation/${annotationId})${name}${named}`;
  const said = answers
    .map((a) => `- **${escapeWords(a.author)}:** ${a.note.trim().replaceAll('\n', '\n  ')}`)
    .join('\n');
  return asQuotation([passage.trim(), line, note.trim(), said]);
}

const quoted = (line: string): string => `> ${line}`.trimEnd();

/** CommonMark 0.31, 2.4: a backslash before punctuation makes it literal. */
const escapeWords = (text: string): string =>
  text
    .replace(/[\\`*_[\]<>&#]/g, '\\$&')
    .replace(/\s+/g, ' ')
    .trim();
