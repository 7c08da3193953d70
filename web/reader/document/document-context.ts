import { createContext, useContext, type RefObject } from 'react';
import type { InkBox } from '@avrelle/core/ink';
import type { Laid } from '../drawing/laid';
import type { StreamRange } from '../../page/page-frame';
import type { Scroll } from '../model/reader-state';
import type { Type } from './type';
import type { FrameSize } from './use-frame-size';
import type { Place, PlacedBlock } from './use-layout';
import type { OpenPage } from './use-page';

/** The document as it is shown: its frame, how it is set, and where everything stands on it. */
export interface DocumentView {
  /** Undefined until it has opened. */
  readonly page: OpenPage | undefined;
  /** Counts the layouts of the page: whatever is measured is measured again. */
  readonly layout: number;
  /** Of the whole page, in pixels as shown. */
  readonly height: number;
  readonly size: FrameSize;
  readonly zoom: number;
  setZoom(zoom: number): void;
  /** Watches how much room the frame has. */
  hold(node: HTMLElement | null): (() => void) | undefined;
  onLoad(frame: HTMLIFrameElement): void;
  readonly type: Type;
  setType(type: Type): void;
  /** The letters one sees are those of pictures: the pages of a PDF. */
  readonly asPictures: boolean;
  /** Where the column of text ends, in pixels from the left. */
  readonly columnRight: number;
  readonly blocks: readonly PlacedBlock[];
  readonly places: ReadonlyMap<string, Place>;
  readonly laid: readonly Laid[];
  readonly draftPlace: Place | undefined;
  readonly draftBox: InkBox | undefined;
  readonly scroller: RefObject<HTMLDivElement | null>;
  /** Asked of the window itself: newer than what the store knows. */
  scroll(): Scroll | undefined;
  goTo(top: number): void;
  /** Goes to a passage, a little below the top of the window. */
  goToRange(range: StreamRange, below?: number): void;
  /** Scrolls only where a passage is not comfortably in view. */
  reveal(range: StreamRange): void;
  revealTop(top: number | undefined): void;
  /** The words that are selected, asked of the page itself: keys come faster than React hears of a selection. */
  selection(): StreamRange | undefined;
}

export const DocumentContext = createContext<DocumentView | undefined>(undefined);

export function useDocument(): DocumentView {
  const view = useContext(DocumentContext);
  if (!view) throw new Error('A part of the reading view stands outside of a DocumentProvider.');
  return view;
}
