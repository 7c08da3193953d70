import { useEffect } from 'react';
import type { LivePlace } from '@avrelle/core/wire';
import { characterAt } from '../page/place-of-top';
import { useScrollTold } from '../page/use-own-scroll';
import { useRoom } from '../room-context';

const EVERY = 120;

/** Where who shows scrolls to, the screens of the class go: to the same words. */
export function TellTop({ place }: { readonly place: LivePlace }) {
  const room = useRoom();
  const stop = useScrollTold(EVERY, (top, { page, blocks }) => {
    const at = page && characterAt(page.adapter.boxes, blocks, top);
    if (at !== undefined) room.say({ type: 'top', at });
  });
  // What was still to be told of the place before means nothing at this one.
  const at = JSON.stringify(place);
  useEffect(stop, [stop, at]);
  return null;
}
