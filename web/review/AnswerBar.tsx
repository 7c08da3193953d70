import { RATINGS, type CardRating } from '@avrelle/core/review';
import type { ReviewCard } from '@avrelle/core/wire';
import { comesBack } from './comes-back';
import type { Practising } from './use-practice';

/** In words, with the arrow key that gives it. */
export const RATING_WORDS: Readonly<Record<CardRating, { words: string; key: string; sign: string }>> = {
  forgot: { words: 'I did not know it', key: 'ArrowLeft', sign: '←' },
  partly: { words: 'In part', key: 'ArrowDown', sign: '↓' },
  knew: { words: 'I knew it', key: 'ArrowRight', sign: '→' },
  easily: { words: 'Without thinking', key: 'ArrowUp', sign: '↑' },
};

export interface CardActions {
  /** None where the card is not one's own. */
  edit: (() => void) | undefined;
  open: (() => void) | undefined;
  rest(): void;
}

interface Props {
  readonly card: ReviewCard;
  readonly practising: Practising;
  /** Of which it is told when the card would come back. */
  readonly meant: CardRating;
  onMean(rating: CardRating): void;
  readonly actions: CardActions;
}

const BAR =
  'col-span-full flex min-h-[56px] flex-wrap items-center gap-x-[26px] gap-y-1 border-t border-strong px-6 py-2.5 text-[14.5px] ' +
  'max-[900px]:order-3 max-[900px]:px-4 max-[900px]:py-2';
const ANSWERS = 'flex flex-wrap gap-x-[26px] gap-y-1 max-[600px]:grid max-[600px]:w-full max-[600px]:grid-cols-2';

/** Below the card: lifting its slip; then how it came. */
export function AnswerBar({ card, practising, meant, onMean, actions }: Props) {
  const { lifted, lift, answer, back, answered } = practising;
  return (
    <footer className={BAR}>
      {lifted ? (
        <div role="group" aria-label="How did it come?" className={ANSWERS}>
          <span className="self-center text-soft max-[600px]:col-span-2">How did it come?</span>
          {RATINGS.map((rating, n) => (
            <button
              key={rating}
              onClick={() => answer(rating)}
              onPointerEnter={() => onMean(rating)}
              onFocus={() => onMean(rating)}
              title={`Comes back ${comesBack(card.comesBack[n]!)}`}
              className={`flex items-center gap-2 border-b-2 ${rating === meant ? 'border-tide font-semibold' : 'border-transparent'}`}
            >
              <kbd aria-hidden="true" className="border border-strong px-1.5 text-[12px] text-soft">
                {RATING_WORDS[rating].sign}
              </kbd>
              {RATING_WORDS[rating].words}
            </button>
          ))}
        </div>
      ) : (
        <button className="press" onClick={lift}>
          Lift the slip
        </button>
      )}
      <div className="ml-auto flex flex-wrap gap-x-5 text-soft">
        {answered.length > 0 && (
          <button className="hover:text-ink" onClick={back}>
            Undo
          </button>
        )}
        {actions.edit && (
          <button className="hover:text-ink" onClick={actions.edit}>
            Edit
          </button>
        )}
        {actions.open && (
          <button className="hover:text-ink" onClick={actions.open}>
            Open the page here
          </button>
        )}
        <button className="hover:text-ink" onClick={actions.rest}>
          Let it rest
        </button>
      </div>
    </footer>
  );
}
