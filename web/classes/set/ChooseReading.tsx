import { useState } from 'react';
import { Link } from 'react-router';
import type { Assignment, ClassDetail, SourceRow } from '@avrelle/core/wire';
import { useSources } from '../../data/queries';
import { useReadable } from '../../library/use-readable';
import { PageHeading } from '../../ui/PageHeading';
import { State } from '../../ui/State';
import { minutes } from '../../ui/when';

const MOST = 30;

/** Which source: one that the class reads already and that is not set, or any from the Library. */
export function ChooseReading({ of, set }: { readonly of: ClassDetail; readonly set: readonly Assignment[] }) {
  const [typed, setTyped] = useState('');
  const { asked } = useReadable(typed);
  const found = useSources({ q: asked, limit: MOST, sort: asked ? 'best' : 'saved' });
  const setIds = new Set(set.map((a) => a.source.id));
  const shared = of.readings.filter((r) => !setIds.has(r.id));
  const sharedIds = new Set(shared.map((r) => r.id));
  const rest = found.data?.sources.filter((s) => !setIds.has(s.id) && (asked || !sharedIds.has(s.id))) ?? [];
  return (
    <>
      <PageHeading>Set a reading</PageHeading>
      <label className="mt-4 grid gap-1 text-[14px] text-soft">
        Which source?
        <input
          type="search"
          autoFocus
          value={typed}
          placeholder="words of its title, author or text"
          onChange={(e) => setTyped(e.target.value)}
          className="field text-[15px]"
        />
      </label>
      {!asked && shared.length > 0 && <Choices title="The class reads it already" sources={shared} of={of} />}
      <State of={found}>
        {rest.length > 0 && (
          <Choices title={asked ? 'Found in your Library' : 'Last kept in your Library'} sources={rest} of={of} />
        )}
        {rest.length === 0 && (
          <p role="status" className="mt-5 text-soft">
            {asked
              ? 'Nothing of that kind is in your Library. What you want to set has to be kept there first.'
              : 'Nothing else is in your Library yet. What you want to set has to be kept there first.'}
          </p>
        )}
      </State>
    </>
  );
}

interface ChoicesProps {
  readonly title: string;
  readonly sources: readonly SourceRow[];
  readonly of: ClassDetail;
}

function Choices({ title, sources, of }: ChoicesProps) {
  return (
    <section className="mt-5" aria-label={title}>
      <h2 className="mb-1 text-[17px]">{title}</h2>
      <ul>
        {sources.map((s) => (
          <li key={s.id} className="border-t border-rule">
            <Link
              to={`/classes/${of.id}/set/${s.id}`}
              className="grid grid-cols-[1fr_auto] items-baseline gap-x-4 py-2.5 hover:text-tide pointer-coarse:py-3"
            >
              <span className="min-w-0">
                <span dir="auto" lang={s.language || undefined} className="font-read text-[16px]">
                  {s.title}
                </span>
                <span className="block text-[13px] text-soft">{[s.author, s.site].filter(Boolean).join(' · ')}</span>
              </span>
              <span className="text-[13.5px] text-soft">{minutes(s.minutes)}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
