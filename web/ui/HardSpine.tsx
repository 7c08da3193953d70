import { scaleLinear } from 'd3-scale';

interface Props {
  /** Each where it stands in its source, from 0 to 1, and how much of it was forgotten, from 0 to 1. */
  readonly places: readonly { readonly share: number; readonly hardness: number }[];
  /** What it tells, in words. */
  readonly label: string;
}

const WIDTH = 240;
const HEIGHT = 30;
const BASE = 26;

/** A source from its beginning to its end, with the cards that stand in it: the taller, the more they were forgotten. */
export function HardSpine({ places, label }: Props) {
  const x = scaleLinear().range([1.5, WIDTH - 1.5]);
  const tall = scaleLinear().range([3, BASE - 2]);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={label}
      className="block max-w-full"
    >
      <path d={`M0 ${BASE}H${WIDTH}`} stroke="var(--rule-strong)" />
      {places.map(({ share, hardness }, n) => (
        <path
          key={n}
          d={`M${x(share)} ${BASE}v${-tall(hardness)}`}
          stroke={hardness > 0 ? 'var(--brick)' : 'var(--tide)'}
          strokeWidth="2.6"
        />
      ))}
    </svg>
  );
}
