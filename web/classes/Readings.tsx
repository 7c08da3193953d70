import type { ReactNode } from 'react';
import type { Assignment, ClassDetail, SourceRow as Row } from '@avrelle/core/wire';
import { SourceRow } from '../ui/SourceRow';
import { AssignmentRow } from './AssignmentRow';
import { TakeAway } from './TakeAway';
import { isPast } from './words';

interface Props {
  readonly of: ClassDetail;
  readonly set: readonly Assignment[];
  /** Of the class, those that are set among them. */
  readonly readings: readonly Row[];
}

/** What a class reads: what is due, what was, and what is only read. */
export function Readings({ of, set, readings }: Props) {
  const back = { to: `/classes/${of.id}`, words: of.name };
  const teaches = of.role !== 'student';
  const setIds = new Set(set.map((a) => a.source.id));
  const rest = readings.filter((r) => !setIds.has(r.id));
  const rows = (some: readonly Assignment[]) =>
    some.map((a) => <AssignmentRow key={a.source.id} set={a} teaches={teaches} back={back} />);
  const ahead = set.filter((a) => !isPast(a.myDueAt)).toSorted((a, b) => dateOf(a).localeCompare(dateOf(b)));
  const past = set.filter((a) => isPast(a.myDueAt)).toReversed();
  return (
    <>
      {ahead.length > 0 && <Part title="To do">{rows(ahead)}</Part>}
      {past.length > 0 && <Part title="Before">{rows(past)}</Part>}
      {rest.length > 0 && (
        <Part title={set.length > 0 ? 'Also read here' : ''}>
          {rest.map((source, i) => (
            <SourceRow key={source.id} source={source} number={i + 1} back={back}>
              {(source.owned || teaches) && <TakeAway classId={of.id} source={source} />}
            </SourceRow>
          ))}
        </Part>
      )}
    </>
  );
}

/** The date that stands beside it: when it opens, then when it is due. What is never due comes last. */
const dateOf = ({ isOpen, opensAt, myDueAt }: Assignment): string => (isOpen ? myDueAt : opensAt) ?? '~';

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title || 'Readings'}>
      {title && (
        <h2 className="border-b border-rule px-[30px] pb-1.5 pt-4 text-[15px] text-soft max-[900px]:px-4">{title}</h2>
      )}
      <ol>{children}</ol>
    </section>
  );
}
