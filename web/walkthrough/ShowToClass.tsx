import { useQueryClient } from '@tanstack/react-query';
import type { ClassDetail, StepNote } from '@avrelle/core/wire';
import { call } from '../data/call';
import { renew } from '../data/stale';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';
import { wordsOf } from '../data/api';
import { count } from '../ui/when';

interface Props {
  readonly of: ClassDetail;
  readonly notes: readonly StepNote[];
}

/** Of the steps, the notes of mine that the class does not see: shows them to it, by one action. Nothing is copied. */
export function ShowToClass({ of: c, notes }: Props) {
  const client = useQueryClient();
  const messages = useMessages();
  const change = useWrite('POST /api/annotations/changes', 'walkthroughs');
  const unseen = notes.filter(({ seen, canShow }) => seen === 'unseen' && canShow);
  if (unseen.length === 0) return null;
  const show = async (): Promise<void> => {
    try {
      // A class reads first what it is shown notes on.
      for (const sourceId of new Set(unseen.map(({ source }) => source.id)))
        await call('PUT /api/classes/:id/sources/:sourceId', { params: { id: c.id, sourceId } });
      const stand = await Promise.all(unseen.map(({ id }) => call('GET /api/annotations/:id', { params: { id } })));
      const changes = stand.map(({ id, version, classIds }) => ({ id, version, classIds: [...classIds, c.id] }));
      const after = await change.send({ body: { changes } });
      const undo = (): void =>
        change.run({
          body: {
            changes: after.map(({ id, version, classIds }) => ({
              ...{ id, version },
              classIds: classIds.filter((one) => one !== c.id),
            })),
          },
        });
      messages.tell(`${c.name} sees ${count(unseen.length, 'more note')} of yours.`, { label: 'Undo', run: undo });
      await renew(client, 'classes');
    } catch (error) {
      messages.warn(wordsOf(error));
    }
  };
  return (
    <p className="mt-2 border-l-[3px] border-l-brick pl-3 text-[14px]">
      {count(unseen.length, 'note')} of yours {unseen.length === 1 ? 'is' : 'are'} not for {c.name} yet.{' '}
      <button className="act ml-2" disabled={change.isPending} onClick={() => void show()}>
        Show {unseen.length === 1 ? 'it' : 'them'} to the class
      </button>
    </p>
  );
}
