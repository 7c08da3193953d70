import type { MyRequest } from '@avrelle/core/wire';
import { useMyRequests } from '../data/joining-queries';
import { useWrite } from '../data/use-write';
import { when } from '../ui/when';

/** Classes I asked to be let in to. */
export function MyRequests() {
  const mine = useMyRequests().data ?? [];
  const withdraw = useWrite('DELETE /api/join-requests/:id', 'classes');
  if (mine.length === 0) return null;
  return (
    <section aria-label="Asked to join" className="border-b border-rule px-[30px] py-4 max-[900px]:px-4">
      <h2 className="text-[15px] text-soft">You asked to join</h2>
      <ul>
        {mine.map((request) => (
          <li key={request.id} className="flex flex-wrap items-baseline gap-x-4 py-1">
            <span>{nameOf(request)}</span>
            <span className="text-[14px] text-soft">
              {request.refused
                ? 'its teachers did not let you in; ask again tomorrow'
                : `asked ${when(request.askedAt)}`}
            </span>
            <button className="act ml-auto text-[14px]" onClick={() => withdraw.run({ params: { id: request.id } })}>
              {request.refused ? 'All right' : 'Take back'}
              <span className="sr-only">: {nameOf(request)}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

const nameOf = ({ name, sourceTitle }: MyRequest): string => name ?? `another class that reads “${sourceTitle ?? '…'}”`;
