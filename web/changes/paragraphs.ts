import type { Comparison } from '@avrelle/core/wire';

export interface Piece {
  readonly kind: 'kept' | 'removed' | 'added';
  readonly text: string;
}

/** Lines of text as they read with both versions in them; unchanged ones lie together. */
export type Section =
  | { readonly changed: true; readonly line: readonly Piece[] }
  | { readonly changed: false; readonly lines: readonly string[] };

/** A comparison as lines to read. Removed and added words stand where they were and are. */
export function paragraphs({
  before,
  after,
  changes,
}: Pick<Comparison, 'before' | 'after' | 'changes'>): readonly Section[] {
  const lines: Piece[][] = [[]];
  for (const { kind, before: from, after: to } of changes) {
    const text = kind === 'removed' ? before.slice(...from) : after.slice(...to);
    text.split('\n').forEach((part, n) => {
      if (n > 0) lines.push([]);
      if (part) lines.at(-1)!.push({ kind, text: part });
    });
  }
  const sections: Section[] = [];
  for (const line of lines) {
    if (line.length === 0) continue;
    const last = sections.at(-1);
    const plain = line.map((p) => p.text).join('');
    if (line.some((p) => p.kind !== 'kept' && p.text.trim())) sections.push({ changed: true, line });
    else if (last && !last.changed) sections[sections.length - 1] = { changed: false, lines: [...last.lines, plain] };
    else sections.push({ changed: false, lines: [plain] });
  }
  return sections;
}

/** How many words stand in the pieces of one kind. */
export function wordsOfKind(
  { before, after, changes }: Pick<Comparison, 'before' | 'after' | 'changes'>,
  kind: 'removed' | 'added',
): number {
  const texts = changes
    .filter((c) => c.kind === kind)
    .map((c) => (kind === 'removed' ? before.slice(...c.before) : after.slice(...c.after)));
  return texts.reduce((sum, text) => sum + (text.match(/[\p{L}\p{N}][\p{L}\p{M}\p{N}’'-]*/gu)?.length ?? 0), 0);
}
