import { notifyManager } from '@tanstack/react-query';

/** The longest that what has come in waits to be shown, in milliseconds. */
const LATEST = 150;

const waiting: (() => void)[] = [];
let asked = false;

/** Does what has waited, in its order, as one change. */
export function flush(): void {
  asked = false;
  if (waiting.length === 0) return;
  notifyManager.batch(() => {
    for (const work of waiting.splice(0)) work();
  });
}

/**
 * Takes in what the server tells once the browser has nothing better to do: what a person does is drawn first, and what
 * comes in at once is shown at once.
 */
export function defer(work: () => void): void {
  waiting.push(work);
  if (asked) return;
  asked = true;
  if (typeof requestIdleCallback === 'function') requestIdleCallback(flush, { timeout: LATEST });
  else setTimeout(flush);
}

/**
 * Before a key or a press in a window or a frame is heard by anybody else, what has waited is done: whoever hears of it
 * then knows all that is shown (a browser ends one listener's work before it calls the next). Returns how to stop it.
 */
export function flushOnInput(target: EventTarget): () => void {
  const events = ['pointerdown', 'keydown'];
  for (const event of events) target.addEventListener(event, flush, { capture: true });
  return () => {
    for (const event of events) target.removeEventListener(event, flush, { capture: true });
  };
}
