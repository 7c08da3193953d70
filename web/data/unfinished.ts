import type { AnnotationId, PersonId, SourceId } from '@avrelle/core/wire';
import { useMemo, useSyncExternalStore } from 'react';
import type { Spot } from '@avrelle/core/anchor';
import type { Entry } from './outbox/write';

/** What half-written words are for. */
export type Purpose =
  /** A note on a passage, or on what is no words there. */
  | {
      readonly type: 'note';
      readonly range: { readonly start: number; readonly end: number };
      readonly spot?: Spot | undefined;
      /** The words there, by which they are found again in another version. */ readonly exact: string;
    }
  /** An annotation, begun to be changed at a version. */
  | { readonly type: 'edit'; readonly id: string; readonly version: number }
  | { readonly type: 'reply'; readonly rootId: AnnotationId }
  /** An answer in words to a question. */
  | { readonly type: 'response'; readonly annotationId: AnnotationId };

/** Words that were not saved yet: they stay with what they are for, whatever becomes of the window. */
export interface Unfinished {
  readonly key: string;
  readonly purpose: Purpose;
  readonly note: string;
  /** Code of a kind; absent for an answer. */
  readonly kind?: string | undefined;
  readonly tags?: readonly string[] | undefined;
  /** RFC 3339. */
  readonly at: string;
}

/** Where the unfinished words of one purpose are kept. */
export interface Slot {
  read(): Unfinished | undefined;
  /** Tells nobody: what is being written is in its form. */
  write(words: Pick<Unfinished, 'note' | 'kind' | 'tags'>): void;
  /** Shows what was written, once it is left. */
  settle(): void;
  drop(): void;
}

const PREFIX = 'avrelle.unfinished';
const place = (personId: PersonId, sourceId: SourceId): string => `${PREFIX}/${personId}/${sourceId}/`;
const nameOf = (purpose: Purpose): string => {
  switch (purpose.type) {
    case 'note':
      return `note:${purpose.range.start}-${purpose.range.end}${purpose.spot ? `:${JSON.stringify(purpose.spot)}` : ''}`;
    case 'edit':
      return `edit:${purpose.id}`;
    case 'reply':
      return `reply:${purpose.rootId}`;
    case 'response':
      return `response:${purpose.annotationId}`;
  }
};

const listeners = new Set<() => void>();
let generation = 0;
const changed = (): void => {
  generation += 1;
  for (const listener of listeners) listener();
};
if (typeof addEventListener === 'function')
  addEventListener('storage', ({ key }) => {
    if (key === null || key.startsWith(PREFIX)) changed();
  });

function read(key: string): Unfinished | undefined {
  try {
    const found = localStorage.getItem(key);
    return found === null ? undefined : ({ ...(JSON.parse(found) as Unfinished), key } satisfies Unfinished);
  } catch {
    return undefined;
  }
}

/** The slot of a purpose. Nothing throws where the browser stores nothing; the words then last as long as the page. */
export function slotOf(personId: PersonId, sourceId: SourceId, purpose: Purpose): Slot {
  const key = place(personId, sourceId) + nameOf(purpose);
  return {
    read: () => read(key),
    write: (words) => {
      try {
        localStorage.setItem(key, JSON.stringify({ purpose, ...words, at: new Date().toISOString() }));
      } catch {
        /* full, or not allowed */
      }
    },
    settle: changed,
    drop: () => {
      localStorage.removeItem(key);
      changed();
    },
  };
}

/** All unfinished words of a person on a source, the first passage first. */
export function unfinishedOn(personId: PersonId, sourceId: SourceId): readonly Unfinished[] {
  const prefix = place(personId, sourceId);
  const names = Object.keys(localStorage).filter((key) => key.startsWith(prefix));
  return names
    .flatMap((key) => read(key) ?? [])
    .filter((words) => words.note.trim() !== '')
    .sort((a, b) => startOf(a) - startOf(b));
}

const startOf = ({ purpose }: Unfinished): number => (purpose.type === 'note' ? purpose.range.start : Infinity);

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/** Where the words that a note was begun on stand in a text by now; undefined where they do not. */
export function passageIn(text: string, { purpose }: Unfinished): { start: number; end: number } | undefined {
  if (purpose.type !== 'note') return undefined;
  const {
    range: { start, end },
    exact,
  } = purpose;
  if (text.slice(start, end) === exact) return { start, end };
  const at = exact === '' ? -1 : text.indexOf(exact);
  return at < 0 ? undefined : { start: at, end: at + exact.length };
}

export function useUnfinished(personId: PersonId, sourceId: SourceId): readonly Unfinished[] {
  const at = useSyncExternalStore(subscribe, () => generation);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what is stored is read anew with each generation
  return useMemo(() => unfinishedOn(personId, sourceId), [personId, sourceId, at]);
}

/** The words of a write that was refused come back where they were written. */
export function keepWords({ personId, sourceId, write }: Entry): void {
  const keep = (purpose: Purpose, words: Pick<Unfinished, 'note' | 'kind' | 'tags'>): void => {
    const slot = slotOf(personId, sourceId, purpose);
    slot.write(words);
    slot.settle();
  };
  switch (write.type) {
    case 'create': {
      const { anchor, note, kind, tags } = write.put;
      if (note)
        keep(
          { type: 'note', range: anchor.position, spot: anchor.spot as Spot | undefined, exact: anchor.quote.exact },
          { note, kind, tags: tags as readonly string[] },
        );
      break;
    }
    case 'reply':
      keep({ type: 'reply', rootId: write.rootId }, { note: write.note });
      break;
    case 'change':
      for (const { id, version, fields } of write.changes)
        if (fields.note)
          keep({ type: 'edit', id, version }, { note: fields.note, kind: fields.kind, tags: fields.tags });
      break;
    case 'place':
      break;
  }
}
