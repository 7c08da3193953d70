import { createHash, randomBytes } from 'node:crypto';
import { addMinutes } from 'date-fns';
import type { Config } from '../config';
import type { Writing } from '../writing';
import { digestContents } from './digest-contents';
import { digestLetter } from './digest-letter';
import { digestsDue, putDigest, setNext, setSent, takeItemsBack, unsentDigest, type DueDigest } from './digest-queries';
import { smtpMailer, type Mailer } from './mailer';
import { nextDigest } from './next-digest';

type World = Pick<Writing, 'db' | 'now' | 'newId'>;
interface Sending {
  readonly send: Mailer;
  /** Of Avrelle, without a slash at the end. */
  readonly origin: string;
}

/** Minutes until it is tried again where a mail server refuses; twice as long each time, to a day. */
const FIRST_AGAIN = 5;
const LAST_AGAIN = 24 * 60;
const STOP_BYTES = 32;

export const stopHash = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Sends every mail that is due, one after the other; where there is nothing new, none. Returns how many went out. */
export async function sendDigests(world: World, sending: Sending): Promise<number> {
  let sent = 0;
  for (const due of digestsDue(world.db, world.now())) {
    try {
      if (await sendDigest(world, sending, due)) sent += 1;
    } catch (error) {
      console.error(`a mail to ${due.email} could not be sent:`, (error as Error).message);
      putOff(world, due);
      // No answer at all: it would not answer for the others either.
      if ((error as { readonly responseCode?: number }).responseCode === undefined) break;
    }
  }
  return sent;
}

/** What did not go out has not been said; it is tried again, later each time. */
function putOff({ db, now }: World, due: DueDigest): void {
  const id = unsentDigest(db, due.personId);
  if (id) takeItemsBack(db, id);
  const wait = Math.min(FIRST_AGAIN * 2 ** due.tries, LAST_AGAIN);
  setNext(db, due, { nextAt: addMinutes(new Date(now()), wait).toISOString(), tries: due.tries + 1 });
}

/**
 * What it says is written down before it goes out, so that a process that ends meanwhile says nothing twice in a mail
 * of another name: it is then sent once more under the same one, by which mail programs know it again. Rejects where
 * the mail server does not take it.
 */
async function sendDigest(world: World, { send, origin }: Sending, due: DueDigest): Promise<boolean> {
  const { db, now, newId } = world;
  const { personId, name, email, zone } = due;
  const at = now();
  const token = randomBytes(STOP_BYTES).toString('hex');
  const stop = `${origin}/stop-mails/${token}`;
  const id = unsentDigest(db, personId) ?? newId();
  const contents = db.transaction(() => {
    takeItemsBack(db, id);
    const found = digestContents(db, personId, { zone, now: at });
    if (found.items.length > 0)
      putDigest(db, { id, person: personId, stopHash: stopHash(token), now: at }, found.items);
    return found;
  });
  if (contents.items.length === 0) {
    setNext(db, due, { nextAt: nextDigest(due, at), tries: 0 });
    return false;
  }
  const letter = digestLetter(contents, { name, zone, origin, stop });
  await send({ id, to: { name, address: email }, stop, ...letter });
  db.transaction(() => {
    setSent(db, id, now());
    setNext(db, due, { nextAt: nextDigest(due, now()), tries: 0 });
  });
  return true;
}

/** So often it is looked for mails that are due, in milliseconds. */
const LOOK_EVERY = 30_000;

/** Sends from now on what is due, where this installation sends mails. Returns how to stop it. */
export function watchMails(world: World, { smtp, address }: Pick<Config, 'smtp' | 'address'>): () => void {
  return smtp ? watch(world, { send: smtpMailer(smtp), origin: address }) : () => undefined;
}

function watch(world: World, sending: Sending): () => void {
  let busy = false;
  const look = async (): Promise<void> => {
    if (busy) return;
    busy = true;
    try {
      await sendDigests(world, sending);
    } catch (error) {
      console.error('mails:', error);
    } finally {
      busy = false;
    }
  };
  void look();
  const timer = setInterval(() => void look(), LOOK_EVERY);
  timer.unref();
  return () => clearInterval(timer);
}
