import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Review, ReviewCard } from '@avrelle/core/wire';
import { reviewQuery, type Chosen } from '../data/review-queries';
import { useAddressParams } from '../ui/use-address-params';
import { PageHeading } from '../ui/PageHeading';
import { State } from '../ui/State';
import { count } from '../ui/when';
import { CardSheet } from './CardSheet';
import { ChooseDialog } from './ChooseDialog';
import { timeFor } from './comes-back';
import { Nothing } from './Nothing';
import { usePractice, type Practising } from './use-practice';

/** Cards of today, one after the other, each with its passage in its place. */
export default function ReviewPage() {
  const chosen = useChosen();
  const review = useQuery(reviewQuery(chosen));
  const practising = usePractice(review.data);
  const [choosing, setChoosing] = useState(false);
  const { card } = practising;
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr]">
      <header className="flex flex-wrap items-baseline gap-x-[18px] gap-y-1 border-b border-strong px-[30px] pb-3 pt-[15px] max-[900px]:px-4">
        <PageHeading className="text-[25px]">Review</PageHeading>
        {review.data && card && <Standing review={review.data} practising={practising} card={card} />}
        <span role="status" className="text-[13px] text-brick empty:hidden">
          {practising.waiting > 0 && `Not stored yet: ${count(practising.waiting, 'answer')}, kept on this computer`}
        </span>
        <nav aria-label="Review" className="ml-auto flex flex-wrap items-baseline gap-x-5 text-[14px] max-[900px]:ml-0">
          <button className="act" onClick={() => setChoosing(true)}>
            Choose what to review
          </button>
          <Link to="/review/cards" className="act">
            All cards
          </Link>
          <Link to="/review/statistics" className="act">
            How it goes
          </Link>
        </nav>
      </header>
      <State of={review}>
        {review.data && card && <CardSheet key={card.id} card={card} review={review.data} practising={practising} />}
        {review.data && !card && <Nothing review={review.data} practising={practising} isChosen={isChosen(chosen)} />}
      </State>
      {choosing && <ChooseDialog chosen={chosen} onClose={() => setChoosing(false)} />}
    </main>
  );
}

function useChosen(): Chosen {
  const [params] = useAddressParams();
  const get = (name: keyof Chosen) => params.get(name) ?? undefined;
  const [source, tag, note, ofClass] = [get('source'), get('tag'), get('note'), get('class')];
  return { ...(source && { source }), ...(tag && { tag }), ...(note && { note }), ...(ofClass && { class: ofClass }) };
}
const isChosen = (chosen: Chosen): boolean => Object.keys(chosen).length > 0;

/** “2 of its 5 cards”, “its only card”. */
function placeAmong(at: number, all: number, isOfSource: boolean): string {
  if (!isOfSource) return `${at} of ${all}`;
  return all === 1 ? 'its only card' : `${at} of its ${all} cards`;
}

interface StandingProps {
  readonly review: Review;
  readonly practising: Practising;
  readonly card: ReviewCard;
}

/** Which source it is, how far one is with it, and how much is left. */
function Standing({ review, practising, card }: StandingProps) {
  const { done, left } = practising.ofSource;
  const others = Math.max(0, practising.due - left);
  const words = [
    placeAmong(done + 1, done + left, card.source !== null),
    others > 0 && `${others} more ${review.sources.length > 1 ? 'in other sources' : ''}`.trim(),
    timeFor(practising.due),
  ];
  const title = card.source?.title ?? 'Cards without a passage';
  return (
    <p className="min-w-0 text-[14px] text-soft">
      <span dir="auto" lang={card.source?.language || undefined}>
        {title}
      </span>{' '}
      · {words.filter(Boolean).join(' · ')}
    </p>
  );
}
