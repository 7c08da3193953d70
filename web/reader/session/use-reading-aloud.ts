import { useCallback } from 'react';
import { spokenSentences } from '../../page/text-index';
import { useDocument } from '../document/document-context';
import { useSession } from './reader-context';
import { useListening, type Listening } from './use-listening';
import { firstSeen } from './use-progress';

export interface ReadingAloud extends Listening {
  /** Begins where the selection is, else with what is seen; or ends. */
  listen(on: boolean): void;
}

/** Having it read aloud, each sentence shown as it is spoken. */
export function useReadingAloud(): ReadingAloud {
  const { store, source, text } = useSession();
  const { page, blocks, scroll, reveal, selection } = useDocument();
  const listening = useListening({
    text: text.text,
    language: source.language,
    sentences: useCallback(() => spokenSentences(text, source.language, blocks), [text, source.language, blocks]),
    onSentence: (sentence) => {
      page?.painter.cue(sentence);
      if (sentence) reveal(sentence);
    },
  });
  const listen = (on: boolean): void => {
    store.dispatch({ type: 'listen', on });
    if (on) listening.begin(selection()?.start ?? firstSeen(blocks, scroll())?.block.start ?? 0);
    else listening.end();
  };
  return { ...listening, listen };
}
