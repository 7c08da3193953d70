import { useState } from 'react';
import { Link } from 'react-router';
import { FEWEST_TOLD, type ClassCard, type ClassCardHow, type ClassCards, type ClassDetail } from '@avrelle/core/wire';
import { useClassCards } from '../../data/review-queries';
import { useWrite } from '../../data/use-write';
import { DataTable, type PlainColumn } from '../../ui/DataTable';
import { HardSpine } from '../../ui/HardSpine';
import { useMessages } from '../../ui/Messages';
import { State } from '../../ui/State';
import { count } from '../../ui/when';
import { OfClass, PartHead } from '../ClassPart';
import { GiveCards } from './GiveCards';
import { WhoAnswered } from './WhoAnswered';

/** The cards of a class, for who teaches it: what is hard for the students, and where it stands. */
export default function ClassCardsPage() {
  return <OfClass>{(c) => <Cards of={c} />}</OfClass>;
}

function Cards({ of: c }: { readonly of: ClassDetail }) {
  const found = useClassCards(c.id);
  const [giving, setGiving] = useState(false);
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <PartHead of={c} title="Cards">
        Each student reviews them on days of their own. You see how hard a card is for all of them together, once{' '}
        {FEWEST_TOLD} have answered.
      </PartHead>
      <div
        className="relative min-h-0 overflow-auto px-[30px] py-4 max-[900px]:px-4"
        role="region"
        aria-label="Cards of the class"
        tabIndex={0}
      >
        {c.archivedAt === null && (
          <p className="mb-4">
            <button className="press" onClick={() => setGiving(true)}>
              Give cards
            </button>
          </p>
        )}
        <State of={found}>{found.data && <Given of={found.data} classId={c.id} />}</State>
      </div>
      {giving && found.data && <GiveCards of={c} mine={found.data.mine} onClose={() => setGiving(false)} />}
    </main>
  );
}

interface GivenProps {
  readonly of: ClassCards;
  readonly classId: ClassDetail['id'];
}

function Given({ of: { cards, students }, classId }: GivenProps) {
  const [asked, setAsked] = useState<ClassCard>();
  const columns = columnsFor(students, (card) => (
    <Actions card={card} classId={classId} onAsk={() => setAsked(card)} />
  ));
  if (cards.length === 0)
    return (
      <p className="max-w-[56ch] text-soft">
        None yet. Make cards of what you marked in a reading of the class, or write some under Review; then give them
        here.
      </p>
    );
  return (
    <>
      {bySource(cards).map(([key, group]) => (
        <section key={key} className="mb-8 max-w-[1080px]" aria-label={titleOf(group)}>
          <div className="mb-1.5 flex flex-wrap items-end justify-between gap-x-6 gap-y-1">
            <h2 className="text-[17px]" dir="auto">
              {group[0]!.sourceId ? (
                <Link to={`/source/${group[0]!.sourceId}`} className="hover:text-tide">
                  {titleOf(group)}
                </Link>
              ) : (
                titleOf(group)
              )}
            </h2>
            {group[0]!.sourceId && <HardSpine places={group.map(placeOf)} label={spineWords(group)} />}
          </div>
          <DataTable
            label={`Cards of ${titleOf(group)}`}
            columns={columns}
            rows={group}
            idOf={({ id }) => id}
            numbers={NUMBERS}
            fills="words"
          />
        </section>
      ))}
      {asked && <WhoAnswered card={asked} classId={classId} onClose={() => setAsked(undefined)} />}
    </>
  );
}

const titleOf = ([first]: readonly ClassCard[]): string => first!.title || 'Without a passage';

function bySource(cards: readonly ClassCard[]): readonly (readonly [string, readonly ClassCard[]])[] {
  const groups = new Map<string, ClassCard[]>();
  for (const card of cards) {
    const key = card.sourceId ?? card.title;
    const group = groups.get(key);
    if (group) group.push(card);
    else groups.set(key, [card]);
  }
  return [...groups];
}

const hardnessOf = ({ how }: ClassCard): number => (how ? how.forgot / how.answers : 0);
const placeOf = (card: ClassCard) => ({ share: card.share, hardness: hardnessOf(card) });

function spineWords(cards: readonly ClassCard[]): string {
  const hardest = cards.toSorted((a, b) => hardnessOf(b) - hardnessOf(a))[0]!;
  if (hardnessOf(hardest) === 0) return `${count(cards.length, 'card')} along the text`;
  return `Hardest along the text: “${hardest.words}”, forgotten in ${percent(hardnessOf(hardest))} of answers`;
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;
/** Wide enough for its numbers, and alike in each table. */
const wide = (words: string) => <span className="inline-block min-w-[104px] whitespace-nowrap">{words}</span>;
const NUMBERS = ['people', 'once', 'forgot', 'later'];

/** A number of a card; nothing where too few answered it. */
const told = (id: string, words: string, tell: (how: ClassCardHow) => string): PlainColumn<ClassCard> => ({
  id,
  header: () => wide(words),
  cell: ({ row }) => row.original.how && tell(row.original.how),
});

const columnsFor = (
  students: number,
  actions: (card: ClassCard) => React.ReactNode,
): readonly PlainColumn<ClassCard>[] => [
  {
    id: 'words',
    header: 'Card',
    cell: ({ row: { original: card } }) => (
      <span dir="auto" className="line-clamp-2 min-w-[22ch] max-w-[52ch] max-[760px]:whitespace-normal">
        {card.words}
        {!card.mine && <span className="text-soft"> · of {card.by}</span>}
      </span>
    ),
  },
  {
    id: 'people',
    header: () => wide('Answered by'),
    cell: ({ row: { original: card } }) =>
      card.how ? `${card.how.people} of ${students}` : <span className="text-faint">fewer than {FEWEST_TOLD}</span>,
  },
  told('once', 'Knew it at once', (how) => percent(how.knewAtOnce / how.people)),
  told('forgot', 'Forgotten', (how) => `${percent(how.forgot / how.answers)} of ${how.answers}`),
  told('later', 'Remembered days later', ({ learnt, remembered }) =>
    learnt > 0 ? `${percent(remembered / learnt)} of ${learnt}` : '–',
  ),
  {
    id: 'actions',
    header: () => (
      <span className="inline-block min-w-[160px]">
        <span className="sr-only">Actions</span>
      </span>
    ),
    cell: ({ row }) => actions(row.original),
  },
];

interface ActionsProps {
  readonly card: ClassCard;
  readonly classId: ClassDetail['id'];
  onAsk(): void;
}

function Actions({ card, classId, onAsk }: ActionsProps) {
  const messages = useMessages();
  const take = useWrite('DELETE /api/classes/:id/cards/:cardId', 'review');
  const give = useWrite('PUT /api/classes/:id/cards', 'review');
  const undo = (): void =>
    give.run({ params: { id: classId }, body: { cardIds: [card.id], named: card.namedFrom !== null } });
  const remove = (): void =>
    take.run({ params: { id: classId, cardId: card.id } }, () =>
      messages.tell(
        'The class does not have the card any more; what each knows of it is kept.',
        card.mine ? { label: 'Undo', run: undo } : undefined,
      ),
    );
  const name = <span className="sr-only">: {card.words.slice(0, 60)}</span>;
  return (
    <span className="flex justify-end gap-x-4 whitespace-nowrap text-[13px]">
      {card.namedFrom !== null && (
        <button className="act font-normal" onClick={onAsk}>
          Who answered{name}
        </button>
      )}
      <button className="text-soft hover:text-brick" onClick={remove}>
        Take back{name}
      </button>
    </span>
  );
}
