import { memo } from 'react';
import { scaleLinear } from 'd3-scale';
import { Link } from 'react-router';
import type { AssignmentDetail, StudentProgress } from '@avrelle/core/wire';
import { Sign } from '../../ui/Sign';
import { count, shortName } from '../../ui/when';
import { STRETCHES, type ClassReading } from './class-reading';

interface Props {
  readonly set: AssignmentDetail;
  readonly reading: ClassReading;
}

/** Of all the width, in percent. */
const WIDTH = 100;
const BAND = 54;
/** Headings closer than this to the one before have no room for their words, in percent. */
const ROOM = 14;

/** One strand for each student, and how many marked each part. All of it stands in words and numbers beside and below. */
export const Strands = memo(function Strands({ set, reading }: Props) {
  const x = scaleLinear([0, Math.max(1, reading.length)], [0, WIDTH]);
  return (
    <figure aria-label={set.progress ? 'How the class read it' : 'How I read it'}>
      <ul>
        {set.students.map((student) => (
          <li
            key={student.id}
            className="grid grid-cols-[96px_1fr] items-center gap-x-3 max-[900px]:grid-cols-[74px_1fr]"
          >
            <span className={`truncate text-[13.5px] ${set.isOpen && isSilent(student) ? 'text-brick' : 'text-soft'}`}>
              {shortName(student.name)}
            </span>
            <Strand student={student} set={set} reading={reading} x={x} />
          </li>
        ))}
      </ul>
      <Below reading={reading} x={x} students={set.progress && set.students.length} />
    </figure>
  );
});

const isSilent = ({ opened, marks, answers }: StudentProgress): boolean => !opened || marks + answers === 0;

type Scale = (at: number) => number;

function Strand({ student, set, reading, x }: Props & { readonly student: StudentProgress; readonly x: Scale }) {
  return (
    <div className="relative h-6" aria-hidden="true">
      <span className="absolute inset-x-0 top-[11px] h-px bg-rule" />
      {student.spans.map(([from, to]) => (
        <span
          key={from}
          className="absolute top-[10px] h-[3px] bg-[var(--strand)]"
          style={{ left: `${x(from)}%`, width: `${x(to) - x(from)}%` }}
        />
      ))}
      {reading.marks.get(student.id)?.map(({ annotation, start }) => (
        <Link
          key={annotation.id}
          to={`/source/${set.source.id}?at=${annotation.id}`}
          tabIndex={-1}
          title={annotation.anchor?.quote.exact.slice(0, 120)}
          className="absolute top-0 -translate-x-1/2 bg-sheet px-px leading-6"
          style={{ left: `${x(start)}%` }}
        >
          <Sign kind={annotation.kind} className="text-[14px]" />
        </Link>
      ))}
    </div>
  );
}

interface BelowProps {
  readonly reading: ClassReading;
  readonly x: Scale;
  /** How many; null where one sees oneself alone. */
  readonly students: number | null;
}

/** How many marked each part; where the teachers did, and the headings. */
function Below({ reading, x, students }: BelowProps) {
  return (
    <div className="mt-4 grid grid-cols-[96px_1fr] gap-x-3 max-[900px]:grid-cols-[74px_1fr]">
      {students !== null && <Density density={reading.density} students={students} />}
      <span className="text-[13px] text-soft">teachers</span>
      <div className="relative h-4" aria-hidden="true">
        {reading.taught.map(({ annotation, start }) => (
          <span
            key={annotation.id}
            className="absolute top-0.5 h-3 w-[3px] bg-brick"
            style={{ left: `${x(start)}%` }}
          />
        ))}
      </div>
      <span />
      <div className="relative h-6 text-[12.5px] text-soft" aria-hidden="true">
        {spaced(reading, x).map(({ at, words, room }) => (
          <span
            key={at}
            dir="auto"
            className="absolute top-0 truncate border-l border-strong pl-1"
            style={{ left: `${x(at)}%`, maxWidth: `${room}%` }}
          >
            {words}
          </span>
        ))}
      </div>
    </div>
  );
}

function Density({ density, students }: { readonly density: ClassReading['density']; readonly students: number }) {
  const most = Math.max(1, ...density);
  const y = scaleLinear([0, most], [0, BAND]);
  const part = WIDTH / STRETCHES;
  return (
    <>
      <span className="self-end pb-1 text-[13px] text-soft">marked by</span>
      <svg
        viewBox={`0 0 ${WIDTH} ${BAND}`}
        preserveAspectRatio="none"
        className="h-[54px] w-full overflow-visible border-b border-strong"
        role="img"
        aria-label={`At most ${most} of ${count(students, 'student')} marked the same part`}
      >
        {density.map((n, i) => (
          <rect key={i} x={i * part + 0.1} y={BAND - y(n)} width={part - 0.2} height={y(n)} fill="var(--tide)" />
        ))}
      </svg>
    </>
  );
}

/** Headings that have room, each with how much. */
function spaced({ headings }: ClassReading, x: Scale) {
  const shown: { at: number; words: string; room: number }[] = [];
  for (const { at, words } of headings) {
    const last = shown.at(-1);
    if (last && x(at) - x(last.at) < ROOM) continue;
    if (last) last.room = x(at) - x(last.at) - 1;
    if (x(at) < WIDTH - ROOM / 2) shown.push({ at, words, room: WIDTH - x(at) });
  }
  return shown;
}
