import { useCallback, useState } from 'react';
import type { SourceDetail, SourceText } from '@avrelle/core/wire';
import type { StreamRange } from '../../page/page-frame';
import { spokenSentences } from '../../page/text-index';
import { reveal } from './use-arrival';
import type { PlacedBlock } from '../document/use-layout';
import type { OpenPage } from '../document/use-page';
import type { Scroll } from './use-reading';
import { useListening } from './use-listening';
import { firstSeen } from './use-progress';

interface Given {
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly page: OpenPage | undefined;
  readonly blocks: readonly PlacedBlock[];
  scroll(): Scroll | undefined;
  goTo(top: number): void;
  selection(): StreamRange | undefined;
}

/** Having it read aloud, from the selection or from what is seen, each sentence shown as it is spoken. */
export function useReadingAloud({ source, text, page, blocks, scroll, goTo, selection }: Given) {
  const [listens, setListens] = useState(false);
  const listening = useListening({
    text: text.text,
    language: source.language,
    sentences: useCallback(() => spokenSentences(text, source.language, blocks), [text, source.language, blocks]),
    onSentence: (sentence) => {
      page?.painter.cue(sentence);
      if (sentence) reveal(page?.adapter.boxes(sentence)[0]?.top, scroll(), goTo);
    },
  });
  const listen = (on: boolean): void => {
    setListens(on);
    if (on) listening.begin(selection()?.start ?? firstSeen(blocks, scroll())?.block.start ?? 0);
    else listening.end();
  };
  return { listening, listens, listen };
}
