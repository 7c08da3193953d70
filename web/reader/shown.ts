import type { Annotation } from '@avrelle/core/wire';

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
}

/** Annotations that stand in the text, in document order, each with its replies by time. */
export function threads(annotations: readonly Annotation[]): readonly Thread[] {
  const replies = new Map<string, Annotation[]>();
  for (const a of annotations) if (a.rootId) replies.set(a.rootId, [...(replies.get(a.rootId) ?? []), a]);
  return annotations
    .filter((a) => a.rootId === null && a.anchor)
    .map((root) => ({ root, replies: (replies.get(root.id) ?? []).sort((a, b) => a.createdAt.localeCompare(b.createdAt)) }))
    .sort((a, b) => a.root.anchor!.position.start - b.root.anchor!.position.start || a.root.createdAt.localeCompare(b.root.createdAt));
}

/** A thread that has words: those stand in the margin by themselves, a bare highlight only once it is opened. */
export const hasWords = ({ root, replies }: Thread): boolean => root.note.trim() !== '' || root.tags.length > 0 || replies.length > 0;
