import { notifyManager } from '@tanstack/react-query';

/** The longest that what has come in waits to be shown, in milliseconds. */
const LATEST = 150;

const waiting: (() => void)[] = [];
let asked = false;

/** Does what has waited, in its order, as one change. */
export function now(): void {
  asked = false;
  notifyManager.batch(() => { for (const work of waiting.splice(0)) work(); });
}

/**
 * Takes in what the server tells once the browser has nothing better to do: what a person does is drawn first, and what
 * comes in at once is shown at once.
 */
export function soon(work: () => void): void {
  waiting.push(work);
  if (asked) return;
  asked = true;
  if (typeof requestIdleCallback === 'function') requestIdleCallback(now, { timeout: LATEST });
  else setTimeout(now);
}
