import { indexText, locateAll } from '@avrelle/core/anchor';
import type { Annotation } from '@avrelle/core/wire';
import type { StreamRange } from './page-frame';

export const SHOWN = ['all', 'mine', 'class', 'none'] as const;
/** Whose marks are shown. */
export type Shown = (typeof SHOWN)[number];

export function isShown(annotation: Annotation, shown: Shown, me: string): boolean {
  switch (shown) {
    case 'all': return true;
    case 'mine': return annotation.author.id === me;
    case 'class': return annotation.classIds.length > 0;
    case 'none': return false;
  }
}

export interface Thread {
  readonly root: Annotation;
  readonly replies: readonly Annotation[];
  /** Where its passage stands in the text at hand. */
  readonly range: StreamRange;
}

export interface Threads {
  /** In document order, each with its replies by time. */
  readonly placed: readonly Thread[];
  /** Annotations whose passage is not in this text. */
  readonly unplaced: readonly Annotation[];
}

/** Finds the passage of every annotation in the text, and what hangs on each. */
export function threads(annotations: readonly Annotation[], text: string): Threads {
  const replies = new Map<string, Annotation[]>();
  for (const a of annotations) if (a.rootId) replies.set(a.rootId, [...(replies.get(a.rootId) ?? []), a]);
  const roots = annotations.filter((a) => a.rootId === null && a.anchor);
  const located = locateAll(indexText(text), roots.map((a) => a.anchor!));
  const placed = roots.flatMap((root, n): Thread[] => {
    const place = located[n]!;
    if (place.state === 'lost') return [];
    return [{ root, range: { start: place.start, end: place.end }, replies: (replies.get(root.id) ?? []).sort((a, b) => a.createdAt.localeCompare(b.createdAt)) }];
  });
  placed.sort((a, b) => a.range.start - b.range.start || a.root.createdAt.localeCompare(b.root.createdAt));
  return { placed, unplaced: roots.filter((_, n) => located[n]!.state === 'lost') };
}

/** A thread that has words: those stand in the margin by themselves, a bare highlight only once it is opened. */
export const hasWords = ({ root, replies }: Thread): boolean => root.note.trim() !== '' || root.tags.length > 0 || replies.length > 0;
