import { Link } from 'react-router';
import { FEWEST_READERS, type Passage } from '@avrelle/core/class';
import type { AssignmentDetail, SourceText, StudentProgress } from '@avrelle/core/wire';
import { Sign } from '../../ui/Sign';
import { count, shortName } from '../../ui/when';
import type { ClassReading } from './class-reading';
import { TableLink } from './TableLink';

interface Props {
  readonly set: AssignmentDetail;
  readonly text: SourceText;
  readonly reading: ClassReading;
}

/** The passages that drew the class, split it, or were missed; how far it agrees; who was not heard from. */
export function Passages(props: Props) {
  const { set, reading } = props;
  const silent = set.isOpen ? set.students.filter(({ marks, answers }) => marks + answers === 0) : [];
  return (
    <>
      <h2 className="flex flex-wrap items-baseline justify-between gap-x-3 text-[17px]">
        Passages that drew the class
        <TableLink set={set} of="passages" />
      </h2>
      <p className="mt-0.5 text-[13px] text-soft">{agreementWords(reading)}</p>
      <List {...props} passages={reading.drew} none="No sentence was marked by more than one student yet." />
      {reading.split.length > 0 && (
        <>
          <h2 className="mt-6 text-[17px]">Passages that split the class</h2>
          <List {...props} passages={reading.split} none="" />
        </>
      )}
      {reading.missed.length > 0 && (
        <>
          <h2 className="mt-6 text-[17px]">Marked by a teacher, and by no student</h2>
          <List {...props} passages={reading.missed} none="" />
        </>
      )}
      {silent.length > 0 && (
        <>
          <h2 className="mt-6 text-[17px]">Not heard from</h2>
          <Names words="Opened it, wrote nothing" of={silent.filter((s) => s.opened)} />
          <Names words="Not opened" of={silent.filter((s) => !s.opened)} />
        </>
      )}
    </>
  );
}

function Names({ words, of }: { readonly words: string; readonly of: readonly StudentProgress[] }) {
  if (of.length === 0) return null;
  return (
    <p className="mt-0.5 text-[14px] text-soft">
      {words}: {of.map(({ name }) => shortName(name)).join(', ')}
    </p>
  );
}

function List({
  passages,
  none,
  text,
  set,
  reading,
}: Props & { readonly passages: readonly Passage[]; readonly none: string }) {
  if (passages.length === 0) return <p className="mt-2 border-t border-rule py-2 text-[14px] text-soft">{none}</p>;
  return (
    <ul className="mt-2">
      {passages.map(({ index, start, end, readers, kinds, taught }) => (
        <li key={index} className="border-t border-rule py-2">
          <Link to={`/source/${set.source.id}?from=${start}&to=${end}`} className="block hover:text-tide">
            <span
              dir="auto"
              lang={set.source.language || undefined}
              className="line-clamp-3 font-read text-[16px] leading-[21px]"
            >
              {text.text.slice(start, end)}
            </span>
          </Link>
          <p className="mt-0.5 text-[13px] text-soft">
            <b className="font-semibold text-ink">
              {readers} of {set.students.length}
            </b>{' '}
            {kinds.map(({ kind, readers: n }) => (
              <span key={kind} className="mr-2 whitespace-nowrap">
                {n} {reading.kinds.has(kind) && <Sign kind={reading.kinds.get(kind)!} />} {nameOf(reading, kind)}
              </span>
            ))}
            {taught.length > 0 && <span>· a teacher: {taught.map((kind) => nameOf(reading, kind)).join(', ')}</span>}
          </p>
        </li>
      ))}
    </ul>
  );
}

const nameOf = ({ kinds }: ClassReading, code: string): string => kinds.get(code)?.name.toLowerCase() ?? code;

const two = (n: number): string => n.toFixed(2).replace('-', '−');

function agreementWords({ agreement: { alpha, interval, readers, units } }: ClassReading): string {
  if (readers < FEWEST_READERS)
    return `How far they agree on kinds is not said: ${count(readers, 'student')} marked something, and below ${FEWEST_READERS} it would be chance.`;
  if (alpha === null || !interval)
    return 'How far they agree on kinds cannot be said yet: too few sentences were marked by two of them, or all as the same.';
  return `Agreement on the kind, corrected for chance: α = ${two(alpha)}, from ${two(interval[0])} to ${two(interval[1])} (${readers} readers, ${count(units, 'sentence')}; 1 is all agree, 0 is chance).`;
}
