import { useState } from 'react';
import { leftWords } from '@avrelle/core/class';
import { clockTime } from '@avrelle/core/text';
import type { AssignmentDetail, StudentProgress } from '@avrelle/core/wire';
import { DataTable, type PlainColumn } from '../../ui/DataTable';
import { dueAt } from '../../ui/when';
import type { ClassReading } from './class-reading';
import { MoreTime } from './MoreTime';
import { TableLink } from './TableLink';

interface Props {
  readonly set: AssignmentDetail;
  /** Not there as long as the text is on its way. */
  readonly reading: ClassReading | undefined;
}

/** Each student: what they read, wrote and have left, and until when. Students see their own, as it is told of them. */
export function Students({ set, reading }: Props) {
  const [extending, setExtending] = useState<StudentProgress>();
  const teaches = set.progress !== null;
  return (
    <section aria-label={teaches ? 'Students' : 'In numbers'}>
      <h2 className="mb-1 flex items-baseline justify-between text-[17px]">
        {teaches ? 'Students' : 'In numbers'}
        {teaches && set.students.length > 0 && <TableLink set={set} of="students" />}
      </h2>
      {set.students.length === 0 ? (
        <p className="text-soft">{NOBODY[teaches ? 'class' : 'own']}</p>
      ) : (
        <div className="relative overflow-x-auto" role="group" aria-label="Numbers" tabIndex={0}>
          <DataTable
            label="Students"
            columns={columnsOf(set, reading, teaches ? setExtending : undefined)}
            rows={set.students}
            idOf={(student) => student.id}
            numbers={['read', 'heard', 'marks', 'answers', 'theirs', 'own', 'kappa']}
          />
        </div>
      )}
      {extending && <MoreTime set={set} student={extending} onClose={() => setExtending(undefined)} />}
    </section>
  );
}

const NOBODY = {
  class: 'No student is here yet. The code to join with is on the page of the class.',
  own: 'It is set for other groups of the class, and nothing is asked of you.',
} as const;

const isRecording = ({ source: { kind } }: AssignmentDetail): boolean => kind === 'audio' || kind === 'video';

const columnsOf = (
  set: AssignmentDetail,
  reading: ClassReading | undefined,
  onExtend: ((student: StudentProgress) => void) | undefined,
): readonly PlainColumn<StudentProgress>[] => [
  {
    id: 'name',
    header: 'Name',
    cell: ({ row: { original } }) => (
      <span className={`whitespace-nowrap ${original.opened ? '' : 'text-brick'}`}>{original.name}</span>
    ),
  },
  {
    id: 'read',
    header: 'Read',
    cell: ({ row: { original } }) => (original.opened ? percent(original.readShare) : 'not opened'),
  },
  ...(isRecording(set) ? [HEARD] : []),
  { id: 'marks', header: 'Marks', cell: ({ row }) => row.original.marks || '–' },
  ...(reading && reading.taught.length > 0 ? besideColumns(reading) : []),
  { id: 'answers', header: 'Answers', cell: ({ row }) => row.original.answers || '–' },
  {
    id: 'left',
    header: 'Still missing',
    cell: ({ row: { original } }) => leftWords(set.expected, original.missing, original.readShare) || 'done',
  },
  {
    id: 'time',
    header: 'More time',
    cell: ({ row: { original } }) =>
      set.dueAt === null || !onExtend ? (
        untilWords(original)
      ) : (
        <button className="text-soft hover:text-ink" onClick={() => onExtend(original)}>
          {original.extendedTo ? untilWords(original) : 'give'}
          <span className="sr-only"> more time to {original.name}</span>
        </button>
      ),
  },
];

const untilWords = ({ extendedTo }: StudentProgress): string => (extendedTo ? `until ${dueAt(extendedTo)}` : '–');

const HEARD: PlainColumn<StudentProgress> = {
  id: 'heard',
  header: () => <span title="How much of the recording they played, each part counted once">Heard</span>,
  cell: ({ row: { original } }) => (original.heardSeconds > 0 ? clockTime(original.heardSeconds) : '–'),
};

const percent = (share: number | null | undefined): string =>
  share === null || share === undefined ? '–' : `${Math.round(share * 100)}\u00a0%`;

/** How much of what the teachers marked they marked, too, and the other way round. */
const besideColumns = ({ beside }: ClassReading): readonly PlainColumn<StudentProgress>[] => [
  {
    id: 'theirs',
    header: () => (
      <span title="Of the sentences that teachers marked, the share they marked, too">Of the teachers’</span>
    ),
    cell: ({ row }) => percent(beside.get(row.original.id)?.recall),
  },
  {
    id: 'own',
    header: () => (
      <span title="Of the sentences they marked, the share that teachers marked, too">Also a teacher’s</span>
    ),
    cell: ({ row }) => percent(beside.get(row.original.id)?.precision),
  },
  {
    id: 'kappa',
    header: () => (
      <span title="Marking the same sentences as the teachers, corrected for chance: 1 is all the same, 0 is chance">
        κ
      </span>
    ),
    cell: ({ row }) => beside.get(row.original.id)?.kappa?.toFixed(2).replace('-', '−') ?? '–',
  },
];
