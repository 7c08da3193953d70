import { Link, useParams } from 'react-router';
import type { ClassDetail, ClassJoining } from '@avrelle/core/wire';
import { useJoining } from '../../data/joining-queries';
import { useClass } from '../../data/queries';
import { PageHeading } from '../../ui/PageHeading';
import { State } from '../../ui/State';
import { Tint } from '../../ui/Tint';
import { FromAList } from './FromAList';
import { Links } from './Links';
import { Settings } from './Settings';
import { Waiting } from './Waiting';

/** How others come into a class: who waits, links, a list of people, the code, and whether one has to be let in. */
export default function JoiningPage() {
  const { id = '' } = useParams();
  const found = useClass(id);
  const joining = useJoining(id);
  if (!found.data || !joining.data)
    return (
      <main>
        <State of={found.data ? joining : found} />
      </main>
    );
  return <Joining of={found.data} joining={joining.data} />;
}

interface Props {
  readonly of: ClassDetail;
  readonly joining: ClassJoining;
}

function Joining({ of: c, joining }: Props) {
  const isArchived = c.archivedAt !== null;
  return (
    <main className="grid min-h-0 grid-cols-[1fr_388px] grid-rows-[auto_1fr] bg-sheet max-[900px]:block max-[900px]:overflow-y-auto">
      <header className="col-span-2 border-b border-strong px-[30px] pb-3 pt-4 max-[900px]:px-4">
        <Link to={`/classes/${c.id}`} className="act text-[14px] !font-normal !text-soft">
          ‹ {c.name}
        </Link>
        <div className="flex flex-wrap items-baseline gap-x-5">
          <PageHeading window={`Joining, ${c.name}`} className="text-[25px]">
            Joining
          </PageHeading>
          <Tint tint={c.tint}>{c.name}</Tint>
          <p className="text-[14px] text-soft">How others come into the class.</p>
        </div>
      </header>
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)] content-start gap-9 overflow-y-auto px-[30px] py-5 max-[900px]:px-4">
        {isArchived && <p className="text-soft">The class is archived: nobody joins it now.</p>}
        {joining.requests.length > 0 && <Waiting of={c} requests={joining.requests} />}
        {!isArchived && <Links of={c} links={joining.links} />}
        {!isArchived && c.role === 'teacher' && <FromAList of={c} />}
      </div>
      <aside
        aria-label="Code and settings"
        className="min-h-0 overflow-y-auto border-l border-rule bg-paper px-6 py-5 max-[900px]:border-l-0 max-[900px]:px-4"
      >
        <Settings of={c} joining={joining} />
      </aside>
    </main>
  );
}
