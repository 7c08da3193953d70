import type { NotificationKind, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { askingMe } from '../joining/queries';
import { mutedBy } from './settings-queries';

/** Who waits to be let in to the classes somebody teaches and wants to hear of. */
export function askingNow(db: Db, me: PersonId, off: readonly NotificationKind[]): ReturnType<typeof askingMe> {
  if (off.includes('asking')) return [];
  const muted = new Set(mutedBy(db, me).map(({ id }) => id));
  return askingMe(db, me).filter(({ class: { id } }) => !muted.has(id));
}
