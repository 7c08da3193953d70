import type { WeekProgress } from '@avrelle/core/wire';
import { shortName } from '../ui/when';

interface Props {
  readonly week: readonly WeekProgress[];
  /** Else one sees oneself, as one's teachers do. */
  readonly teaches: boolean;
}

/** How far each student is with what was due within a week, and is due within the next. */
export function ThisWeek({ week, teaches }: Props) {
  if (week.length === 0) return null;
  return (
    <section aria-label="This week" className="mb-7">
      <h2 className="mb-1 text-[17px]">This week</h2>
      <ul>
        {week.map((student) => (
          <li
            key={student.id}
            className="grid grid-cols-[104px_1fr_92px] items-center gap-x-4 border-t border-rule py-1.5 text-[14px]"
          >
            <span className={student.opened === 0 ? 'text-brick' : ''}>{shortName(student.name)}</span>
            <Bar share={student.readShare} />
            <span className="text-right text-[13.5px] text-soft">{farOf(student)}</span>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-[13px] text-soft">
        {teaches
          ? 'The line is how much of it was on screen long enough to be read. Each student sees their own.'
          : 'Your teachers see this of you, and what you write for the class. The line is how much of it was on your screen long enough to be read.'}
      </p>
    </section>
  );
}

function Bar({ share }: { readonly share: number }) {
  return (
    <svg viewBox="0 0 100 4" preserveAspectRatio="none" className="h-1 w-full" aria-hidden="true">
      <path d="M0 2H100" stroke="var(--rule-strong)" strokeWidth="2" vectorEffect="non-scaling-stroke" />
      {share > 0 && (
        <path d={`M0 2H${share * 100}`} stroke="var(--ink)" strokeWidth="3" vectorEffect="non-scaling-stroke" />
      )}
    </svg>
  );
}

function farOf({ done, of, opened }: WeekProgress): string {
  if (done > 0 || opened === of) return `${done} of ${of} done`;
  return opened === 0 ? 'not opened' : `${opened} of ${of} opened`;
}
