import { leftOf } from '@avrelle/core/class';
import type { Assignment, PersonId } from '@avrelle/core/wire';
import { subDays } from 'date-fns';
import { assignmentsOf } from '../assignments/assignments';
import type { Db } from '../db/database';
import { askingNow } from './asking';
import { isSaid } from './digest-queries';
import { endOfTomorrow } from './next-digest';
import { noticesForMail, type MailNotice } from './notices-queries';
import { kindsOff, mutedBy } from './settings-queries';

/** What is older is news no more. */
const DAYS_NEW = 14;

/** What a mail says: as it stands when it goes out, of what its receiver may see then. */
export interface DigestContents {
  /** Due by the end of tomorrow, and not done. */
  readonly due: readonly Assignment[];
  readonly asking: ReturnType<typeof askingNow>;
  readonly notices: readonly MailNotice['notice'][];
  /** By which all of it is known again. */
  readonly items: readonly string[];
}

export function digestContents(
  db: Db,
  me: PersonId,
  { zone, now }: { readonly zone: string; readonly now: string },
): DigestContents {
  const off = kindsOff(db, me, 'mail');
  const notices = noticesForMail(db, me, { off, since: subDays(new Date(now), DAYS_NEW).toISOString() });
  const asking = askingNow(db, me, off).filter((asked) => !isSaid(db, me, askingItem(asked)));
  const due = off.includes('due') ? [] : dueTomorrow(db, me, { zone, now });
  return {
    due,
    asking,
    notices: notices.map(({ notice }) => notice),
    items: [...notices.flatMap(({ items }) => items), ...asking.map(askingItem), ...due.map(dueItem)],
  };
}

/** Where one more asks, it is told again. */
const askingItem = ({ class: c, newestAt }: DigestContents['asking'][number]): string => `asking:${c.id}@${newestAt}`;
/** Put off, it is told again. */
const dueItem = ({ class: c, source, myDueAt }: Assignment): string => `due:${c.id}:${source.id}@${myDueAt}`;

function dueTomorrow(
  db: Db,
  me: PersonId,
  { zone, now }: { readonly zone: string; readonly now: string },
): Assignment[] {
  const end = endOfTomorrow(zone, now);
  const muted = new Set(mutedBy(db, me).map(({ id }) => id));
  return assignmentsOf(db, me, {}).filter(
    (set) =>
      leftOf(set) !== '' &&
      set.myDueAt !== null &&
      set.myDueAt > now &&
      set.myDueAt < end &&
      !muted.has(set.class.id) &&
      !isSaid(db, me, dueItem(set)),
  );
}
