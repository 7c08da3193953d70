import type { PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import type { Asker } from './asker';
import { myClasses } from './queries';

/** `day` is the day it is where they are; that of UTC where it is not said. */
export const askerOf = (
  { db, now }: Pick<Context, 'db' | 'now'>,
  me: PersonId,
  { day, ahead }: { readonly day?: string | undefined; readonly ahead: number },
): Asker => ({ me, classes: myClasses(db, me), today: day ?? now().slice(0, 10), ahead });
