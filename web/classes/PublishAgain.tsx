import { useState } from 'react';
import type { Assignment } from '@avrelle/core/wire';
import { useWrite } from '../data/use-write';
import { Confirm } from '../ui/Confirm';
import { useMessages } from '../ui/Messages';
import { day } from '../ui/when';
import { Changed, isChanged } from './Changed';

/** For who teaches: tells the class of a reading anew, with what has changed. */
export function PublishAgain({ set }: { readonly set: Assignment }) {
  const [asked, setAsked] = useState(false);
  if (!set.isOpen) return null;
  return (
    <>
      <button className="act" onClick={() => setAsked(true)}>
        Publish again…
      </button>
      {asked && <Ask set={set} onClose={() => setAsked(false)} />}
    </>
  );
}

function Ask({ set, onClose }: { readonly set: Assignment; readonly onClose: () => void }) {
  const { class: c, source, published } = set;
  const [lookAgain, setLookAgain] = useState(false);
  const put = useWrite('POST /api/classes/:id/assignments/:sourceId/published', 'classes');
  const messages = useMessages();
  const run = async (): Promise<void> => {
    const body = { number: published.number, lookAgain };
    await put.send({ params: { id: c.id, sourceId: source.id }, body });
    messages.tell(`“${source.title}” is published again; ${c.name} is told.`);
    onClose();
  };
  return (
    <Confirm title={`Publish “${source.title}” again?`} action="Publish again" onClose={onClose} run={run}>
      {isChanged(published) ? (
        <p>
          <Changed set={set} />
        </p>
      ) : (
        <p>Nothing has changed since {day(published.at)}.</p>
      )}
      <p>The students of {c.name} are told. From then on only what changes later is marked as changed.</p>
      <label className="flex cursor-pointer items-baseline gap-2">
        <input
          type="checkbox"
          className="accent-[var(--tide)]"
          checked={lookAgain}
          onChange={() => setLookAgain(!lookAgain)}
        />
        Count anew who has looked at it
      </label>
    </Confirm>
  );
}
