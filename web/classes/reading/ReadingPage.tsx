import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import type { NamedGroup } from '@avrelle/core/audience';
import type { AssignmentDetail } from '@avrelle/core/wire';
import { useAnnotations, useAssignment, useClass, useSource, useSourceText } from '../../data/queries';
import { PageHeading } from '../../ui/PageHeading';
import { State } from '../../ui/State';
import { Tint } from '../../ui/Tint';
import { useAddressParams } from '../../ui/use-address-params';
import { day, dueAt } from '../../ui/when';
import { Changed, isChanged } from '../Changed';
import { PublishAgain } from '../PublishAgain';
import { Show } from '../Show';
import { aboutSet } from '../words';
import { classReading } from './class-reading';
import { Passages } from './Passages';
import { Strands } from './Strands';
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
          <p className="text-[14px] text-soft">
            {isChanged(set.published) ? <Changed set={set} /> : `Published ${day(set.published.at)}`}
            {set.published.lookedSince && ` · who has opened it is counted since ${day(set.published.lookedSince)}`}
          </p>
        </div>
        <p className="ml-auto flex flex-wrap gap-x-5 text-[14px]">
          <Show set={set} />
          <PublishAgain set={set} />
          <Link className="act" to={`/classes/${id}/set/${sourceId}`}>
            Change what is set
          </Link>
          <Link className="act" to={`/source/${sourceId}`} state={{ back }}>
            Open it
          </Link>
        </p>
      </header>
      <How set={set} />
    </main>
  );
}

const NO_GROUPS: readonly NamedGroup[] = [];

/** The picture of it, what stands out, and each student in numbers. */
function How({ set: whole }: { readonly set: AssignmentDetail }) {
  const { source } = whole;
  const of = useClass(whole.class.id).data;
  const members = of?.members;
  const [params, change] = useAddressParams();
  const groups = of?.groups ?? NO_GROUPS;
  const group = groups.find(({ id }) => id === params.get('group'));
  const set = useMemo(() => {
    const within = new Set(members?.filter((m) => m.groupId === group?.id).map((m) => m.id));
    return group ? { ...whole, students: whole.students.filter(({ id }) => within.has(id)) } : whole;
  }, [whole, members, group]);
  const { students } = set;
  const detail = useSource(source.id);
  const text = useSourceText(source.id, detail.data?.versionId, undefined);
  const annotations = useAnnotations(source.id);
  const reading = useMemo(() => {
    if (!text.data || !annotations.data || !members) return undefined;
    const teachers = members.filter((m) => m.role !== 'student').map((m) => m.id);
    const of = { classId: set.class.id, students: students.map((s) => s.id), teachers };
    return classReading(text.data, annotations.data, of, source.language);
  }, [text.data, annotations.data, members, students, set.class.id, source.language]);
  return (
    <div className="grid min-h-0 grid-cols-[1fr_388px] max-[900px]:block">
      <div className="min-h-0 overflow-y-auto bg-sheet px-[30px] py-5 max-[900px]:px-4">
        {groups.length > 0 && (
          <label className="mb-4 flex w-fit items-baseline gap-2 text-[14px] text-soft">
            Who
            <select
              className="field text-[14px]"
              value={group?.id ?? ''}
              onChange={(event) => change({ group: event.target.value })}
            >
              <option value="">all students</option>
              {groups.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        )}
        {reading && students.length > 0 && (
          <section aria-label="How the class read it" className="mb-8">
            <h2 className="text-[17px]">How the class read it</h2>
            <p className="mb-2 mt-0.5 text-[13px] text-soft">
              One line for each student, from the first word to the last: thick where it was read, with the sign of the
              kind where it was marked. Below, how many marked each part.
            </p>
            <Strands set={set} reading={reading} />
          </section>
        )}
        <Students set={set} reading={reading} />
      </div>
      <aside
        aria-label="What stands out"
        className="min-h-0 overflow-y-auto border-l border-rule px-6 py-5 max-[900px]:border-l-0 max-[900px]:px-4"
      >
        <State of={annotations}>
          {reading && text.data && <Passages set={set} text={text.data} reading={reading} />}
        </State>
      </aside>
    </div>
  );
}
