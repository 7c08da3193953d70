import type { PersonId } from '@avrelle/core/wire';
import { randomBytes } from 'node:crypto';
import { SMTPServer, type SMTPServerAddress } from 'smtp-server';
import type { Context } from '../context';
import { storeBlob } from '../db/blobs';
import type { Db } from '../db/database';
import { insertJob } from '../jobs/queries';
import { localOf, ownerOfLocal, setLocal } from './queries';

/** Letters and digits that are not mistaken for each other. */
const SIGNS = 'abcdefghjkmnpqrstuvwxyz23456789';
const newLocal = (): string => `letters-${[...randomBytes(12)].map((byte) => SIGNS[byte % SIGNS.length]).join('')}`;

/** The local part at which a person's letters come in, made at first asking; `renew` makes another, and the old one is refused from then on. */
export function intakeLocal(db: Db, personId: PersonId, renew = false): string {
  const known = localOf(db, personId);
  if (known && !renew) return known;
  const local = newLocal();
  setLocal(db, personId, local);
  return local;
}

const LARGEST = 25 * 1024 * 1024;
/** Senders at once, so that what they send in all is bounded as well; each has so many milliseconds for a letter. */
const MOST_CLIENTS = 20;
const LONGEST = 120_000;

export interface MailDoor {
  readonly port: number;
  close(): Promise<void>;
}

/**
 * Takes letters in over SMTP (RFC 5321) for the addresses people were given, and for no other; answered with 250 only
 * when the letter is in the database. Each becomes a job, as if its file had been uploaded.
 */
export async function openMailDoor(
  context: Context,
  { port, host, domain }: { port: number; host: string; domain: string },
): Promise<MailDoor> {
  const { db } = context;
  const ownerOf = ({ address }: SMTPServerAddress): string | undefined => {
    const at = address.lastIndexOf('@');
    return address.slice(at + 1).toLowerCase() === domain.toLowerCase()
      ? ownerOfLocal(db, address.slice(0, at).toLowerCase())
      : undefined;
  };
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: LARGEST,
    maxClients: MOST_CLIENTS,
    socketTimeout: 60_000,
    closeTimeout: 5_000,
    disableReverseLookup: true,
    banner: 'Avrelle',
    logger: false,
    onRcptTo: (address, _session, done) =>
      ownerOf(address) ? done() : done(refusal(550, `No letters are taken in for ${address.address}.`)),
    onData: (stream, session, done) => {
      const parts: Buffer[] = [];
      // One that is sent a byte a minute would never end.
      const timer = setTimeout(
        () => stream.destroy(refusal(421, 'The letter took too long; send it again later.')),
        LONGEST,
      );
      stream.on('close', () => clearTimeout(timer));
      stream.on('data', (part: Buffer) => {
        if (!stream.sizeExceeded) parts.push(part);
      });
      stream.on('error', (error) => done(error));
      stream.on('end', () => {
        if (stream.sizeExceeded) return done(refusal(552, `The letter is larger than ${LARGEST / 1024 / 1024} MB.`));
        try {
          receive(
            context,
            Buffer.concat(parts),
            session.envelope.rcptTo.flatMap((to) => ownerOf(to) ?? []),
          );
          done(null);
        } catch (error) {
          console.error('a letter could not be stored:', error);
          done(refusal(451, 'The letter could not be stored; send it again later.'));
        }
      });
    },
  });
  server.on('error', (error) => console.error('mail:', error.message));
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => resolve());
  });
  return {
    port: (server.server.address() as { port: number }).port,
    close: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

const refusal = (responseCode: number, message: string): Error => Object.assign(new Error(message), { responseCode });

function receive({ db, now, newId, jobs, events }: Context, letter: Buffer, owners: readonly string[]): void {
  db.transaction(() => {
    const hash = storeBlob(db, letter, 'message/rfc822');
    for (const personId of new Set(owners)) {
      const id = newId();
      insertJob(
        db,
        {
          id,
          personId,
          label: subjectOf(letter),
          uploadHash: hash,
          input: {
            origin: { type: 'file', name: 'letter.eml' },
            target: { type: 'source', sourceId: newId(), tags: [] },
          },
        },
        now(),
      );
      events.append({ type: 'job', personId, jobId: id });
    }
  });
  jobs.kick();
}

/** For the job's label, until the letter is read; an encoded subject waits for that. */
function subjectOf(letter: Buffer): string {
  const subject =
    /^subject:[ \t]*(.+)$/im
      .exec(
        letter
          .subarray(0, 16_384)
          .toString('latin1')
          .split(/\r?\n\r?\n/)[0] ?? '',
      )?.[1]
      ?.trim() ?? '';
  return !subject || subject.includes('=?') ? 'A letter' : subject.slice(0, 200);
}
