import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

type Change = Readonly<Record<string, string | undefined>>;

/**
 * What stands behind the `?` of the address, and how it is changed without a step in the browser's history: undefined
 * takes away.
 */
export function useAddressParams(): [URLSearchParams, (change: Change) => void] {
  const [params, setParams] = useSearchParams();
  const change = useCallback(
    (changes: Change): void =>
      setParams(
        (before) => {
          const after = new URLSearchParams(before);
          for (const [key, value] of Object.entries(changes)) {
            if (value) after.set(key, value);
            else after.delete(key);
          }
          return after;
        },
        { replace: true },
      ),
    [setParams],
  );
  return [params, change];
}
