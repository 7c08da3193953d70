import type { Place } from '../../document/use-layout';

/** From the foot of a line to its middle, in pixels. */
const HALF_LINE = 9;

export interface Connector {
  readonly id: string;
  readonly place: Place;
  readonly noteTop: number;
  readonly open: boolean;
}

/** Hairlines to each note from beside the last line of its passage: never under words, where they would look like a mark. */
export function Connectors({
  ties,
  width,
  height,
  turn,
}: {
  ties: readonly Connector[];
  width: number;
  height: number;
  turn: number;
}) {
  return (
    <svg aria-hidden="true" className="pointer-events-none absolute left-0 top-0" width={width} height={height}>
      {ties.map(({ id, place, noteTop, open }) => (
        <path
          key={id}
          d={`M${Math.max(turn, place.endX + 6)} ${place.endY - HALF_LINE}L${width} ${noteTop + 14}`}
          fill="none"
          stroke={open ? 'var(--tide)' : 'var(--rule-strong)'}
          strokeWidth={open ? 1.6 : 0.9}
        />
      ))}
    </svg>
  );
}
