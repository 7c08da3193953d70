import type { Place } from '../use-layout';

export interface Tie {
  readonly id: string;
  readonly place: Place;
  readonly noteTop: number;
  readonly open: boolean;
}

/** Hairlines from the end of each passage along its line to its note in the margin. */
export function Ties({ ties, width, height, turn }: { ties: readonly Tie[]; width: number; height: number; turn: number }) {
  return (
    <svg aria-hidden="true" className="pointer-events-none absolute left-0 top-0" width={width} height={height}>
      {ties.map(({ id, place, noteTop, open }) => (
        <path key={id} d={`M${place.endX + 3} ${place.endY - 1}H${Math.max(turn, place.endX + 6)}L${width} ${noteTop + 14}`} fill="none" stroke={open ? 'var(--tide)' : 'var(--rule-strong)'} strokeWidth={open ? 1.6 : 0.9} />
      ))}
    </svg>
  );
}
