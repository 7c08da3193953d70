import { useEffect } from 'react';
import { blockAt } from '../page/place-of-top';
import { useScrollTold } from '../page/use-own-scroll';
import { useRoom, useRoomView } from '../room-context';

const EVERY = 1_000;

/** Who scrolls by themselves looks around, and stays there until they come back or are called. */
export function LookAround() {
  const room = useRoom();
  const around = useRoomView((view) => view.around);
  const stop = useScrollTold(EVERY, (top, { blocks }) =>
    room.say({ type: 'around', on: true, at: blockAt(blocks, top) }),
  );
  // Nobody is sent away again by what was still to be told.
  useEffect(() => {
    if (!around) stop();
  }, [around, stop]);
  return null;
}
