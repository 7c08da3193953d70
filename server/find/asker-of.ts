import type { PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import type { Asker } from './asker';
import { myClasses } from './queries';

/** `day` is the day it is where they are; that of UTC where it is not said. */
export const askerOf = (
  { db, now }: Pick<Context, 'db' | 'now'>,
  me: PersonId,
  { day, ahead }: { readonly day?: string | undefined; readonly ahead: number },
): Asker => {
  const classes = myClasses(db, me);
  const taught = classes.filter(({ role }) => role !== 'student');
  return {
    me,
    classes: classes.map(({ id }) => id),
    taught: taught.map(({ id }) => id),
    groups: classes.flatMap(({ groupId }) => groupId ?? []),
    today: day ?? now().slice(0, 10),
    ahead,
  };
};
