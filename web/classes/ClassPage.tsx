import { useQueryClient } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { ClassMenu } from './ClassMenu';
import { Members } from './Members';
import { READINGS_AT_ONCE, type SourceRow as Row, type ClassId } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew, useClass, useMoreReadings } from '../data/queries';
import { SourceRow } from '../ui/SourceRow';
import { State } from '../ui/State';
import { Tint } from '../ui/Tint';
import { useMessages } from '../ui/Messages';
import { count } from '../ui/when';
import { PageHeading } from '../ui/PageHeading';

/** One class: what it reads, and who is in it. */
export default function ClassPage() {
  const { id = '' } = useParams();
  const found = useClass(id);
  const messages = useMessages();
  const c = found.data;
  const more = useMoreReadings(id, c);
  if (!c)
    return (
      <main>
        <State of={found} />
      </main>
    );
  const readings = [...c.readings, ...(more.data?.pages ?? []).flat()];
  const back = { to: `/classes/${c.id}`, words: c.name };
  return (
    <main className="grid min-h-0 grid-cols-[1fr_388px] grid-rows-[auto_1fr] max-[900px]:block max-[900px]:overflow-y-auto">
      <header className="col-span-2 flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-strong px-[30px] pb-3 pt-4 max-[900px]:px-4">
        <PageHeading window={c.name} className="text-[25px]">
          <Tint tint={c.tint}>{c.name}</Tint>
        </PageHeading>
        <p className="text-[14px] text-soft">
          {count(c.people, 'person', 'people')} · {count(c.sources, 'reading')} · {count(c.annotations, 'shared mark')}
        </p>
        <div className="ml-auto flex flex-wrap items-baseline gap-x-6 text-[14px] text-soft">
          {c.code ? (
            <p>
              Code to join:{' '}
              <button
                className="act tracking-[.14em]"
                title="Copy"
                onClick={() =>
                  void navigator.clipboard.writeText(c.code!).then(
                    () => messages.tell('The code is on the clipboard.'),
                    () => messages.warn(`Could not copy; the code is ${c.code}.`),
                  )
                }
              >
                {c.code}
              </button>
            </p>
          ) : (
            c.role !== 'student' && <p>Nobody can join now</p>
          )}
          <ClassMenu of={c} />
        </div>
      </header>
      <section aria-label="Readings" className="min-h-0 overflow-y-auto bg-sheet">
        {c.readings.length === 0 && (
          <p className="max-w-[56ch] p-8 text-soft">
            Nothing is shared with this class yet. Open a source and choose the class at the top right, where it says
            for whom you write: then everybody here can read it and see what you write for them.
          </p>
        )}
        <ol>
          {readings.map((source, i) => (
            <SourceRow key={source.id} source={source} number={i + 1} back={back}>
              {(source.owned || c.role !== 'student') && <TakeAway classId={c.id} source={source} />}
            </SourceRow>
          ))}
        </ol>
        {more.hasNextPage && readings.length < c.sources && (
          <p className="px-[30px] py-4">
            <button className="act" disabled={more.isFetching} onClick={() => void more.fetchNextPage()}>
              Show {Math.min(READINGS_AT_ONCE, c.sources - readings.length)} more
            </button>
          </p>
        )}
      </section>
      <aside
        aria-label="People"
        className="min-h-0 overflow-y-auto border-l border-rule px-6 py-4 max-[900px]:border-l-0"
      >
        <h2 className="mb-2 text-[17px]">People</h2>
        <Members of={c} />
      </aside>
    </main>
  );
}

/** Takes a reading out of the class; what was written on it for the class is hidden with it, and comes back with it. */
function TakeAway({ classId, source }: { classId: ClassId; source: Row }) {
  const messages = useMessages();
  const client = useQueryClient();
  const params = { id: classId, sourceId: source.id };
  const fresh = () => renew(client, 'classes');
  const warn = (error: unknown) => messages.warn(wordsOf(error));
  const putBack = () => void call('PUT /api/classes/:id/sources/:sourceId', { params }).then(fresh).catch(warn);
  const take = () =>
    call('DELETE /api/classes/:id/sources/:sourceId', { params })
      .then(fresh)
      .then(() => messages.tell(`The class no longer reads “${source.title}”.`, { label: 'Undo', run: putBack }))
      .catch(warn);
  return (
    <button
      className="ml-auto block text-right text-[13px] text-faint hover:text-ink"
      onClick={() => void take()}
      title={`Take “${source.title}” out of the class`}
    >
      remove
    </button>
  );
}
