import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import type { NamedGroup } from '@avrelle/core/audience';
import type { AssignmentDetail, Member } from '@avrelle/core/wire';
import { useAnnotations, useAssignment, useClass, useSource, useSourceText } from '../../data/queries';
import { FormOptions } from '../../ui/Form';
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

/** How the students of a class read what is set for them: to its teachers all of them, to students themselves. */
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
  const teaches = set.progress !== null;
  const back = { to: `/classes/${id}/readings/${sourceId}`, words: HEADING[teaches ? 'class' : 'own'] };
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] max-[900px]:block max-[900px]:overflow-y-auto max-[900px]:bg-sheet">
      <header className="flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-strong px-[30px] pb-3 pt-4 max-[900px]:px-4">
        <div className="min-w-0">
          <PageHeading window={`${HEADING[teaches ? 'class' : 'own']}: “${set.source.title}”`} dir="auto">
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
          {teaches && (
            <>
              <Show set={set} />
              <PublishAgain set={set} />
              <Link className="act" to={`/classes/${id}/set/${sourceId}`}>
                Change what is set
              </Link>
            </>
          )}
          <Link className="act" to={`/source/${sourceId}`} state={{ back }}>
            Open it
          </Link>
        </p>
      </header>
      <How set={set} />
    </main>
  );
}

const HEADING = { class: 'How the class read it', own: 'How I read it' } as const;
const ABOUT = {
  class: `One line for each student, from the first word to the last: thick where it was read, with the sign of the kind
    where it was marked. Below, how many marked each part.`,
  own: `Your teachers see this of you, and nobody else: thick where you had it on screen long enough to read it, with the
    sign of the kind where you marked it for the class. Notes for you alone are not in it.`,
} as const;

/** The picture of it, what stands out, and each student in numbers; to a student their own line and numbers. */
function How({ set: whole }: { readonly set: AssignmentDetail }) {
  const { set, groups, group, chooseGroup, members } = useOneGroup(whole);
  const { reading, text, annotations } = useClassReading(set, members);
  const whose = set.progress ? 'class' : 'own';
  return (
    <div className={`grid min-h-0 max-[900px]:block ${whose === 'class' ? 'grid-cols-[1fr_388px]' : ''}`}>
      <div className="min-h-0 overflow-y-auto bg-sheet px-[30px] py-5 max-[900px]:px-4">
        {groups.length > 0 && <Who groups={groups} group={group} onChoose={chooseGroup} />}
        {reading && set.students.length > 0 && (
          <section aria-label={HEADING[whose]} className="mb-8">
            <h2 className="text-[17px]">{HEADING[whose]}</h2>
            <p className="mb-2 mt-0.5 max-w-[74ch] text-[13px] text-soft">{ABOUT[whose]}</p>
            <Strands set={set} reading={reading} />
          </section>
        )}
        <Students set={set} reading={reading} />
      </div>
      {whose === 'class' && (
        <aside
          aria-label="What stands out"
          className="min-h-0 overflow-y-auto border-l border-rule px-6 py-5 max-[900px]:border-l-0 max-[900px]:px-4"
        >
          <State of={annotations}>{reading && text && <Passages set={set} text={text} reading={reading} />}</State>
        </aside>
      )}
    </div>
  );
}

const NO_GROUPS: readonly NamedGroup[] = [];

/** Of what a class is told, as much as is about one of its groups, where one is chosen in the address. */
function useOneGroup(whole: AssignmentDetail) {
  const of = useClass(whole.class.id).data;
  const members = of?.members;
  const [params, change] = useAddressParams();
  const groups = whole.progress && of ? of.groups : NO_GROUPS;
  const group = groups.find(({ id }) => id === params.get('group'));
  const set = useMemo(() => {
    const within = new Set(members?.filter((m) => m.groupId === group?.id).map((m) => m.id));
    return group ? { ...whole, students: whole.students.filter(({ id }) => within.has(id)) } : whole;
  }, [whole, members, group]);
  return { set, members, groups, group, chooseGroup: (id: string) => change({ group: id }) };
}

/** What the class made of the text; undefined as long as something of it is on its way. */
function useClassReading({ source, students, class: { id }, together }: AssignmentDetail, members?: readonly Member[]) {
  const detail = useSource(source.id);
  const text = useSourceText(source.id, detail.data?.versionId, undefined).data;
  const annotations = useAnnotations(source.id);
  const reading = useMemo(() => {
    if (!text || !annotations.data || !members) return undefined;
    const of = {
      classIds: [id, ...together.map((c) => c.id)],
      students: students.map((s) => s.id),
      teachers: members.filter((m) => m.role !== 'student').map((m) => m.id),
    };
    return classReading(text, annotations.data, of, source.language);
  }, [text, annotations.data, members, students, id, together, source.language]);
  return { reading, text, annotations };
}

interface WhoProps {
  readonly groups: readonly NamedGroup[];
  readonly group: NamedGroup | undefined;
  onChoose(id: string): void;
}

function Who({ groups, group, onChoose }: WhoProps) {
  return (
    <label className="mb-4 flex w-fit items-baseline gap-2 text-[14px] text-soft">
      Who
      <select className="field text-[14px]" value={group?.id ?? ''} onChange={(event) => onChoose(event.target.value)}>
        <option value="">all students</option>
        <FormOptions of={groups} />
      </select>
    </label>
  );
}
