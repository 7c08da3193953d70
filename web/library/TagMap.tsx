import { useMemo } from 'react';
import { Link } from 'react-router';
import type { RelatedTag, TagPair } from '@avrelle/core/wire';
import { layTags } from './tag-layout';

const WIDTH = 520;
const HEIGHT = 270;
const MOST = 12;

/** How a tag and those beside it stand to each other. The list below it says the same in words. */
export default function TagMap({
  here,
  related,
  pairs,
}: {
  here: string;
  related: readonly RelatedTag[];
  pairs: readonly TagPair[];
}) {
  const { spots, ties } = useMemo(
    () => layTags(here, related.slice(0, MOST), pairs, { width: WIDTH, height: HEIGHT }),
    [here, related, pairs],
  );
  const most = Math.max(1, ...ties.map((t) => t.together));
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="mb-3 w-full max-w-[520px]" aria-hidden="true">
      {ties.map(({ from, to, together }) => (
        <line
          key={`${from.tag} ${to.tag}`}
          x1={from.x}
          y1={from.y}
          x2={to.x}
          y2={to.y}
          stroke="var(--rule-strong)"
          strokeWidth={1 + (4 * together) / most}
          strokeOpacity={from.tag === here ? 0.9 : 0.35}
        />
      ))}
      {spots.map(({ tag, x, y }) => {
        const words = (
          <>
            <rect
              x={x - tag.length * 3.7 - 9}
              y={y - 11}
              width={tag.length * 7.4 + 18}
              height={22}
              fill="var(--sheet)"
            />
            <text
              x={x}
              y={y + 5}
              textAnchor="middle"
              className={`text-[13.5px] ${tag === here ? 'font-semibold' : ''}`}
              fill={tag === here ? 'var(--ink)' : 'var(--tide)'}
            >
              #{tag}
            </text>
          </>
        );
        return tag === here ? (
          <g key={tag}>{words}</g>
        ) : (
          <Link key={tag} tabIndex={-1} to={`/topic?${new URLSearchParams({ tag })}`}>
            {words}
          </Link>
        );
      })}
    </svg>
  );
}
