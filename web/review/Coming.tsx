import { scaleSqrt } from 'd3-scale';
import { count } from '../ui/when';

interface Props {
  /** How many cards come back on each day, today first. */
  readonly days: readonly number[];
  /** The day that is meant, counted from today. */
  readonly meant?: number | undefined;
}

const WIDTH = 316;
const LINE = 14;
const LARGEST = 9;

/** The next days as dots on a line, larger where more cards come back. */
export function Coming({ days, meant }: Props) {
  const step = (WIDTH - 2 * LARGEST) / (days.length - 1);
  const size = scaleSqrt()
    .domain([0, Math.max(8, ...days)])
    .range([1.5, Math.min(LARGEST, 0.7 * step)]);
  const told = days.map((n, day) => `${nameOf(day)}: ${n}`).join(', ');
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 42`}
      className="block w-full max-w-[316px]"
      role="img"
      aria-label={`Cards by day: ${told}`}
    >
      {days.map((n, day) => (
        <circle
          key={day}
          cx={LARGEST + day * step}
          cy={LINE}
          r={Math.max(size(n), day === meant ? 4 : 0)}
          fill={day === meant ? 'var(--brick)' : 'var(--tide)'}
          opacity={day === meant ? 1 : 0.7}
        >
          <title>{`${nameOf(day)}: ${count(n, 'card')}`}</title>
        </circle>
      ))}
      <path d={`M0 ${LINE + 0.5}H${WIDTH}`} stroke="var(--rule-strong)" />
      <text x="0" y="38" className="fill-(--ink-soft) text-[12px]">
        today
      </text>
    </svg>
  );
}

function nameOf(ahead: number): string {
  if (ahead === 0) return 'today';
  const at = new Date();
  at.setDate(at.getDate() + ahead);
  return at.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
}
