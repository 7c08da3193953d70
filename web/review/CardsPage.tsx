import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { CardRow } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { hrefOf } from '../data/call';
import { cardQuery, useCards } from '../data/review-queries';
import { useWrite } from '../data/use-write';
import { DataTable, type PlainColumn } from '../ui/DataTable';
import { FileButton } from '../ui/FileButton';
import { useMessages } from '../ui/Messages';
import { PageHeading } from '../ui/PageHeading';
import { State } from '../ui/State';
import { count } from '../ui/when';
import CardDialog from './CardDialog';
import { CardSource } from './CardSource';
import { comesBack, daysAhead } from './comes-back';

const AT_ONCE = 100;

/** All cards: what they ask, when they come back, and those that rest. */
export default function CardsPage() {
  const [limit, setLimit] = useState(AT_ONCE);
  const cards = useCards({ limit });
  const [editing, setEditing] = useState<string>();
  const [adding, setAdding] = useState(false);
  const { cards: rows = [], total = 0 } = cards.data ?? {};
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <header className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-strong px-[30px] pb-3 pt-[15px] max-[900px]:px-4">
        <Link to="/review" className="act text-[14px]">
          Review
        </Link>
        <PageHeading className="text-[25px]">All cards</PageHeading>
        <p className="text-[14px] text-soft">{cards.data && count(total, 'card')}</p>
        <div className="ml-auto flex flex-wrap items-baseline gap-x-5 text-[14px] max-[900px]:ml-0">
          <button className="act" onClick={() => setAdding(true)}>
            Write a card
          </button>
          <TableIn />
          <a className="act block" href={hrefOf('GET /api/cards.csv')}>
            Export as CSV
          </a>
        </div>
      </header>
      <div
        className="relative min-h-0 overflow-auto px-[30px] py-4 max-[900px]:px-4"
        role="region"
        aria-label="Cards"
        tabIndex={0}
      >
        <State of={cards}>
          {rows.length === 0 && cards.data ? (
            <p className="text-soft">No cards yet: choose “Make a card” on an open note, or write one here.</p>
          ) : (
            <DataTable
              label="Cards"
              columns={columnsFor(setEditing)}
              rows={rows}
              idOf={({ id }) => id}
              numbers={NUMBERS}
            />
          )}
          {rows.length < total && (
            <button
              className="act mt-3"
              onClick={() => setLimit((n) => Math.min(500, n + AT_ONCE))}
              disabled={limit >= 500}
            >
              {limit >= 500 ? 'The newest 500 are shown; export them to see all' : 'Show more'}
            </button>
          )}
        </State>
      </div>
      {editing && <Editing id={editing} onClose={() => setEditing(undefined)} />}
      {adding && <CardDialog annotationId={null} onClose={() => setAdding(false)} />}
    </main>
  );
}

function Editing({ id, onClose }: { id: string; onClose: () => void }) {
  const card = useQuery(cardQuery(id)).data;
  return card ? <CardDialog card={card} annotationId={card.annotationId} onClose={onClose} /> : null;
}

const WORDS = 'line-clamp-2 min-w-[22ch] max-w-[52ch] max-[760px]:whitespace-normal';
const NUMBERS = ['seen', 'forgotten'];

const columnsFor = (onEdit: (id: string) => void): readonly PlainColumn<CardRow>[] => [
  {
    id: 'words',
    header: 'Card',
    cell: ({ row: { original: card } }) =>
      card.given ? (
        <span className={WORDS} dir="auto">
          {card.words} <span className="text-soft">· from {card.given.by}</span>
        </span>
      ) : (
        <button className={`${WORDS} text-left hover:text-tide`} dir="auto" onClick={() => onEdit(card.id)}>
          {card.words}
          {card.classes.length > 0 && (
            <span className="text-soft"> · given to {card.classes.map(({ name }) => name).join(', ')}</span>
          )}
        </button>
      ),
  },
  {
    id: 'source',
    header: 'Source',
    cell: ({ row }) => <CardSource card={row.original} />,
  },
  { id: 'due', header: 'Comes back', cell: ({ row: { original: card } }) => <Due card={card} /> },
  { id: 'seen', header: 'Answered', cell: ({ row }) => row.original.seen },
  { id: 'forgotten', header: 'Forgotten', cell: ({ row }) => row.original.forgotten },
  { id: 'rest', header: () => <span className="sr-only">Rest</span>, cell: ({ row }) => <Rest card={row.original} /> },
];

function Due({ card }: { card: CardRow }) {
  if (card.resting) return <span className="text-faint">rests</span>;
  if (card.state === 'new') return 'new';
  return daysAhead(card.due) <= 0 ? 'today' : comesBack(card.due);
}

function Rest({ card }: { card: CardRow }) {
  const { run } = useWrite('PUT /api/cards/:id/rest', 'review');
  return (
    <button
      className="act text-[13px] font-normal"
      onClick={() => run({ params: { id: card.id }, body: { resting: !card.resting } })}
    >
      {card.resting ? 'Wake it' : 'Let it rest'}
      <span className="sr-only">: {card.words.slice(0, 60)}</span>
    </button>
  );
}

/** A table of cards from another program. */
function TableIn() {
  const messages = useMessages();
  const { send } = useWrite('POST /api/cards/import', 'review');
  const bring = async (file: File): Promise<void> => {
    try {
      const { added, changed, refused } = await send({ body: { table: await file.text() } });
      messages.tell(`${count(added, 'card')} came in, ${changed} changed.`);
      const [first] = refused;
      if (first) messages.warn(`${count(refused.length, 'line')} left out. Line ${first.line}: ${first.why}`);
    } catch (error) {
      messages.warn(wordsOf(error));
    }
  };
  return (
    <FileButton label="A table of cards" accept=".csv,.txt,text/csv" onChosen={([file]) => file && void bring(file)}>
      Bring in a CSV
    </FileButton>
  );
}
