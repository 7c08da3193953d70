import { SURE } from '@avrelle/core/anchor';
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
  /** Annotations whose passage is not in this version. */
  readonly unplaced: readonly Annotation[];
}

/** The annotations of a version with what hangs on each; those made on a later version have no place in it and are left out. */
export function threads(annotations: readonly Annotation[]): Threads {
  const replies = new Map<string, Annotation[]>();
  for (const a of annotations) if (a.rootId) replies.set(a.rootId, [...(replies.get(a.rootId) ?? []), a]);
  const roots = annotations.filter((a) => a.rootId === null && a.place);
  const placed = roots.flatMap((root): Thread[] => {
    const { start, end } = root.place!;
    if (start === null || end === null) return [];
    return [{ root, range: { start, end }, replies: (replies.get(root.id) ?? []).sort((a, b) => a.createdAt.localeCompare(b.createdAt)) }];
  });
  placed.sort((a, b) => a.range.start - b.range.start || a.root.createdAt.localeCompare(b.root.createdAt));
  return { placed, unplaced: roots.filter((a) => a.place!.start === null) };
}

/** How a passage fared since it was annotated, as far as the reader should be told. */
export type Fate = 'in place' | 'moved' | 'edited' | 'unsure' | 'unplaced';

export function fateOf({ anchor, place }: Annotation): Fate | undefined {
  if (!place || !anchor) return undefined;
  if (place.start === null) return 'unplaced';
  if (place.byHand) return 'in place';
  if (place.confidence < SURE) return 'unsure';
  return place.state === 'edited' ? 'edited' : place.state === 'shifted' ? 'moved' : 'in place';
}

/** A thread that has words: those stand in the margin by themselves, a bare highlight only once it is opened. */
export const hasWords = ({ root, replies }: Thread): boolean => root.note.trim() !== '' || root.tags.length > 0 || replies.length > 0;
