import type { ClassDetail, ClassJoining } from '@avrelle/core/wire';
import { useJoining } from '../../data/joining-queries';
import { State } from '../../ui/State';
import { OfClass, PartHead } from '../ClassPart';
import { FromAList } from './FromAList';
import { Links } from './Links';
import { Settings } from './Settings';
import { Waiting } from './Waiting';

/** How others come into a class: who waits, links, a list of people, the code, and whether one has to be let in. */
export default function JoiningPage() {
  return <OfClass>{(c) => <WhenKnown of={c} />}</OfClass>;
}

function WhenKnown({ of: c }: { readonly of: ClassDetail }) {
  const joining = useJoining(c.id);
  if (joining.data) return <Joining of={c} joining={joining.data} />;
  return (
    <main>
      <State of={joining} />
    </main>
  );
}

interface Props {
  readonly of: ClassDetail;
  readonly joining: ClassJoining;
}

function Joining({ of: c, joining }: Props) {
  const isArchived = c.archivedAt !== null;
  return (
    <main className="grid min-h-0 grid-cols-[1fr_388px] grid-rows-[auto_1fr] bg-sheet max-[900px]:block max-[900px]:overflow-y-auto">
      <PartHead of={c} title="Joining">
        How others come into the class.
      </PartHead>
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
