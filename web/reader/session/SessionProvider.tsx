import { useCallback, useMemo, useRef, useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import type { Audience } from '@avrelle/core/audience';
import type { Annotation, ClassRow, PersonId, SourceDetail, SourceText } from '@avrelle/core/wire';
import { useMe } from '../../account/me';
import { useMessages } from '../../ui/Messages';
import { useWide } from '../../ui/use-width';
import { initialState } from '../model/reader-state';
import { matchesFilter, threads } from '../model/thread';
import { useAudienceChoice } from './audience-choice';
import { LegendProvider, useChosenLegend } from './legend';
import { createReaderStore, SessionContext, type ReaderSession, type ReaderStore } from './reader-context';
import { useAnnotationWriter } from './use-annotation-writer';
import { useFocusMode } from './use-focus';
import { useSharing } from './use-sharing';

export interface Opened {
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly annotations: readonly Annotation[];
  readonly classes: readonly ClassRow[];
}

/** Holds what is known of the version that is read, and what its reader has chosen, for all parts of the reading view. */
export function SessionProvider({ opened, children }: { readonly opened: Opened; readonly children: ReactNode }) {
  const { source, text, annotations, classes } = opened;
  const me = useMe();
  const wide = useWide();
  const [store] = useState(() => createReaderStore(initialState(source.kind, wide)));
  const sharing = useSharing(source, classes);
  const { share } = sharing;
  const [audience, setAudience] = useAudienceChoice(source.id, classes);
  const legend = useChosenLegend(audience.classIds, false);
  const writer = useAnnotationWriter(source, text, me, { legend, classes });
  const mayWrite = useMayWrite(source);
  const chooseAudience = useCallback(
    async (chosen: Audience): Promise<void> => {
      if (await share(chosen.classIds)) setAudience(chosen);
    },
    [share, setAudience],
  );
  useFocusMode(store);
  const shown = useThreads(store, annotations, me.id);
  const announcer = useRef<HTMLParagraphElement>(null);
  const announce = useCallback((words: string): void => {
    if (announcer.current) announcer.current.textContent = words;
  }, []);
  const session = useMemo(
    (): ReaderSession => ({
      store,
      legend,
      writer,
      announce,
      mayWrite,
      chooseAudience,
      audience,
      me,
      ...sharing,
      ...opened,
      ...shown,
    }),
    [store, legend, writer, announce, mayWrite, chooseAudience, audience, me, sharing, opened, shown],
  );
  return (
    <SessionContext.Provider value={session}>
      <LegendProvider value={legend}>
        {children}
        <p ref={announcer} className="sr-only" role="status" />
      </LegendProvider>
    </SessionContext.Provider>
  );
}

/** The threads of the version, and which of them the filter lets through. */
function useThreads(store: ReaderStore, annotations: readonly Annotation[], me: PersonId) {
  const filter = useStore(store, (state) => state.filter);
  const { placed, unplaced } = useMemo(() => threads(annotations), [annotations]);
  return useMemo(() => {
    const visible = placed.filter((t) => matchesFilter(t.root, filter, me));
    const inText = visible.filter((t) => !t.root.anchor?.spot && !t.root.deleted);
    return { threads: placed, unplaced, visible, inText };
  }, [placed, unplaced, filter, me]);
}

/** Only the newest version is written on. */
function useMayWrite({ versionNumber, newest }: SourceDetail): () => boolean {
  const messages = useMessages();
  const older = versionNumber < newest;
  return useCallback((): boolean => {
    if (older) messages.tell(`This is version ${versionNumber}. Go to the newest version to highlight and write.`);
    return !older;
  }, [older, messages, versionNumber]);
}
