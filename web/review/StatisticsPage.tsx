import { scaleLinear } from 'd3-scale';
import { Link } from 'react-router';
import type { CardRow, ReviewStatistics } from '@avrelle/core/wire';
import { useReviewStatistics } from '../data/review-queries';
import { DataTable, type PlainColumn } from '../ui/DataTable';
import { HardSpine } from '../ui/HardSpine';
import { PageHeading } from '../ui/PageHeading';
import { State } from '../ui/State';
import { count } from '../ui/when';
import { CardSource } from './CardSource';
import { Coming } from './Coming';

type Week = ReviewStatistics['weeks'][number];

/** How the practising goes: what is remembered beside what was to be expected, what comes, and what is hardest. */
export default function StatisticsPage() {
  const statistics = useReviewStatistics();
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <header className="flex flex-wrap items-baseline gap-x-5 border-b border-strong px-[30px] pb-3 pt-[15px] max-[900px]:px-4">
        <Link to="/review" className="act text-[14px]">
          Review
        </Link>
        <PageHeading className="text-[25px]">How it goes</PageHeading>
      </header>
      <State of={statistics}>{statistics.data && <Numbers of={statistics.data} />}</State>
    </main>
  );
}

function Numbers({ of }: { of: ReviewStatistics }) {
  const { weeks, days, hardest, total, learnt, resting } = of;
  return (
    <div
      className="min-h-0 overflow-y-auto px-[30px] py-5 max-[900px]:px-4"
      role="region"
      aria-label="Numbers"
      tabIndex={0}
    >
      <div className="grid max-w-[1080px] gap-x-14 gap-y-9 min-[900px]:grid-cols-2">
        <section>
          <h2 className="mb-1 text-[18px]">Remembered of what was learnt</h2>
          <p className="mb-3 text-[14px] text-soft">{rememberedWords(weeks)}</p>
          <Weeks weeks={weeks} />
        </section>
        <section>
          <h2 className="mb-1 text-[18px]">The next thirty days</h2>
          <p className="mb-3 text-[14px] text-soft">
            {count(total, 'card')}, {learnt} learnt{resting > 0 && `, ${resting} at rest`}.{' '}
            {count(days[0] ?? 0, 'card')} today, {days.slice(1, 8).reduce((sum, n) => sum + n, 0)} in the week after.
          </p>
          <Coming days={days} />
        </section>
        <section className="min-w-0 min-[900px]:col-span-2">
          <h2 className="mb-2 text-[18px]">The hardest</h2>
          {hardest.length === 0 ? (
            <p className="text-[14px] text-soft">Nothing was forgotten so far.</p>
          ) : (
            <>
              <Spines cards={hardest} />
              <div className="relative overflow-x-auto" role="region" aria-label="The hardest cards" tabIndex={0}>
                <DataTable
                  label="The hardest cards"
                  columns={HARDEST}
                  rows={hardest}
                  idOf={({ id }) => id}
                  numbers={['forgotten']}
                />
              </div>
            </>
          )}
        </section>
      </div>
    </div>
  );
}

/** Each source of the hardest with the places where they stand. */
function Spines({ cards }: { cards: readonly CardRow[] }) {
  const sources = new Map<string, CardRow[]>();
  for (const card of cards)
    if (card.sourceId) sources.set(card.sourceId, [...(sources.get(card.sourceId) ?? []), card]);
  return (
    <ul className="mb-4 grid w-fit grid-cols-[auto_auto] items-end gap-x-6 gap-y-1.5 max-[600px]:grid-cols-1">
      {[...sources].map(([id, of]) => (
        <li key={id} className="contents">
          <Link to={`/source/${id}`} className="reach text-[14px] hover:text-tide" dir="auto">
            {of[0]!.title}
          </Link>
          <HardSpine
            places={of.map(({ share, forgotten, seen }) => ({ share, hardness: forgotten / seen }))}
            label={`${count(of.length, 'hard card')} along the text`}
          />
        </li>
      ))}
    </ul>
  );
}

function rememberedWords(weeks: readonly Week[]): string {
  const sum = (of: (week: Week) => number): number => weeks.reduce((all, week) => all + of(week), 0);
  const learnt = sum((week) => week.learnt);
  if (learnt === 0) return 'Nothing to tell yet: this counts cards that come back after a day or more.';
  const share = (n: number): string => `${Math.round((n / learnt) * 100)} %`;
  return `${share(sum((week) => week.remembered))} of ${count(learnt, 'answer')} in twelve weeks; ${share(
    sum((week) => week.expected),
  )} was to be expected.`;
}

const WIDTH = 420;
const HEIGHT = 150;
const LEFT = 46;
const FOOT = 22;

/** A column for each week as tall as the share that was remembered; a line across it for what was to be expected. */
function Weeks({ weeks }: { weeks: readonly Week[] }) {
  const y = scaleLinear()
    .domain([0.5, 1])
    .range([HEIGHT - FOOT, 6])
    .clamp(true);
  const step = (WIDTH - LEFT) / weeks.length;
  const told = weeks
    .filter((week) => week.learnt > 0)
    .map(
      (week) => `week of ${dateOf(week)}: ${percent(week.remembered, week)}, expected ${percent(week.expected, week)}`,
    );
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full max-w-[480px]"
      role="img"
      aria-label={told.join('; ') || 'No answers yet'}
    >
      {[0.5, 0.75, 1].map((share) => (
        <g key={share}>
          <path d={`M${LEFT} ${y(share)}H${WIDTH}`} stroke="var(--rule)" />
          <text x={LEFT - 6} y={y(share) + 4} textAnchor="end" className="fill-(--ink-soft) text-[12px]">
            {share * 100} %
          </text>
        </g>
      ))}
      {weeks.map((week, n) => (
        <WeekColumn key={week.from} week={week} x={LEFT + n * step} step={step} y={y} />
      ))}
      {weeks.map(
        (week, n) =>
          n % 4 === 0 && (
            <text key={week.from} x={LEFT + n * step} y={HEIGHT - 4} className="fill-(--ink-soft) text-[12px]">
              {dateOf(week)}
            </text>
          ),
      )}
    </svg>
  );
}

interface ColumnProps {
  readonly week: Week;
  readonly x: number;
  readonly step: number;
  readonly y: (share: number) => number;
}

function WeekColumn({ week, x, step, y }: ColumnProps) {
  if (week.learnt === 0) return null;
  const top = y(week.remembered / week.learnt);
  const line = y(week.expected / week.learnt);
  return (
    <g>
      <title>{`Week of ${dateOf(week)}: ${percent(week.remembered, week)} of ${week.learnt} remembered`}</title>
      <rect x={x + 4} y={top} width={step - 10} height={HEIGHT - FOOT - top} fill="var(--tide)" opacity="0.75" />
      <path d={`M${x + 1} ${line}h${step - 4}`} stroke="var(--brick)" strokeWidth="2" />
    </g>
  );
}

const percent = (n: number, { learnt }: Week): string => `${Math.round((n / learnt) * 100)} %`;
const dateOf = ({ from }: Week): string =>
  new Date(`${from}T12:00:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' });

const HARDEST: readonly PlainColumn<CardRow>[] = [
  {
    id: 'words',
    header: 'Card',
    cell: ({ row: { original: card } }) => (
      <span dir="auto" className="line-clamp-2 max-w-[60ch]">
        {card.words}
      </span>
    ),
  },
  {
    id: 'source',
    header: 'Source',
    cell: ({ row }) => <CardSource card={row.original} />,
  },
  { id: 'forgotten', header: 'Forgotten', cell: ({ row }) => row.original.forgotten },
];
