import { useCallback, useState } from 'react';
import type { SourceKind } from '@avrelle/core/wire';
import { readType, writeType, type Type } from './type';

/** How this kind of source is set on this device. */
export function useType(kind: SourceKind): readonly [Type, (type: Type) => void] {
  const [type, setType] = useState(() => readType(localStorage, kind));
  const choose = useCallback(
    (next: Type) => {
      writeType(localStorage, kind, next);
      setType(next);
    },
    [kind],
  );
  return [type, choose];
}
