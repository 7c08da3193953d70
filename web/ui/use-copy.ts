import { useCallback } from 'react';
import { useMessages } from './Messages';

/** A message shows no more than this. */
const SHOWN = 120;

/** Puts words on the clipboard and says so; where that is not allowed, says what to copy by hand. */
export function useCopy(): (words: string, told: string) => void {
  const messages = useMessages();
  return useCallback(
    (words, told) =>
      void navigator.clipboard.writeText(words).then(
        () => messages.tell(told),
        () =>
          messages.warn(
            `This could not be copied here${words.length > SHOWN ? '.' : `; select it and copy it by hand: ${words}`}`,
          ),
      ),
    [messages],
  );
}
