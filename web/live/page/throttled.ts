interface Throttled<T> {
  (value: T): void;
  /** At once, in the place of what waits. */
  now(value: T): void;
  stop(): void;
}

/** Calls `work` with the newest value, at most once in so many milliseconds; the last one is never lost. */
export function throttled<T>(every: number, work: (value: T) => void): Throttled<T> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let waiting: { readonly value: T } | undefined;
  const go = (): void => {
    timer = undefined;
    if (!waiting) return;
    const { value } = waiting;
    waiting = undefined;
    timer = setTimeout(go, every);
    work(value);
  };
  const call = (value: T): void => {
    waiting = { value };
    if (timer === undefined) go();
  };
  const stop = (): void => {
    clearTimeout(timer);
    timer = undefined;
    waiting = undefined;
  };
  const now = (value: T): void => {
    stop();
    work(value);
  };
  return Object.assign(call, { now, stop });
}
