import { useEffect } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { ClassId, Live, WalkthroughStep } from '@avrelle/core/wire';
import { annotationsQuery } from '../../data/source-queries';
import { useWalkthrough } from '../../data/walkthrough-queries';
import { useRoom } from '../room-context';
import { placeOf } from '../use-start';

export interface Steps {
  readonly name: string;
  /** Those whose notes are there. */
  readonly all: readonly WalkthroughStep[];
  /** Which is shown; -1 where something else is. */
  readonly at: number;
  readonly step: WalkthroughStep | undefined;
  go(at: number): void;
}

const NONE: readonly WalkthroughStep[] = [];

/** The steps of the walkthrough that is shown, and going from one to another; undefined where none is. */
export function useSteps(classId: ClassId, { walkthroughId, place }: Live): Steps | undefined {
  const client = useQueryClient();
  const room = useRoom();
  const { data } = useWalkthrough(classId, walkthroughId);
  const all = data?.steps.filter(({ note }) => note !== null) ?? NONE;
  const sources = JSON.stringify([...new Set(all.map(({ note }) => note!.source.id))]);
  useEffect(() => {
    for (const id of JSON.parse(sources) as string[]) void client.prefetchQuery(annotationsQuery(id));
  }, [client, sources]);
  if (!data) return undefined;
  const indexOf = (id: string | null | undefined): number => all.findIndex((step) => step.annotationId === id);
  const at = indexOf(place.annotationId);
  return {
    name: data.name,
    all,
    at,
    step: all[at],
    go: (to) => {
      const note = all[Math.min(all.length - 1, Math.max(0, to))]?.note;
      if (!note) return;
      const step = { at: indexOf(note.id), of: all.length };
      room.say({ type: 'place', place: placeOf(client, note), step });
    },
  };
}
