import { createContext, useContext } from 'react';
import { createStore, useStore, type StoreApi } from 'zustand';
import type { Audience } from '@avrelle/core/audience';
import type { Annotation, ClassId, ClassRow, Me, SourceDetail, SourceText } from '@avrelle/core/wire';
import { reduce, type ReaderAction, type ReaderState } from '../model/reader-state';
import type { Thread } from '../model/thread';
import type { Legend } from './legend';
import type { AnnotationWriter } from './annotation-writer';

/** What a reader has chosen, and the one way to change it. */
export interface ReaderStore extends StoreApi<ReaderState> {
  dispatch(action: ReaderAction): void;
}

export function createReaderStore(initial: ReaderState): ReaderStore {
  const store = createStore<ReaderState>(() => initial);
  return { ...store, dispatch: (action) => store.setState((state) => reduce(state, action), true) };
}

/** One version of a source that is being read, its annotations, and who reads it. */
export interface ReaderSession {
  readonly store: ReaderStore;
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly annotations: readonly Annotation[];
  readonly classes: readonly ClassRow[];
  readonly me: Me;
  /** The kinds one marks with now. */
  readonly legend: Legend;
  /** For whom one writes now: classes, or only oneself. */
  readonly audience: Audience;
  chooseAudience(audience: Audience): Promise<void>;
  /** Makes sure that classes have the source. False when one could not be given it; the person is told why. */
  share(classIds: readonly ClassId[]): Promise<boolean>;
  /** Classes that have the source. */
  readonly having: ReadonlySet<string>;
  readonly writer: AnnotationWriter;
  /** Every thread that has a place in this version, and those the filter lets through. */
  readonly threads: readonly Thread[];
  readonly visible: readonly Thread[];
  /** Those that mean the words they stand at: areas, points and moments are only tied to theirs. */
  readonly inText: readonly Thread[];
  readonly unplaced: readonly Annotation[];
  /** Whether one may write on this version; the person is told where not. */
  mayWrite(): boolean;
  /** Tells what was done to who does not see it. */
  announce(words: string): void;
}

export const SessionContext = createContext<ReaderSession | undefined>(undefined);

export function useSession(): ReaderSession {
  const session = useContext(SessionContext);
  if (!session) throw new Error('A part of the reading view stands outside of a ReaderSession.');
  return session;
}

/** A part of what the reader has chosen; the component is made anew when that part changes. */
export const useReader = <T>(select: (state: ReaderState) => T): T => useStore(useSession().store, select);
