import { useCallback, useMemo, useState } from 'react';
import { ONLY_ME, type Audience } from '@avrelle/core/audience';
import type { ClassRow, SourceId } from '@avrelle/core/wire';

const key = (sourceId: SourceId): string => `avrelle.audience.${sourceId}`;

/** For whom I write on this source now; only me until I choose a class. Kept on this device. */
export function useAudienceChoice(
  sourceId: SourceId,
  classes: readonly ClassRow[],
): readonly [Audience, (audience: Audience) => void] {
  const [chosen, setChosen] = useState(() => readChoice(sourceId));
  const choose = useCallback(
    (audience: Audience) => {
      localStorage.setItem(key(sourceId), JSON.stringify(audience));
      setChosen(audience);
    },
    [sourceId],
  );
  return [useMemo(() => within(chosen, classes), [chosen, classes]), choose];
}

/** On this device may be a list of classes alone, as it was kept once. */
function readChoice(sourceId: SourceId): Audience {
  const kept = JSON.parse(localStorage.getItem(key(sourceId)) ?? 'null') as Audience | Audience['classIds'] | null;
  if (kept === null) return ONLY_ME;
  return 'classIds' in kept ? kept : { classIds: kept };
}

/** What still can be: in classes that I am in; held only where I teach them all. */
function within({ classIds, teachersOnly, held, groupIds = [] }: Audience, classes: readonly ClassRow[]): Audience {
  const mine = classes.filter((c) => c.archivedAt === null && classIds.includes(c.id));
  const groups = groupIds.filter((id) => mine.some((c) => c.groups.some((group) => group.id === id)));
  // Where the group is gone, it is not the whole class that it was for.
  if (mine.length === 0 || groups.length < groupIds.length) return ONLY_ME;
  return {
    classIds: mine.map((c) => c.id),
    ...(groups.length > 0 ? { groupIds: groups } : {}),
    ...(teachersOnly ? { teachersOnly } : {}),
    ...(held && mayHold(mine) ? { held } : {}),
  };
}

/** Only who teaches holds anything back. */
export const mayHold = (classes: readonly ClassRow[]): boolean => classes.every((c) => c.role !== 'student');
