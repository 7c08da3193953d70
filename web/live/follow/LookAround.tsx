import { useEffect, useMemo } from 'react';
import { useDocument } from '../../reader/document/document-context';
import { useLatest } from '../../ui/use-latest';
import { blockAt } from '../page/place-of-top';
import { throttled } from '../page/throttled';
import { useOwnScroll } from '../page/use-own-scroll';
import { useRoom } from '../room-context';

const EVERY = 1_000;

/** Who scrolls by themselves looks around, and stays there until they come back or are called. */
export function LookAround() {
  const room = useRoom();
  const { blocks } = useDocument();
  const latest = useLatest(blocks);
  const tell = useMemo(
    () =>
      throttled<number>(EVERY, (top) => {
        if (room.store.getState().around) room.say({ type: 'around', on: true, at: blockAt(latest.current, top) });
      }),
    [room, latest],
  );
  useEffect(() => tell.stop, [tell]);
  useOwnScroll((top) => {
    if (!room.store.getState().around) room.say({ type: 'around', on: true, at: blockAt(latest.current, top) });
    tell(top);
  });
  return null;
}
