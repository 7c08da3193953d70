import { Suspense, useLayoutEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { RATINGS, type CardRating } from '@avrelle/core/review';
import type { PassageState, Review, ReviewCard } from '@avrelle/core/wire';
import { useKeyCommands } from '../commands/use-key-commands';
import { useWrite } from '../data/use-write';
import { NoteText } from '../reader/regions/margin/NoteCard';
import { useMessages } from '../ui/Messages';
import { day } from '../ui/when';
import { AnswerBar, RATING_WORDS, type CardActions } from './AnswerBar';
import { AreaPicture } from './AreaPicture';
import CardDialog from './CardDialog';
import { CardSpine } from './CardSpine';
import { Coming } from './Coming';
import { comesBack, daysAhead, seenWords } from './comes-back';
import { PassageText } from './PassageText';
import type { Practising } from './use-practice';

interface Props {
  readonly card: ReviewCard;
  readonly review: Review;
  readonly practising: Practising;
}

/** One card: the passage in its place, the question beside it, and below how it came. */
export function CardSheet({ card, review, practising }: Props) {
  const { lifted } = practising;
  const [meant, setMeant] = useState<CardRating>('knew');
  const [editing, setEditing] = useState(false);
  const sheet = useRef<HTMLDivElement>(null);
  const top = useLevel(sheet, card);
  const isPlaced = card.passage.state !== 'none';
  const actions = useActions(card, practising, card.given ? undefined : () => setEditing(true));
  return (
    <div className="grid min-h-0 grid-cols-[96px_1fr_360px] grid-rows-[1fr_auto] max-[900px]:grid-cols-1 max-[900px]:grid-rows-[auto_1fr_auto]">
      {isPlaced ? (
        <CardSpine cards={cardsOfSource(practising, card)} current={card} />
      ) : (
        <span className="max-[900px]:hidden" />
      )}
      <div
        ref={sheet}
        role="region"
        aria-label={isPlaced ? 'The passage' : 'The question'}
        tabIndex={0}
        className="relative min-h-0 overflow-y-auto bg-sheet max-[900px]:order-2"
      >
        <div className="mx-auto max-w-[656px] px-7 py-[26px] max-[900px]:px-4 max-[900px]:py-4">
          {isPlaced ? (
            <>
              <p className="mb-3.5 text-[13.5px] text-soft">{standsWhere(card, lifted)}</p>
              <Passage card={card} lifted={lifted} onLift={practising.lift} />
            </>
          ) : (
            <Question card={card} lifted={lifted} />
          )}
        </div>
      </div>
      <aside
        aria-label="The card"
        className="relative min-h-0 overflow-y-auto border-l border-rule max-[900px]:order-1 max-[900px]:border-b max-[900px]:border-l-0"
      >
        <div
          className="flex min-h-full flex-col gap-6 px-2.5 pb-[18px] max-[900px]:min-h-0 max-[900px]:!pt-2.5"
          style={{ paddingTop: top }}
        >
          {isPlaced && <Question card={card} lifted={lifted} />}
          <div className="mt-auto px-3 text-[13.5px] text-soft max-[900px]:hidden">
            <Coming days={review.days} meant={daysAhead(comingAfter(card, meant))} />
            <p>
              <b className="font-semibold text-ink">Comes back {comesBack(comingAfter(card, meant))}</b> ·{' '}
              {seenWords(card.seen)}
              {card.chance !== null && ` · likely remembered today: ${Math.round(card.chance * 100)} %`}
            </p>
          </div>
        </div>
      </aside>
      <AnswerBar card={card} practising={practising} meant={meant} onMean={setMeant} actions={actions} />
      {editing && <CardDialog card={card} annotationId={card.annotationId} onClose={() => setEditing(false)} />}
    </div>
  );
}

const comingAfter = (card: ReviewCard, rating: CardRating): string => card.comesBack[RATINGS.indexOf(rating)]!;

/** What can be done with the card at hand, by keys as well. */
function useActions(card: ReviewCard, practising: Practising, edit: (() => void) | undefined): CardActions {
  const navigate = useNavigate();
  const messages = useMessages();
  const { run } = useWrite('PUT /api/cards/:id/rest', 'review');
  const { lifted, lift, answer, back } = practising;
  const source = card.source?.id;
  const open =
    source && card.annotationId !== null
      ? () =>
          void navigate(`/source/${source}?${placeOf(card)}`, {
            state: { back: { to: '/review', words: 'Review' } },
          })
      : undefined;
  const wake = { label: 'Undo', run: () => run({ params: { id: card.id }, body: { resting: false } }) };
  const rest = (): void =>
    run({ params: { id: card.id }, body: { resting: true } }, () =>
      messages.tell('The card rests: it does not come back until you wake it under “All cards”.', wake),
    );
  useKeyCommands('Review', [
    { name: 'Lift the slip', keys: 'Space', bindings: ['Space'], run: lift },
    ...RATINGS.map((rating) => ({
      name: RATING_WORDS[rating].words,
      keys: RATING_WORDS[rating].sign,
      bindings: [RATING_WORDS[rating].key],
      run: () => (lifted ? answer(rating) : lift()),
    })),
    { name: 'Take the last answer back', keys: 'Ctrl Z', bindings: ['$mod+z'], run: back },
    ...(edit ? [{ name: 'Edit the card', keys: 'e', bindings: ['e'], run: edit }] : []),
  ]);
  return { edit, open, rest };
}

/** Where it opens: at its mark, or at the words of one that others made and that may not be seen. */
function placeOf({ given, annotationId, passage }: ReviewCard): string {
  if (!given) return `at=${annotationId}`;
  const marked = passage.blocks.flatMap(({ parts }) => parts).filter((part) => part.marked);
  const length = marked.reduce((sum, part) => sum + part.text.length, 0);
  return `from=${passage.start}&to=${passage.start + Math.max(1, length)}`;
}

/** The question stands level with its passage. */
function useLevel(sheet: React.RefObject<HTMLDivElement | null>, card: ReviewCard): number {
  const [top, setTop] = useState(24);
  useLayoutEffect(() => {
    const box = sheet.current;
    const first = box?.querySelector<HTMLElement>('[data-holds]');
    if (!box || !first) return;
    const at = first.getBoundingClientRect().top - box.getBoundingClientRect().top + box.scrollTop;
    box.scrollTop = Math.max(0, at - box.clientHeight / 3);
    setTop(Math.max(24, Math.min(at - box.scrollTop - 12, box.clientHeight - 330)));
  }, [sheet, card]);
  return top;
}

function cardsOfSource({ answered, left }: Practising, current: ReviewCard) {
  const of = (card: ReviewCard): boolean => card.source?.id === current.source?.id;
  const ahead = left.filter(of).map((card) => ({ card, isDone: false }));
  const waiting = new Set(ahead.map(({ card }) => card.id));
  const through = new Map(answered.map(({ card }) => [card.id, card]));
  const done = [...through.values()].filter((card) => of(card) && !waiting.has(card.id));
  return [...done.map((card) => ({ card, isDone: true })), ...ahead];
}

const STATES: Readonly<Record<PassageState, string>> = {
  placed: '',
  changed: 'The passage was changed since',
  unplaced: 'The passage is not in the text any more; these are its words',
  deleted: 'The mark or its source is not there any more; these are its words',
  none: 'A card without a passage',
};

function standsWhere({ passage, slips, covers, question }: ReviewCard, lifted: boolean): string {
  const place = passage.place && `Where the passage stands, ${passage.place}`;
  const hides = slips.length > 0 || covers || (question !== '' && passage.blocks.length > 0);
  return [
    STATES[passage.state] || place,
    passage.lost > 0 && 'words of it are gone from the text',
    hides && !lifted && passage.state !== 'none' && 'its words are under the slip until you lift it (Space)',
  ]
    .filter(Boolean)
    .join(' · ');
}

function Passage({ card, lifted, onLift }: { card: ReviewCard; lifted: boolean; onLift: () => void }) {
  const { passage, covers } = card;
  const { spot, versionId } = passage;
  return (
    <>
      {spot?.type === 'area' && versionId && (
        <div className="mb-4">
          <AreaPicture spot={spot} versionId={versionId} covered={covers && !lifted} onLift={onLift} />
        </div>
      )}
      {spot?.type !== 'area' && (
        <PassageText passage={passage} language={card.source?.language ?? ''} lifted={lifted} onLift={onLift} />
      )}
    </>
  );
}

/** What is asked; once the slip is lifted, the answer. */
function Question({ card, lifted }: { card: ReviewCard; lifted: boolean }) {
  const { question, answer, passage } = card;
  const said = answer || passage.note;
  return (
    <section className="border border-strong bg-sheet px-3.5 pb-3.5 pt-2 [border-top:3px_solid_var(--tide)]">
      <p className="flex gap-3 text-[13px] text-soft">
        {from(card)}
        <span className="ml-auto" role="status">
          {lifted && 'lifted'}
        </span>
      </p>
      <h2 dir="auto" className="mb-2.5 mt-1.5 whitespace-pre-line text-[18px] leading-[26px]">
        {question || standIn(card)}
      </h2>
      {lifted && said && (
        <div className="border-t border-rule pt-2.5 font-read text-[16px] leading-[25px]">
          <Suspense fallback={<p>{said}</p>}>
            <NoteText onFollow={() => false}>{said}</NoteText>
          </Suspense>
        </div>
      )}
    </section>
  );
}

/** Whose card it is, and who sees how one answers. */
function from({ given, question, createdAt }: ReviewCard): string {
  if (!given) return `${question ? 'your question' : 'your card'} of ${day(createdAt)}`;
  const whose = `from ${given.by} for ${given.className}`;
  return given.named ? `${whose}, whose teachers see how you answer` : whose;
}

/** What is asked where its author wrote no question. */
function standIn({ slips, covers, given }: ReviewCard): string {
  if (slips.length > 0) return 'Which words are under the slip?';
  if (covers) return 'What is under the slip?';
  return given === null ? 'What did you write about this passage?' : 'What is to be said about this passage?';
}
