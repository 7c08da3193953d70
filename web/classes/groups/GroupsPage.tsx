import { Link, useParams } from 'react-router';
import { useClass } from '../../data/queries';
import { PageHeading } from '../../ui/PageHeading';
import { State } from '../../ui/State';
import { Tint } from '../../ui/Tint';
import { GroupsForm } from './GroupsForm';

/** Who is in which group of a class. */
export default function GroupsPage() {
  const { id = '' } = useParams();
  const found = useClass(id);
  const c = found.data;
  if (!c)
    return (
      <main>
        <State of={found} />
      </main>
    );
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <header className="border-b border-strong px-[30px] pb-3 pt-4 max-[900px]:px-4">
        <Link to={`/classes/${c.id}`} className="act text-[14px] !font-normal !text-soft">
          ‹ {c.name}
        </Link>
        <div className="flex flex-wrap items-baseline gap-x-5">
          <PageHeading window={`Groups, ${c.name}`} className="text-[25px]">
            Groups
          </PageHeading>
          <Tint tint={c.tint}>{c.name}</Tint>
          <p className="text-[14px] text-soft">
            A note can be for one group alone, and a reading set for some. Teachers see what every group writes.
          </p>
        </div>
      </header>
      {c.role === 'student' ? (
        <p className="p-8 text-soft">Groups are made by the teachers of the class.</p>
      ) : (
        <GroupsForm of={c} />
      )}
    </main>
  );
}
