import type { PersonId } from '@avrelle/core/wire';
import { useEffect, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useMessages } from '../ui/Messages';
import { wordsOf } from './api';
import type { Watcher } from './outbox';
import { renew } from './queries';

/** The part of the queue that is asked for here; its code comes later, as it is not needed to show a page. */
interface OutboxCode {
  readonly outbox: { resume(personId: PersonId | undefined): void };
  watchOutbox(by: Watcher): () => void;
}
const loadOutbox = (): Promise<OutboxCode> => import('./outbox');

/** Sends what waits from earlier visits, tells what became of it, and gives whether something waits to be sent. */
export function useOutbox(personId: PersonId | undefined, load = loadOutbox): boolean {
  const client = useQueryClient();
  const messages = useMessages();
  const [waits, setWaits] = useState(false);
  useEffect(() => {
    // The code may come for a former person after it came for this one: whose turn is over says nothing any more.
    let isOver = false;
    let stop = (): void => undefined;
    const watcher: Watcher = {
      waiting: (now) => {
        setWaits(now);
        if (now)
          messages.warn(
            'No connection just now. What you wrote is stored on this computer and sent as soon as the server answers, also after a restart.',
          );
      },
      // It may have been stored after lists and its source were asked for, and before one heard of changes.
      ended: () => void renew(client, 'marks'),
      refused: (_entry, error) =>
        messages.warn(
          `Something you wrote earlier could not be saved: ${wordsOf(error)} Its words wait as an unfinished note where you wrote them.`,
        ),
    };
    load().then(
      ({ outbox, watchOutbox }) => {
        if (isOver) return;
        outbox.resume(personId);
        stop = watchOutbox(watcher);
      },
      // Without a connection its code may not come: what waits is sent by the next window.
      () => undefined,
    );
    return () => {
      isOver = true;
      stop();
    };
  }, [client, messages, personId, load]);
  return waits;
}
