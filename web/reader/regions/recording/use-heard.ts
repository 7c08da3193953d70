import { useEffect, useRef, useState, type RefObject } from 'react';
import { hear, heardTo, inOrder, type Heard } from '@avrelle/core/reading';
import { clockTime } from '@avrelle/core/text';
import type { SourceDetail } from '@avrelle/core/wire';
import { call } from '../../../data/call';
import { useMessages } from '../../../ui/Messages';

const SAVE_EVERY = 5_000;

/** What was played, and where playing goes on when somebody asks for a moment. */
export interface Listening {
  readonly heard: Heard;
  /** That moment, or, of what is heard in order, where it was heard to: then it is said why. */
  goTo(seconds: number): number;
  /** For the element that plays. */
  readonly element: {
    onPlay(): void;
    onPause(): void;
    onSeeking(): void;
    onTimeUpdate(): void;
  };
}

interface Played {
  readonly heard: Heard;
  readonly saved: Heard;
  /** Since when it has been playing without a jump; null after one. */
  readonly begun: number | null;
}

/** Keeps what was played on the server: every few seconds, when one goes elsewhere, and when it is told to. */
function useSaving({ id, versionId }: SourceDetail, now: RefObject<Played>): RefObject<() => void> {
  const saveNow = useRef<() => void>(() => undefined);
  useEffect(() => {
    const save = (): void => {
      const { heard, saved } = now.current;
      if (heard === saved) return;
      now.current = { ...now.current, saved: heard };
      call('PUT /api/sources/:id/shelf', { params: { id }, body: { versionId, heard } }).catch(() => {
        now.current = { ...now.current, saved: [] };
      });
    };
    saveNow.current = save;
    const saver = setInterval(save, SAVE_EVERY);
    return () => {
      clearInterval(saver);
      save();
    };
  }, [id, versionId, now]);
  return saveNow;
}

/** Follows what is played of a recording, and keeps it on the server; what is heard in order is not jumped ahead in. */
export function useHeard(
  source: SourceDetail,
  isOrdered: boolean,
  media: RefObject<HTMLVideoElement | null>,
): Listening {
  const messages = useMessages();
  const [heard, setHeard] = useState<Heard>(source.heard);
  const now = useRef<Played>({ heard: source.heard, saved: source.heard, begun: null });
  const saveNow = useSaving(source, now);
  useEffect(() => {
    // What was heard elsewhere comes with the next answer of the server.
    const all = source.heard.reduce<Heard>((spans, [from, to]) => hear(spans, from, to), now.current.heard);
    now.current = { ...now.current, heard: all };
    setHeard(all);
  }, [source.heard]);
  const goTo = (seconds: number): number => {
    const to = isOrdered ? inOrder(now.current.heard, seconds) : seconds;
    if (to !== seconds)
      messages.tell(`Not heard yet: this recording is heard in order, and goes on at ${clockTime(to)}.`);
    return to;
  };
  /** Played on from where it was begun, or from where it was put last. */
  const follow = (): void => {
    const { current: element } = media;
    const { heard: before, begun } = now.current;
    if (!element || element.seeking) return;
    const at = element.currentTime;
    // Beyond the end of what was heard later on, it is not gone on with: what lies between was not heard.
    if (isOrdered && inOrder(before, at) !== at && begun !== null && begun > heardTo(before) + 1) {
      element.currentTime = goTo(at);
      return;
    }
    const heard = hear(before, begun ?? at, at);
    now.current = { ...now.current, begun: begun ?? at, heard };
    if (heard !== before) setHeard(heard);
  };
  return {
    heard,
    goTo,
    element: {
      onPlay: follow,
      onTimeUpdate: follow,
      onPause: () => {
        follow();
        saveNow.current();
      },
      onSeeking: () => {
        now.current = { ...now.current, begun: null };
        const { current: element } = media;
        // Put ahead by other ways than ours, as by the keys of a keyboard for music.
        if (isOrdered && element && inOrder(now.current.heard, element.currentTime) !== element.currentTime)
          element.currentTime = goTo(element.currentTime);
      },
    },
  };
}
