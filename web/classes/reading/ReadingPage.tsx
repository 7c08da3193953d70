import { Link, useParams } from 'react-router';
import { useAssignment } from '../../data/queries';
import { PageHeading } from '../../ui/PageHeading';
import { State } from '../../ui/State';
import { Tint } from '../../ui/Tint';
import { dueAt } from '../../ui/when';
import { Show } from '../Show';
import { aboutSet } from '../words';
import { Students } from './Students';

/** How the students of a class read what is set for them. For its teachers. */
export default function ReadingPage() {
  const { id = '', sourceId = '' } = useParams();
  const found = useAssignment(id, sourceId);
  const set = found.data;
  if (!set)
    return (
      <main>
        <State of={found} />
      </main>
    );
  const back = { to: `/classes/${id}/readings/${sourceId}`, words: 'How they read it' };
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] max-[900px]:block max-[900px]:overflow-y-auto">
      <header className="flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-strong px-[30px] pb-3 pt-4 max-[900px]:px-4">
        <div className="min-w-0">
          <PageHeading window={`How the class read “${set.source.title}”`} dir="auto">
            {set.source.title}
          </PageHeading>
          <p className="mt-1 text-[14px] text-soft">
            <Link to={`/classes/${id}`}>
              <Tint tint={set.class.tint}>{set.class.name}</Tint>
            </Link>{' '}
            · {aboutSet(set)}
            {set.dueAt && ` · due ${dueAt(set.dueAt)}`}
          </p>
        </div>
        <p className="ml-auto flex flex-wrap gap-x-5 text-[14px]">
          <Show set={set} />
          <Link className="act" to={`/classes/${id}/set/${sourceId}`}>
            Change what is set
          </Link>
          <Link className="act" to={`/source/${sourceId}`} state={{ back }}>
            Open it
          </Link>
        </p>
      </header>
      <div className="min-h-0 overflow-y-auto bg-sheet px-[30px] py-5 max-[900px]:px-4">
        <Students set={set} />
      </div>
    </main>
  );
}
