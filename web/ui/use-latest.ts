import { useEffect, useRef, type RefObject } from 'react';

/** The newest value, for what was set up with an older one: a listener, a timer, a command. */
export function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value);
  useEffect(() => {
    latest.current = value;
  });
  return latest;
}
