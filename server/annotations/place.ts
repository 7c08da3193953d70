import type { Anchor, Candidate, Located } from '@avrelle/core/anchor';
import type { AnnotationPlace } from '@avrelle/core/wire';

/** What the table of placements says, all null where it says nothing. */
export interface PlaceRow {
  readonly state: Located['state'] | null;
  readonly start: number | null;
  readonly stop: number | null;
  readonly confidence: number | null;
  readonly candidates: string | null;
  readonly handStart: number | null;
  readonly handStop: number | null;
}

/** Where an annotation stands in the version viewed: what its author said, else what was found, else where it was made. What means the whole source stands at its beginning. */
export function placeOf(row: PlaceRow, anchor: Anchor, madeOn: string, viewed: string): AnnotationPlace | null {
  if (anchor.spot?.type === 'whole')
    return { versionId: viewed, state: 'exact', start: 0, end: 1, confidence: 1, candidates: [], byHand: false };
  if (row.state === null && madeOn !== viewed) return null;
  const found =
    row.state === null
      ? { state: 'exact' as const, start: anchor.position.start, end: anchor.position.end, confidence: 1 }
      : { state: row.state, start: row.start, end: row.stop, confidence: row.confidence ?? 0 };
  const byHand = row.handStart !== null;
  return {
    versionId: viewed,
    ...found,
    ...(byHand ? { start: row.handStart, end: row.handStop, confidence: 1 } : {}),
    candidates: JSON.parse(row.candidates ?? '[]') as Candidate[],
    byHand,
  };
}
