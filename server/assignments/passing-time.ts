import type { Context } from '../context';
import { hasTimeCome, passTime } from './queries';

/** So often it is looked for what time has come for, in milliseconds. */
const LOOK_EVERY = 1_000;

type World = Pick<Context, 'db' | 'now' | 'events'>;

/**
 * Opens what opens and shows what is shown at its date. That it was done stands in the database: after a standstill it
 * is caught up on, and nothing is done twice. Where nothing has come, nobody who writes is held up.
 */
export function keepTime({ db, now, events }: World): void {
  if (!hasTimeCome(db, now())) return;
  db.transaction(() => {
    for (const { classId, sourceId } of passTime(db, now())) events.append({ type: 'classes', classId, sourceId });
  });
}

/** Does so from now on. Returns how to stop it. */
export function watchTime(world: World): () => void {
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
