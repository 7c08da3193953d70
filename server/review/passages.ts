import { partsOf, placeSlips, surroundings, type Slip, type Surrounding } from '@avrelle/core/review';
import { placesIn } from '@avrelle/core/study';
import type { Outline } from '@avrelle/core/text';
import type { Annotation, AnnotationPlace, CardPassage, VersionId } from '@avrelle/core/wire';
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
  const found = { state: isChanged(place) ? 'changed' : 'placed', versionId: place.versionId, ...seen } as const;
  const at = { start: passage.start, share: Math.min(1, passage.start / Math.max(1, text.length)) };
  if (spot?.type === 'whole') return { ...NO_PASSAGE, ...found, ...at };
  // Only words lie under slips; around an area or a time the text stands as it is.
  const isWords = spot === null || spot.type === 'drawn';
  const slips = isWords ? slipsIn(text, passage, asked) : [];
  const placed = slips.filter((piece) => piece !== null);
  const around = surroundings(text, outline, reach(passage, placed));
  return {
    ...found,
    ...at,
    place: placeAt(passage.start),
    blocks: inParts(around, isWords ? passage : null, placed),
    lost: slips.length - placed.length,
  };
}

const isChanged = ({ state, byHand }: AnnotationPlace): boolean => state === 'edited' && !byHand;

/** A question without slips of its own hides the passage, which would tell the answer. */
function slipsIn(text: string, passage: Piece, { question, slips }: Asked): (Piece | null)[] {
  if (slips.length === 0) return question === '' ? [] : [passage];
  return placeSlips(text, passage.start, slips);
}

/** From the first to the last of a passage and its slips. */
const reach = (passage: Piece, slips: readonly Piece[]): Piece => ({
  start: Math.min(passage.start, ...slips.map((slip) => slip.start)),
  end: Math.max(passage.end, ...slips.map((slip) => slip.end)),
});

const inParts = (
  around: readonly Surrounding[],
  marked: Piece | null,
  slips: readonly Piece[],
): CardPassage['blocks'] =>
  around.map(({ text, ...block }) => ({ ...block, parts: partsOf({ start: block.start, text }, marked, slips) }));

/** What is left of a passage that stands nowhere: its words. */
function quoted(state: 'deleted' | 'unplaced', asked: Asked): CardPassage {
  const { quote } = asked;
  const passage = { start: 0, end: quote.length };
  const slips = quote === '' ? [] : slipsIn(quote, passage, asked);
  const found = slips.filter((piece) => piece !== null);
  const parts = partsOf({ start: 0, text: quote }, passage, found);
  const blocks = quote === '' ? [] : [{ start: 0, isHeading: false, holds: true, parts }];
  const lost = slips.length - found.length;
  return { ...NO_PASSAGE, state, blocks, lost };
}

/** Of a card that never had one. */
export const NO_PASSAGE: CardPassage = {
  state: 'none',
  place: '',
  share: 0,
  start: 0,
  blocks: [],
  lost: 0,
  versionId: null,
  kind: null,
  spot: null,
  note: '',
};
