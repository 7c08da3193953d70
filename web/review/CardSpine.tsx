import type { ReviewCard } from '@avrelle/core/wire';

interface Props {
  /** Those of one source that are practised now, with those that are through. */
  readonly cards: readonly { readonly card: ReviewCard; readonly isDone: boolean }[];
  readonly current: ReviewCard;
}

const HEIGHT = 560;
const BOX = { width: 24, height: 12 };

/** The source from its beginning to its end, with its cards where they stand: those that are through, and this one. */
export function CardSpine({ cards, current }: Props) {
  const places = spread(cards.map(({ card }) => card.passage.share * (HEIGHT - 30) + 10));
  const done = cards.filter(({ isDone }) => isDone).length;
  return (
    <aside aria-label="Where the cards stand" className="border-r border-rule pt-3 max-[900px]:hidden">
      <svg
        width="96"
        height={HEIGHT}
        role="img"
        aria-label={`${done} of ${cards.length} cards of this source are through`}
        className="max-h-full"
      >
        <path d={`M32 4V${HEIGHT - 4}`} stroke="var(--rule-strong)" strokeWidth="2" />
        {cards.map(({ card, isDone }, n) => (
          <g key={card.id} transform={`translate(52 ${places[n]})`}>
            <path d="M-20 6h20" stroke="var(--rule-strong)" />
            <rect {...BOX} fill={card.id === current.id ? 'var(--tide)' : 'none'} stroke="var(--tide)" />
            {isDone && card.id !== current.id && (
              <path d="M5 6l4 4 9-9" stroke="var(--tide)" strokeWidth="2" fill="none" />
            )}
          </g>
        ))}
      </svg>
    </aside>
  );
}

/** In the order of the text; none over another. */
function spread(tops: readonly number[]): readonly number[] {
  const order = tops.map((top, n) => ({ top, n })).sort((a, b) => a.top - b.top);
  const placed: number[] = [];
  let free = 0;
  for (const { top, n } of order) {
    placed[n] = Math.max(top, free);
    free = placed[n] + BOX.height + 4;
  }
  return placed;
}
