import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import type { ClassDetail } from '@avrelle/core/wire';
import { useClass } from '../data/queries';
import { PageHeading } from '../ui/PageHeading';
import { State } from '../ui/State';
import { Tint } from '../ui/Tint';

/** A page about a part of the class in the address, once that has come. */
export function OfClass({ children }: { readonly children: (of: ClassDetail) => ReactNode }) {
  const { id = '' } = useParams();
  const found = useClass(id);
  if (found.data) return children(found.data);
  return (
    <main>
      <State of={found} />
    </main>
  );
}

interface Props {
  readonly of: ClassDetail;
  readonly title: string;
  /** Beside the title. */
  readonly children: ReactNode;
}

/** Its head: back to the class, what it is, of which class. */
export function PartHead({ of: c, title, children }: Props) {
  return (
    <header className="col-span-full border-b border-strong px-[30px] pb-3 pt-4 max-[900px]:px-4">
      <Link to={`/classes/${c.id}`} className="act text-[14px] !font-normal !text-soft">
        ‹ {c.name}
      </Link>
      <div className="flex flex-wrap items-baseline gap-x-5">
        <PageHeading window={`${title}, ${c.name}`} className="text-[25px]">
          {title}
        </PageHeading>
        <Tint tint={c.tint}>{c.name}</Tint>
        <p className="text-[14px] text-soft">{children}</p>
      </div>
    </header>
  );
}
