import type { ClassId, SourceId } from '@avrelle/core/wire';
import { useCallback, useMemo, useState } from 'react';

const key = (sourceId: SourceId): string => `avrelle.audience.${sourceId}`;

/** For whom I write on this source now; only me until I choose a class. Kept on this device. */
export function useAudienceChoice(
  sourceId: SourceId,
  memberOf: ReadonlySet<string>,
): readonly [readonly ClassId[], (classIds: readonly ClassId[]) => void] {
  const [chosen, setChosen] = useState<readonly ClassId[]>(
    () => JSON.parse(localStorage.getItem(key(sourceId)) ?? '[]') as ClassId[],
  );
  const choose = useCallback(
    (classIds: readonly ClassId[]) => {
      localStorage.setItem(key(sourceId), JSON.stringify(classIds));
      setChosen(classIds);
    },
    [sourceId],
  );
  return [useMemo(() => chosen.filter((id) => memberOf.has(id)), [chosen, memberOf]), choose];
}
