import { Link } from 'react-router';
import type { Review } from '@avrelle/core/wire';
import { count } from '../ui/when';
import { Coming } from './Coming';
import { comesBack } from './comes-back';
import type { Practising } from './use-practice';

interface Props {
  readonly review: Review;
  readonly practising: Practising;
  /** Only some of the cards were asked for. */
  readonly isChosen: boolean;
}

/** Where nothing is left to practise: what was done, and when it goes on; or how one begins. */
export function Nothing({ review, practising, isChosen }: Props) {
  const { answeredToday, held, next, days, total } = review;
  const done = Math.max(answeredToday, practising.answered.length);
  return (
    <div className="overflow-y-auto bg-sheet px-[30px] py-6 max-[900px]:px-4">
      <div className="max-w-[60ch]">
        <h2 className="mb-2 text-[19px]">{total === 0 ? 'No cards yet' : 'Nothing more for now'}</h2>
        {total === 0 ? (
          <p className="text-soft">
            What you marked becomes a card: open its note beside the text and choose <b>Make a card</b>, or press{' '}
            <kbd className="border border-strong px-1.5 text-[13px]">c</kbd>. Write a question, or put words under a
            slip; the card comes back here on the day you would begin to forget it.
          </p>
        ) : (
          <>
            <p className="text-soft">
              {done > 0 ? `${count(done, 'answer')} today. ` : ''}
              {next && `The next card comes back ${comesBack(next)}.`}
            </p>
            {held > 0 && (
              <p className="mt-2 text-soft">
                {count(held, 'more card')} would be due, but you wanted no more for a day: see{' '}
                <b>Choose what to review</b>.
              </p>
            )}
            <div className="mt-5">
              <Coming days={days} />
            </div>
          </>
        )}
        <p className="mt-5 flex flex-wrap gap-x-5 gap-y-2 text-[14px]">
          {practising.answered.length > 0 && (
            <button className="act" onClick={practising.back}>
              Undo the last answer
            </button>
          )}
          {isChosen && (
            <Link to="/review" className="act">
              Review everything that is due
            </Link>
          )}
          {total === 0 && (
            <Link to="/library" className="act">
              Go to the Library
            </Link>
          )}
        </p>
      </div>
    </div>
  );
}
