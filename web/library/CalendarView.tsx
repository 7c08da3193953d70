import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { narrowed } from '@avrelle/core/query';
import type { FoundSource } from '@avrelle/core/wire';
import { useSources } from '../data/queries';
import { count } from '../ui/when';
import { dayName, daysOfMonth, monthName, nextMonth } from './month';

const SHOWN = 3;
const MOST = 200;

/** A month at a time, by the days on which sources came in. */
export default function CalendarView({ q, onDay }: { q: string; onDay: (q: string) => void }) {
  const [month, setMonth] = useState(() => dayName(new Date()).slice(0, 7));
  const days = daysOfMonth(month);
  const found = useSources({ q: narrowed(q, `saved:${month}`), sort: 'saved', limit: MOST });
  const byDay = useMemo(() => {
    const groups = new Map<string, FoundSource[]>();
    for (const source of found.data?.sources ?? []) {
      const name = dayName(new Date(source.keptAt));
      groups.set(name, [...(groups.get(name) ?? []), source]);
    }
    return groups;
  }, [found.data]);
  return (
    <section aria-label="Calendar" className="px-[30px] py-4 max-[900px]:px-3">
      <div className="mb-2 flex items-baseline gap-5 text-[14px]">
        <h2 className="text-[17px]">{monthName(month)}</h2>
        <span className="text-soft">
          {found.data && `${count(found.data.total, 'source')} came in`}
          {found.data && found.data.total > MOST && `; the newest ${MOST} are shown`}
        </span>
        <button className="act ml-auto" onClick={() => setMonth(nextMonth(month, -1))}>
          Previous month
        </button>
        <button
          className="act"
          onClick={() => setMonth(nextMonth(month, 1))}
          disabled={month >= dayName(new Date()).slice(0, 7)}
        >
          Next month
        </button>
      </div>
      <table className="w-full table-fixed border-collapse text-[13.5px]">
        <thead>
          <tr>
            {['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'].map((d) => (
              <th
                key={d}
                scope="col"
                className="border-b border-strong pb-1 text-left text-[13px] font-normal text-soft"
              >
                {d}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {days.map((week) => (
            <tr key={week[0]}>
              {week.map((name) => (
                <Day
                  key={name}
                  name={name}
                  sources={name.startsWith(month) ? (byDay.get(name) ?? []) : undefined}
                  onAll={() => onDay(narrowed(q, `saved:${name}`))}
                />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface DayProps {
  readonly name: string;
  /** What came in on it; undefined for a day of the month before or after. */
  readonly sources: readonly FoundSource[] | undefined;
  onAll(): void;
}

function Day({ name, sources, onAll }: DayProps) {
  return (
    <td className={`h-[84px] border border-rule p-1.5 align-top ${name === dayName(new Date()) ? 'bg-wash' : ''}`}>
      <span className={`font-read text-[13px] ${sources ? 'text-soft' : 'invisible'}`}>{Number(name.slice(8))}</span>
      {sources?.slice(0, SHOWN).map((s) => (
        <Link
          key={s.id}
          to={`/source/${s.id}`}
          dir="auto"
          lang={s.language || undefined}
          title={s.title}
          className="block truncate font-read hover:text-tide"
        >
          {s.title}
        </Link>
      ))}
      {sources && sources.length > SHOWN && (
        <button className="act text-[13px]" onClick={onAll}>
          {sources.length - SHOWN} more
        </button>
      )}
    </td>
  );
}
