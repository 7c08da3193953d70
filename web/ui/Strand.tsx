import type { Strand as StrandData } from '@avrelle/core/wire';

const WIDTH = 190;
const HEIGHT = 22;
const BASE = 20;

/** A source in one line: where it is read, where it is marked, by kind. Decoration; its numbers stand in words beside it. */
export function Strand({ strand, width = WIDTH }: { strand: StrandData; width?: number }) {
  const stacked = stack(strand.marks.map(([at]) => at));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={width}
      height={HEIGHT}
      aria-hidden="true"
      preserveAspectRatio="none"
      className="block max-w-full"
    >
      <path d={`M0 ${BASE}H${WIDTH}`} stroke="var(--rule-strong)" />
      {strand.read.map(([from, to]) => (
        <path key={from} d={`M${from * WIDTH} ${BASE}H${to * WIDTH}`} stroke="var(--ink)" strokeWidth="2.4" />
      ))}
      {strand.marks.map(([at, pigment], i) => {
        const height = Math.max(3, 15 - stacked[i]! * 3.2);
        return (
          <rect
            key={i}
            x={Math.min(WIDTH - 3, at * WIDTH)}
            y={18 - height}
            width="2.4"
            height={height}
            fill={`var(--${pigment}-line)`}
          />
        );
      })}
    </svg>
  );
}

/** How many earlier marks stand within a hair of each: those are drawn shorter, so that all show. */
function stack(places: readonly number[]): number[] {
  return places.map(
    (at, i) => places.slice(Math.max(0, i - 4), i).filter((other) => Math.abs(other - at) < 0.014).length,
  );
}
