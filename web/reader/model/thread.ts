import { SURE } from '@avrelle/core/anchor';
import type { Annotation, ClassId, PersonId } from '@avrelle/core/wire';
import type { StreamRange } from '../../page/page-frame';

/** Whose marks are shown. */
export type Whose = 'all' | 'mine' | 'class' | 'none' | { readonly person: string } | { readonly classId: ClassId };
export const WHOSE = ['all', 'mine', 'class', 'none'] as const;

/** Which of them. */
export interface Filter {
  readonly whose: Whose;
  /** Of one kind, by its code. */
  readonly kind?: string | undefined;
  readonly tag?: string | undefined;
}

/** How the notes stand in the margin: level with their passages, newest first, or by who wrote them. */
export const ORDERS = ['place', 'time', 'author'] as const;
export type Order = (typeof ORDERS)[number];

type Showable = Pick<Annotation, 'classIds' | 'tags'> & {
  readonly author: { readonly id: string };
  readonly kind: { readonly code: string };
};

export function matchesFilter(annotation: Showable, { whose, kind, tag }: Filter, me: PersonId): boolean {
  return (
    isOf(annotation, whose, me) &&
    (kind === undefined || annotation.kind.code === kind) &&
    (tag === undefined || annotation.tags.includes(tag))
  );
}

function isOf({ author, classIds }: Showable, whose: Whose, me: PersonId): boolean {
  if (typeof whose === 'object')
    return 'person' in whose ? author.id === whose.person : classIds.includes(whose.classId);
  switch (whose) {
    case 'all':
      return true;
    case 'mine':
      return author.id === me;
    case 'class':
      return classIds.length > 0;
    case 'none':
      return false;
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

/**
 * The annotations of a version with what hangs on each; those made on a later version have no place in it and are left
 * out. What was deleted stands as long as an answer to it does.
 */
export function threads(annotations: readonly Annotation[]): Threads {
  const replies = new Map<string, Annotation[]>();
  for (const a of annotations) if (a.rootId) replies.set(a.rootId, [...(replies.get(a.rootId) ?? []), a]);
  const answers = (id: string): Annotation[] => standing(replies.get(id) ?? []);
  const roots = annotations.filter((a) => a.rootId === null && a.place && (!a.deleted || answers(a.id).length > 0));
  const placed = roots.flatMap((root): Thread[] => {
    const { start, end } = root.place!;
    return start === null || end === null ? [] : [{ root, range: { start, end }, replies: answers(root.id) }];
  });
  placed.sort((a, b) => a.range.start - b.range.start || a.root.createdAt.localeCompare(b.root.createdAt));
  return { placed, unplaced: roots.filter((a) => a.place!.start === null) };
}

/** Answers by time; a deleted one only while something answers it. */
function standing(replies: readonly Annotation[]): Annotation[] {
  const left = replies.filter((r) => !r.deleted || replies.some((other) => other.parentId === r.id && !other.deleted));
  return left.sort((a, b) => a.createdAt.localeCompare(b.createdAt));
}

/** Threads in the order in which the margin lists them. */
export function ordered(all: readonly Thread[], order: Order): readonly Thread[] {
  if (order === 'place') return all;
  const newest = (a: Thread, b: Thread): number => b.root.createdAt.localeCompare(a.root.createdAt);
  return order === 'time'
    ? all.toSorted(newest)
    : all.toSorted((a, b) => a.root.author.name.localeCompare(b.root.author.name) || a.range.start - b.range.start);
}

/** How a passage fared since it was annotated, as far as the reader should be told. */
export type Outcome = 'in place' | 'moved' | 'edited' | 'unsure' | 'unplaced';

export function outcomeOf({ anchor, place }: Annotation): Outcome | undefined {
  if (!place || !anchor) return undefined;
  if (place.start === null) return 'unplaced';
  if (place.byHand) return 'in place';
  if (place.confidence < SURE) return 'unsure';
  if (place.state === 'edited') return 'edited';
  return place.state === 'shifted' ? 'moved' : 'in place';
}

/** A thread that has words beside the page: those stand in the margin by themselves, a bare highlight only once it is opened. Words written on the page itself stand there. */
export const hasWords = ({ root, replies }: Thread): boolean =>
  (root.note.trim() !== '' && !(root.anchor?.spot?.type === 'drawn' && root.anchor.spot.tool === 'text')) ||
  root.tags.length > 0 ||
  replies.length > 0;
