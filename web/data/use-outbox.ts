import type { PersonId } from '@avrelle/core/wire';
import { useEffect } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useMessages } from '../ui/Messages';
import { wordsOf } from './api';
import { renew } from './queries';

/** Sends what waits from earlier visits, and tells what became of it. Its code is not needed to show a page. */
export function useOutbox(personId: PersonId | undefined): void {
  const client = useQueryClient();
  const messages = useMessages();
  useEffect(() => {
    const watched = import('./outbox').then(({ outbox, watchOutbox }) => {
      outbox.resume(personId);
      return watchOutbox({
        waiting: () =>
          messages.warn(
            'No connection just now. What you wrote is stored on this computer and sent as soon as the server answers, also after a restart.',
          ),
        // It may have been stored after its source was asked for, and before one heard of changes.
        ended: ({ sourceId }) => void renew(client, 'annotations', sourceId),
        refused: (_entry, error) =>
          messages.warn(
            `Something you wrote earlier could not be saved: ${wordsOf(error)} Its words wait as an unfinished note where you wrote them.`,
          ),
      });
    });
    // Without a connection its code may not come: what waits is sent by the next window.
    watched.catch(() => undefined);
    return () =>
      void watched.then(
        (stop) => stop(),
        () => undefined,
      );
  }, [client, messages, personId]);
}
