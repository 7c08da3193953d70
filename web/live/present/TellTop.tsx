import { useEffect, useMemo } from 'react';
import { useDocument } from '../../reader/document/document-context';
import { useLatest } from '../../ui/use-latest';
import { characterAt } from '../page/place-of-top';
import { throttled } from '../page/throttled';
import { useOwnScroll } from '../page/use-own-scroll';
import { useRoom } from '../room-context';

const EVERY = 120;

/** Where who shows scrolls to, the screens of the class go: to the same words. */
export function TellTop() {
  const room = useRoom();
  const { blocks } = useDocument();
  const latest = useLatest(blocks);
  const tell = useMemo(
    () =>
      throttled<number>(EVERY, (top) => {
        const at = characterAt(latest.current, top);
        if (at !== undefined) room.say({ type: 'top', at });
      }),
    [room, latest],
  );
  useEffect(() => tell.stop, [tell]);
  useOwnScroll(tell);
  return null;
}
