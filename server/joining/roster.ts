import Papa from 'papaparse';
import { rosterClasses, rosterOf, type Roster, type Rows } from '@avrelle/core/class';
import {
  MOST_ON_ROSTER,
  type ClassId,
  type JoinLink,
  type PersonId,
  type RosterPerson,
  type RosterPreview,
  type RosterState,
} from '@avrelle/core/wire';
import { isMember } from '../access/access-queries';
import { personByEmail } from '../accounts/queries';
import type { Context } from '../context';
import { AppError } from '../errors';
import { decodeText } from '../ingest/decode-text';
import { unzip } from '../ingest/unzip';
import { takeIn } from './join';
import { linkToken } from './link-token';
import { insertLink, linkFor, linkOf } from './queries';

/** The link of somebody whom a list named works for so many days. */
const LINK_DAYS = 60;
/** Of a OneRoster bundle: that of a school, since it is read while others wait. */
const LIMITS = { entries: 100, bytes: 10 * 1024 * 1024 };
const MOST_ROWS = 10_000;
const TABLES = ['classes', 'users', 'enrollments'] as const;
const NAME = 'The list';

type World = Pick<Context, 'db' | 'now'>;

/**
 * Who stands in a file, a list (CSV) or a OneRoster bundle in a zip archive, and what they are here. Throws
 * `no_people_listed`, `too_many_people`, and what reading it throws.
 */
export async function readRoster(world: World, classId: ClassId, bytes: Uint8Array): Promise<RosterPreview> {
  const isArchive = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const found = isArchive ? await readBundle(bytes, world.now()) : readList(bytes);
  if (found.length === 0) throw new AppError('no_people_listed', {}, { field: 'file' });
  mustFit(Math.max(...found.map(({ roster }) => roster.people.length)), MOST_ON_ROSTER);
  return {
    classes: found.map(({ key, title, roster }) => ({
      key,
      title,
      people: roster.people.map((one) => ({ ...one, state: stateOf(world, classId, one) })),
      leftOut: roster.leftOut,
    })),
  };
}

function mustFit(rows: number, limit: number): void {
  if (rows > limit) throw new AppError('too_many_people', { limit }, { field: 'file' });
}

interface Found {
  readonly key: string;
  readonly title: string;
  readonly roster: Roster;
}

function readList(bytes: Uint8Array): Found[] {
  const { data } = Papa.parse<string[]>(decodeText(bytes, NAME));
  mustFit(data.length, MOST_ROWS);
  const roster = rosterOf(data);
  return roster ? [{ key: '', title: '', roster }] : [];
}

async function readBundle(bytes: Uint8Array, now: string): Promise<Found[]> {
  const files = await unzip(bytes, NAME, LIMITS);
  const [classes, users, enrollments] = TABLES.map((name) => rowsOf(files, `${name}.csv`));
  if (!classes || !users || !enrollments) return [];
  mustFit(Math.max(classes.length, users.length, enrollments.length), MOST_ROWS);
  return rosterClasses({ classes, users, enrollments }, now.slice(0, 10));
}

/** A table of a bundle, in whatever folder of it. */
function rowsOf(files: ReadonlyMap<string, Uint8Array>, name: string): Rows | undefined {
  const found = [...files].find(([path]) => path.split('/').at(-1)?.toLowerCase() === name);
  return (
    found &&
    Papa.parse<Record<string, string>>(decodeText(found[1], name), { header: true, skipEmptyLines: 'greedy' }).data
  );
}

const accountOf = ({ db }: World, email: string): PersonId | undefined => {
  const found = personByEmail(db, email);
  return found && found.suspendedAt === null ? found.id : undefined;
};

function stateOf(world: World, classId: ClassId, { email }: Pick<RosterPerson, 'email'>): RosterState {
  const { db, now } = world;
  const account = accountOf(world, email);
  if (account !== undefined) return isMember(db, classId, account) ? 'member' : 'known';
  return linkFor(db, classId, email, now()) ? 'invited' : 'new';
}

/** Takes in who has an account, and gives everybody else a link of their own, or the one they have. */
export function addRoster(
  context: Context,
  { classId, by }: { readonly classId: ClassId; readonly by: PersonId },
  people: readonly RosterPerson[],
): { readonly added: number; readonly invited: JoinLink[] } {
  let added = 0;
  const invited: JoinLink[] = [];
  for (const one of people) {
    const personId = accountOf(context, one.email);
    if (personId === undefined) invited.push(inviteByLink(context, { classId, by }, one));
    else if (takeIn(context, { classId, personId, role: one.role })) added++;
  }
  return { added, invited };
}

function inviteByLink(
  { db, now, newId }: Context,
  { classId, by }: { readonly classId: ClassId; readonly by: PersonId },
  { name, email, role }: RosterPerson,
): JoinLink {
  const at = now();
  const known = linkFor(db, classId, email, at);
  if (known) return known;
  const id = newId();
  const expiresAt = new Date(Date.parse(at) + LINK_DAYS * 86_400_000).toISOString();
  // Nobody becomes a teacher by a link: who helps to teach sees them all.
  const as = role === 'teacher' ? 'assistant' : role;
  const whose = { token: linkToken(), forWhom: name, email, role: as, madeBy: by };
  insertLink(db, { id, classId, ...whose, madeAt: at, expiresAt, most: 1 });
  return linkOf(db, classId, id)!;
}
