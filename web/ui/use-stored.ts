import { useCallback, useState } from 'react';

/** A preference of this browser; what is stored and cannot be read any more counts as not there. */
export function useStored<T>(name: string, otherwise: T): readonly [T, (value: T) => void] {
  const key = `avrelle.${name}`;
  const [value, setValue] = useState<T>(() => {
    try {
      return (JSON.parse(localStorage.getItem(key) ?? 'null') as T | null) ?? otherwise;
    } catch {
      return otherwise;
    }
  });
  const store = useCallback(
    (next: T) => {
      setValue(next);
      localStorage.setItem(key, JSON.stringify(next));
    },
    [key],
  );
  return [value, store];
}
