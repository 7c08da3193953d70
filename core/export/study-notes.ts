import { stringify } from 'yaml';
import { quotation } from '../markdown/quotation';
import type { Marked } from '../query/mark-words';
import type { Kind } from '../legend/legend';

export interface TakenReply {
  readonly author: string;
  readonly note: string;
}

export interface TakenMark {
  readonly start: number;
  readonly kind: Pick<Kind, 'name' | 'sign'>;
  readonly quote: string;
  /** The same with its links, emphasis, code and formulas, where it has some. */
  readonly quoted?: Marked | undefined;
  readonly note: string;
  readonly tags: readonly string[];
  readonly author: string;
  readonly replies: readonly TakenReply[];
  /** What it is where it is no words, as in “drawn with the pen”; '' for a mark on words. */
  readonly what: string;
  /** Where it is opened at its place. */
  readonly address: string;
}

export interface TakenSource {
  readonly title: string;
  readonly author: string;
  readonly site: string;
  readonly address: string | null;
  readonly publishedAt: string | null;
  readonly keptAt: string;
  readonly tags: readonly string[];
}

/**
 * Study notes as CommonMark with YAML 1.2 front matter: the marks in document order, each quotation told apart from
 * the words written about it. `takenOn` is an RFC 3339 date; `me` is whose notes go without a name.
 */
export function studyNotes(source: TakenSource, marks: readonly TakenMark[], takenOn: string, me: string): string {
  const inOrder = [...marks].sort((a, b) => a.start - b.start);
  const head = `---\n${stringify(frontMatter(source, takenOn), { lineWidth: 0 })}---\n\n# ${escapeMarkdown(source.title)}\n`;
  return [head, ...inOrder.map((mark) => markBlock(mark, me))].join('\n');
}

function frontMatter(source: TakenSource, takenOn: string): Record<string, unknown> {
  const all = {
    title: source.title,
    author: source.author,
    site: source.site,
    address: source.address,
    published: source.publishedAt?.slice(0, 10),
    kept: source.keptAt.slice(0, 10),
    taken: takenOn.slice(0, 10),
    tags: source.tags,
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value));
}

/** One mark: its words, its kind, who made it, what was written and answered. `me` goes without a name. */
export function markBlock(mark: TakenMark, me: string): string {
  const { kind } = mark;
  const by = mark.author === me ? '' : ` · ${escapeMarkdown(mark.author)}`;
  const what = mark.what ? ` · ${escapeMarkdown(mark.what)}` : '';
  const lines = mark.quoted ? quotation(mark.quoted) : mark.quote.split('\n').map(escapeMarkdown).join('\n\n');
  const quoted = lines
    .split('\n')
    .map((line) => `> ${line}`.trimEnd())
    .join('\n');
  const tags = mark.tags.length ? `\n${mark.tags.map((t) => `#${t}`).join(' ')}\n` : '';
  const note = mark.note.trim() ? `\n${mark.note.trim()}\n` : '';
  const replies = mark.replies
    .map((r) => `\n- **${escapeMarkdown(r.author)}:** ${r.note.trim().replaceAll('\n', '\n  ')}`)
    .join('');
  return `${quoted}\n\n${kind.sign} [*${escapeMarkdown(kind.name)}*](${mark.address})${what}${by}\n${note}${tags}${replies && `${replies}\n`}`;
}

/** CommonMark 0.31, 2.4: a backslash before ASCII punctuation makes it literal. Numbers and signs that open a list or heading too. */
export function escapeMarkdown(text: string): string {
  return text
    .replace(/[\\`*_[\]<>&]/g, '\\$&')
    .replace(
      /^(\s*)([#+\-=~|]|\d+(?=[.)]))/u,
      (_all, space: string, sign: string) => `${space}${/\d/.test(sign) ? sign : `\\${sign}`}`,
    )
    .replace(/^(\s*\d+)([.)])/, '$1\\$2');
}

/** A file name from a title: letters, digits and hyphens of any script, at most 80 characters. */
export function fileNameOf(title: string): string {
  const plain = title
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '');
  return [...plain].slice(0, 80).join('') || 'source';
}
