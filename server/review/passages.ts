import { partsOf, placeSlips, surroundings, type Slip } from '@avrelle/core/review';
import { placesIn } from '@avrelle/core/study';
import type { Outline } from '@avrelle/core/text';
import type { Annotation, CardPassage, VersionId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { versionText } from '../sources/queries';

type Piece = { readonly start: number; readonly end: number };

/** What a card asks of a passage. */
export interface Asked {
  readonly question: string;
  readonly slips: readonly Slip[];
  readonly covers: boolean;
  /** The words of the passage as they were. */
  readonly quote: string;
}

interface ReadText {
  readonly text: string;
  readonly outline: Outline;
  readonly placeAt: (start: number) => string;
}

/** Reads passages in their places; each text is read once. */
export function passageReader(db: Db): (annotation: Annotation | undefined, asked: Asked) => CardPassage {
  const known = new Map<VersionId, ReadText>();
  const textOf = (id: VersionId): ReadText => {
    const there = known.get(id);
    if (there) return there;
    const { stream, outline } = versionText(db, id) ?? { stream: '', outline: '[]' };
    const blocks = JSON.parse(outline) as Outline;
    const read = { text: stream, outline: blocks, placeAt: placesIn(blocks) };
    known.set(id, read);
    return read;
  };
  return (annotation, asked) => (annotation ? passageIn(annotation, asked, textOf) : quoted('deleted', asked));
}

function passageIn(annotation: Annotation, asked: Asked, textOf: (id: VersionId) => ReadText): CardPassage {
  const { place, kind, note, anchor } = annotation;
  const spot = anchor?.spot ?? null;
  const seen = { kind, note, spot };
  if (!place || place.start === null || place.end === null) return { ...quoted('unplaced', asked), ...seen };
  const { text, outline, placeAt } = textOf(place.versionId);
  const passage = { start: place.start, end: place.end };
  const isWords = spot === null || spot.type === 'drawn';
  const slips = isWords ? slipsIn(text, passage, asked) : [];
  const found = slips.filter((piece) => piece !== null);
  return {
    state: place.state === 'edited' && !place.byHand ? 'changed' : 'placed',
    place: spot?.type === 'whole' ? '' : placeAt(passage.start),
    share: Math.min(1, passage.start / Math.max(1, text.length)),
    start: passage.start,
    blocks: spot?.type === 'whole' ? [] : blocksAround(text, outline, isWords ? passage : null, found, passage),
    lost: slips.length - found.length,
    ...seen,
  };
}

/** A question without slips of its own hides the passage, which would tell the answer. */
function slipsIn(text: string, passage: Piece, { question, slips }: Asked): (Piece | null)[] {
  if (slips.length === 0) return question === '' ? [] : [passage];
  return placeSlips(text, passage.start, slips);
}

function blocksAround(
  text: string,
  outline: Outline,
  marked: Piece | null,
  slips: readonly Piece[],
  passage: Piece,
): CardPassage['blocks'] {
  const reach = {
    start: Math.min(passage.start, ...slips.map((slip) => slip.start)),
    end: Math.max(passage.end, ...slips.map((slip) => slip.end)),
  };
  return surroundings(text, outline, reach).map(({ text: words, ...block }) => ({
    ...block,
    parts: partsOf({ start: block.start, text: words }, marked, slips),
  }));
}

/** What is left of a passage that stands nowhere: its words. */
function quoted(state: 'deleted' | 'unplaced', asked: Asked): CardPassage {
  const { quote } = asked;
  const passage = { start: 0, end: quote.length };
  const slips = quote === '' ? [] : slipsIn(quote, passage, asked);
  const found = slips.filter((piece) => piece !== null);
  const parts = partsOf({ start: 0, text: quote }, passage, found);
  const blocks = quote === '' ? [] : [{ start: 0, isHeading: false, holds: true, parts }];
  const lost = slips.length - found.length;
  return { state, place: '', share: 0, start: 0, blocks, lost, kind: null, spot: null, note: '' };
}

/** Of a card that never had one. */
export const NO_PASSAGE: CardPassage = {
  state: 'none',
  place: '',
  share: 0,
  start: 0,
  blocks: [],
  lost: 0,
  kind: null,
  spot: null,
  note: '',
};
