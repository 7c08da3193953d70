import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { ClassDetail } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { OfClass, PartHead } from '../classes/ClassPart';
import { Choose } from './Choose';
import { Follow } from './follow/Follow';
import { Present } from './present/Present';
import { RoomContext, useConnection, useRoomView } from './room-context';
import type { RoomView } from './room-connection';

/** What is shown to a class now: for who shows it, and for who follows. */
export default function LivePage() {
  return <OfClass>{(c) => <Room of={c} />}</OfClass>;
}

function Room({ of: c }: { readonly of: ClassDetail }) {
  const room = useConnection(c.id, useMe().id);
  if (!room) return null;
  return (
    <RoomContext.Provider value={room}>
      <Inside of={c} />
    </RoomContext.Provider>
  );
}

function Inside({ of: c }: { readonly of: ClassDetail }) {
  const me = useMe();
  const live = useRoomView(({ shown }) => shown.live);
  const isHere = useRoomView((view) => view.isHere);
  const ended = useRoomView((view) => view.ended);
  if (ended) return <Message of={c}>{ENDED[ended]}</Message>;
  if (!isHere)
    return (
      <main>
        <p role="status" className="p-8 text-faint">
          Connecting…
        </p>
      </main>
    );
  if (!live) return <NothingShown of={c} />;
  return live.by.id === me.id ? <Present of={c} live={live} /> : <Follow of={c} live={live} />;
}

const ENDED: Readonly<Record<NonNullable<RoomView['ended']>, string>> = {
  signedOut: 'You are signed out. Sign in again to follow.',
  notMember: 'You are not in this class any more.',
  tooFast: 'Too much came from this page at once. Reload it to go on.',
  tooMany: 'Avrelle is open in too many windows of yours. Close some, and reload this page.',
};

function NothingShown({ of: c }: { readonly of: ClassDetail }) {
  const teaches = useRoomView((view) => view.teaches);
  if (!teaches || c.archivedAt !== null)
    return <Message of={c}>Nothing is shown now. What your teacher shows appears here by itself.</Message>;
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <PartHead of={c} title="Show live">
        What you choose appears on the screens of all who follow.
      </PartHead>
      <div className="min-h-0 overflow-y-auto px-[30px] py-4 max-[900px]:px-4">
        <Choose of={c} />
      </div>
    </main>
  );
}

function Message({ of: c, children }: { readonly of: ClassDetail; readonly children: ReactNode }) {
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <PartHead of={c} title="Live">
        <Link className="act" to={`/classes/${c.id}`}>
          To the class
        </Link>
      </PartHead>
      <p role="status" className="px-[30px] py-6 text-soft max-[900px]:px-4">
        {children}
      </p>
    </main>
  );
}
