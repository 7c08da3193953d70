import { Link } from 'react-router';
import type { Follows } from '@avrelle/core/wire';
import { State } from '../ui/State';
import { useFollow, type Followable } from './use-follow';

interface Row {
  readonly what: Followable;
  readonly to: string | null;
}

const rowsOf = ({ sources, threads, people }: Follows): Row[] => [
  ...sources.map(({ id, title }): Row => ({ what: { type: 'source', id, words: title }, to: `/source/${id}` })),
  ...threads.map(({ rootId, sourceId, words }): Row => ({
    what: { type: 'thread', id: rootId, words },
    to: `/source/${sourceId}?at=${rootId}`,
  })),
  ...people.map(({ id, name }): Row => ({ what: { type: 'person', id, words: name }, to: null })),
];

const TYPE = { source: 'Source', thread: 'Thread', person: 'Person' } as const;

/** What I follow, each with the way to it, and the way out. */
export function Following() {
  const { follows, set } = useFollow();
  const rows = follows.data ? rowsOf(follows.data) : [];
  return (
    <section aria-label="Following" className="mb-7">
      <h2 className="mb-1 text-[17px]">Following</h2>
      <State of={follows}>
        {rows.length === 0 && (
          <p className="text-[14px] text-soft">
            Nothing yet. An open note has <i>Follow</i>: its thread, whoever wrote it, or everything new in the source.
          </p>
        )}
        <ul>
          {rows.map(({ what, to }) => (
            <li key={`${what.type} ${what.id}`} className="flex items-baseline gap-3 border-t border-rule py-2">
              <div className="min-w-0">
                <p dir="auto" className="line-clamp-2 text-[14.5px]">
                  {to ? (
                    <Link to={to} className="reach hover:text-tide">
                      {what.words}
                    </Link>
                  ) : (
                    what.words
                  )}
                </p>
                <p className="text-[13px] text-soft">{TYPE[what.type]}</p>
              </div>
              <button className="act ml-auto text-[13px]" onClick={() => set(what, false)}>
                Unfollow<span className="sr-only"> {what.words}</span>
              </button>
            </li>
          ))}
        </ul>
      </State>
    </section>
  );
}
