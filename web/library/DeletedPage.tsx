import { addDays } from 'date-fns';
import { Link } from 'react-router';
import { useDeleted } from '../data/queries';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';
import { State } from '../ui/State';
import { count, day } from '../ui/when';
import { PageHeading } from '../ui/PageHeading';

const DAYS = 30;

/** What was deleted in the last thirty days: it can be brought back with all its marks. */
export default function DeletedPage() {
  const restore = useWrite('POST /api/sources/:id/restore', 'library');
  const messages = useMessages();
  const deleted = useDeleted(true);
  const back = (id: string, title: string): void =>
    restore.run({ params: { id } }, () => messages.tell(`“${title}” is back.`));
  return (
    <main className="min-h-0 overflow-y-auto bg-sheet">
      <div className="flex items-baseline gap-5 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <Link to="/library" className="reach text-[14px] text-soft hover:text-ink">
          Library
        </Link>
        <PageHeading>Deleted</PageHeading>
      </div>
      <State of={deleted}>
        {deleted.data?.length === 0 && <p className="p-8 text-soft">Nothing was deleted in the last thirty days.</p>}
        <ul className="px-[30px] max-[900px]:px-4">
          {deleted.data?.map((s) => (
            <li key={s.id} className="flex flex-wrap items-baseline gap-x-5 border-b border-rule py-2.5">
              <b className="font-read text-[16px]">{s.title}</b>
              <span className="text-[14px] text-soft">
                deleted {day(s.deletedAt)}
                {s.marks > 0 && `, with ${count(s.marks, 'mark')}`} · gone for good on{' '}
                {day(addDays(s.deletedAt, DAYS).toISOString())}
              </span>
              <button className="act ml-auto text-[14px]" onClick={() => back(s.id, s.title)}>
                Bring it back
              </button>
            </li>
          ))}
        </ul>
      </State>
    </main>
  );
}
