import { Link } from 'react-router';
import type { ClassLabel } from '@avrelle/core/wire';
import { useNotifications } from '../data/notification-queries';
import { useWrite } from '../data/use-write';
import { PageHeading } from '../ui/PageHeading';
import { State } from '../ui/State';
import { Tint } from '../ui/Tint';
import { Following } from './Following';
import { SettingsForm } from './SettingsForm';

/** Of what I am told, where and how often; what I follow; and of which classes I want to hear nothing. */
export default function NotificationsPage() {
  const found = useNotifications();
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <header className="border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <PageHeading>Notifications</PageHeading>
      </header>
      <div className="grid min-h-0 grid-cols-[1fr_388px] max-[900px]:block max-[900px]:overflow-y-auto">
        <div className="min-h-0 overflow-y-auto px-[30px] py-5 max-[900px]:px-4">
          <State of={found}>{found.data && <SettingsForm of={found.data} />}</State>
        </div>
        <aside
          aria-label="What you follow"
          className="min-h-0 overflow-y-auto border-l border-rule bg-paper px-6 py-4 max-[900px]:border-l-0 max-[900px]:border-t max-[900px]:px-4"
        >
          <Following />
          <Muted of={found.data?.muted ?? []} />
        </aside>
      </div>
    </main>
  );
}

function Muted({ of }: { readonly of: readonly ClassLabel[] }) {
  const put = useWrite('PUT /api/classes/:id/muted', 'desk');
  return (
    <section aria-label="Muted classes">
      <h2 className="mb-1 text-[17px]">Muted classes</h2>
      {of.length === 0 && (
        <p className="text-[14px] text-soft">
          None. The menu of a class has <i>Mute the class</i>: you are then told nothing of it.
        </p>
      )}
      <ul>
        {of.map(({ id, name, tint }) => (
          <li key={id} className="flex items-baseline gap-4 border-t border-rule py-2 text-[14.5px]">
            <Link to={`/classes/${id}`} className="reach hover:text-tide">
              <Tint tint={tint}>{name}</Tint>
            </Link>
            <button
              className="act ml-auto text-[13px]"
              onClick={() => put.run({ params: { id }, body: { muted: false } })}
            >
              Unmute<span className="sr-only"> {name}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
