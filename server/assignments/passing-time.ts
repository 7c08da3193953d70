import { isReleaseDue } from '../held/queries';
import { releaseDue } from '../held/release';
import type { Writing } from '../writing';
import { hasTimeCome, passTime } from './queries';

/** So often it is looked for what time has come for, in milliseconds. */
const LOOK_EVERY = 1_000;

/**
 * Opens what opens, shows what is shown at its date, and releases what is held until then. That it was done stands in
 * the database: after a standstill it is caught up on, and nothing is done twice. Where nothing has come, nobody who
 * writes is held up.
 */
export function keepTime(world: Writing): void {
  const { db, now, events } = world;
  if (!hasTimeCome(db, now()) && !isReleaseDue(db, now())) return;
  db.transaction(() => {
    for (const { classId, sourceId } of passTime(db, now())) events.append({ type: 'classes', classId, sourceId });
    releaseDue(world, now());
  });
}

/** Does so from now on. Returns how to stop it. */
export function watchTime(world: Writing): () => void {
  const look = (): void => {
    try {
      keepTime(world);
    } catch (error) {
      console.error('time:', error);
    }
  };
  look();
  const timer = setInterval(look, LOOK_EVERY);
  timer.unref();
  return () => clearInterval(timer);
}
