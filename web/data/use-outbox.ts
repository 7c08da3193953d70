import type { PersonId } from '@avrelle/core/wire';
import { useEffect } from 'react';
import { useMessages } from '../ui/Messages';
import { wordsOf } from './api';
import { outbox, watchOutbox } from './outbox';

/** Sends what waits from earlier visits, and tells what became of it. */
export function useOutbox(personId: PersonId | undefined): void {
  const messages = useMessages();
  useEffect(
    () =>
      watchOutbox({
        waiting: () =>
          messages.warn(
            'No connection just now. What you wrote is stored on this computer and sent as soon as the server answers, also after a restart.',
          ),
        refused: (_entry, error) =>
          messages.warn(
            `Something you wrote earlier could not be saved: ${wordsOf(error)} Its words wait as an unfinished note where you wrote them.`,
          ),
      }),
    [messages],
  );
  useEffect(() => outbox.resume(personId), [personId]);
}
