import { Link } from 'react-router';
import { useArrivals } from '../data/queries';
import { Arrivals } from './Arrivals';
import { Feeds } from './Feeds';
import { Letters } from './Letters';
import { Lists } from './Lists';
import { PageHeading } from '../ui/PageHeading';

/** Everything that brings in more than one thing at a time. */
export default function GatherPage() {
  const waiting = useArrivals().data?.length ?? 0;
  return (
    <main className="min-h-0 overflow-y-auto bg-sheet">
      <div className="flex items-baseline gap-5 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <PageHeading>Gather</PageHeading>
        <span className="text-[14px] text-soft">
          {waiting > 0 ? `${waiting} new, to keep or skip` : 'nothing new waits'}
        </span>
        <Link to="/library" className="act ml-auto text-[14px]">
          To the Library
        </Link>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(340px,420px)] max-[900px]:grid-cols-1">
        <div className="min-w-0">
          <Arrivals />
          <Lists />
        </div>
        <div className="border-l border-rule bg-paper max-[900px]:border-l-0">
          <Feeds />
          <Letters />
        </div>
      </div>
    </main>
  );
}
