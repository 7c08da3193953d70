import type { Context } from '../context';
import { myClasses } from './queries';

/** Whoever asks, and what a search depends on besides its words. */
export interface Asker {
  readonly me: string;
  /** Ids of the classes they are in. */
  readonly classes: readonly string[];
  /** The day it is where they are, `YYYY-MM-DD`. */
  readonly today: string;
  /** How far their clocks are ahead of UTC, in minutes. */
  readonly ahead: number;
}

/** `day` is the day it is where they are; that of UTC where it is not said. */
export const askerOf = (
  { db, now }: Pick<Context, 'db' | 'now'>,
  me: string,
  { day, ahead }: { readonly day?: string | undefined; readonly ahead: number },
): Asker => ({ me, classes: myClasses(db, me), today: day ?? now().slice(0, 10), ahead });
