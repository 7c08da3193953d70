import type { ReactNode } from 'react';
import type { AreaSpot } from '@avrelle/core/anchor';
import type { Annotation, AnnotationId } from '@avrelle/core/wire';
import type { Purpose, Slot } from '../../data/unfinished';
import type { Fields } from '../model/history';
import type { Step } from './use-annotation-writer';

export interface NoteActions {
  toggle(id: string): void;
  /** Begun on the annotation as it is given; false when it did not hold. */
  change(annotation: Annotation, fields: Fields, words: string): Promise<false | Step>;
  remove(annotations: readonly Annotation[]): void;
  /** Lets its author show on the page where it belongs. */
  choosePlace(annotation: Annotation): void;
  /** Copies an address that leads to its passage on the page it was kept from; absent where the source has none. */
  readonly copyAddress?: (annotation: Annotation) => void;
  /** Plays the recording from a moment; absent where there is none. */
  readonly playFrom?: (seconds: number) => void;
  /** Gives an area of a page or picture, with its marks, as PNG. */
  downloadArea(spot: AreaSpot): void;
  reply(parent: Annotation, note: string): Promise<boolean>;
  /** Who sees it: words for others, a menu for its author. */
  audienceOf(annotation: Annotation): ReactNode;
  /** Goes to an annotation of this source; false where it is of another. */
  follow(annotationId: AnnotationId): boolean;
  /** Says that words were discarded, with a way back. */
  discarded(restore: () => void): void;
  /** Where unfinished words are kept. */
  slot(purpose: Purpose): Slot;
  /** Takes it among those chosen, or out of them. */
  choose(id: string): void;
}
