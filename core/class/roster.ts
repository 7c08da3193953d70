import { string } from 'yup';
import type { ClassRole } from '../wire/class';

/** Somebody on a roster. */
export interface Listed {
  /** Where they stand in the file, from 1. */
  readonly line: number;
  readonly name: string;
  /** In small letters. */
  readonly email: string;
  readonly role: ClassRole;
}

/** Why somebody on a roster is left out. */
export type LeftOutWhy = 'no_address' | 'bad_address' | 'no_name' | 'twice' | 'ended' | 'no_part';

export interface LeftOut {
  readonly line: number;
  /** As it stands in the file. */
  readonly words: string;
  readonly why: LeftOutWhy;
}

export interface Roster {
  readonly people: readonly Listed[];
  readonly leftOut: readonly LeftOut[];
}

/** Rows of a table by the names of its columns. */
export type Rows = readonly Readonly<Record<string, string>>[];

const LONGEST_NAME = 80;
const EMAIL = string().email().max(254);

/** How columns are called in lists of a school (common practice), without spaces and signs. */
const NAMES = {
  email: ['email', 'emailaddress', 'mail', 'address', 'username', 'login'],
  name: ['name', 'fullname', 'student', 'studentname', 'displayname', 'person'],
  first: ['first', 'firstname', 'givenname', 'forename', 'preferredfirstname'],
  last: ['last', 'lastname', 'familyname', 'surname'],
  role: ['role', 'as', 'type'],
} as const;
type Column = keyof typeof NAMES;

const ROLES: Readonly<Record<string, ClassRole>> = {
  '': 'student',
  student: 'student',
  learner: 'student',
  teacher: 'teacher',
  instructor: 'teacher',
  assistant: 'assistant',
  aide: 'assistant',
  proctor: 'assistant',
};

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}]/gu, '');
const isAddress = (text: string): boolean => text !== '' && EMAIL.isValidSync(text);

/**
 * Who stands in a table: by what its columns are called, or, where the first row names none, by which cell of a row is
 * an address. Undefined where no address is found at all.
 */
export function rosterOf(table: readonly (readonly string[])[]): Roster | undefined {
  const rows = table.map((cells) => cells.map((cell) => cell.trim()));
  const columns = columnsOf(rows[0] ?? []);
  if (columns.email === undefined && !rows.some((cells) => cells.some(isAddress))) return undefined;
  const isNamed = columns.email !== undefined;
  return collected(
    rows.flatMap((cells, n) => {
      if ((isNamed && n === 0) || cells.every((cell) => cell === '')) return [];
      return [{ line: n + 1, ...(isNamed ? byColumn(cells, columns) : byAddress(cells)) }];
    }),
  );
}

type Columns = Partial<Record<Column, number>>;
const columnsOf = (head: readonly string[]): Columns =>
  Object.fromEntries(
    Object.entries(NAMES).flatMap(([column, names]) => {
      const at = head.findIndex((cell) => (names as readonly string[]).includes(plain(cell)));
      return at < 0 ? [] : [[column, at]];
    }),
  );

interface Entry {
  readonly name: string;
  readonly email: string;
  readonly role: string;
  readonly isEnded?: boolean;
}

function byColumn(cells: readonly string[], columns: Columns): Entry {
  const cell = (column: Column): string => cells[columns[column] ?? -1] ?? '';
  return {
    name: cell('name') || [cell('first'), cell('last')].filter(Boolean).join(' '),
    email: cell('email'),
    role: cell('role'),
  };
}

function byAddress(cells: readonly string[]): Entry {
  const at = cells.findIndex((cell) => cell.includes('@'));
  return { name: cells.filter((cell, n) => n !== at && cell !== '').join(' '), email: cells[at] ?? '', role: '' };
}

/** Of two with the same address the first stays. */
function collected(entries: readonly (Entry & { readonly line: number })[]): Roster {
  const people: Listed[] = [];
  const leftOut: LeftOut[] = [];
  const known = new Set<string>();
  for (const { line, isEnded = false, ...entry } of entries) {
    const email = entry.email.toLowerCase();
    const name = entry.name.slice(0, LONGEST_NAME).trim();
    const role = ROLES[plain(entry.role)];
    const why = faultOf({ email, name, role, isEnded, isKnown: known.has(email) });
    if (why === undefined && role !== undefined) {
      known.add(email);
      people.push({ line, name, email, role });
    } else if (why !== undefined) {
      leftOut.push({ line, words: [entry.name, entry.email, entry.role].filter(Boolean).join(', '), why });
    }
  }
  return { people, leftOut };
}

interface Doubted {
  readonly email: string;
  readonly name: string;
  readonly role: ClassRole | undefined;
  readonly isEnded: boolean;
  readonly isKnown: boolean;
}

function faultOf({ email, name, role, isEnded, isKnown }: Doubted): LeftOutWhy | undefined {
  if (isEnded) return 'ended';
  if (role === undefined) return 'no_part';
  if (email === '') return 'no_address';
  if (!isAddress(email)) return 'bad_address';
  if (name === '') return 'no_name';
  return isKnown ? 'twice' : undefined;
}

/** The tables of a OneRoster bundle that say who is in which class. */
export interface RosterTables {
  readonly classes: Rows;
  readonly users: Rows;
  readonly enrollments: Rows;
}

export interface RosterClass {
  /** As the bundle knows it. */
  readonly key: string;
  readonly title: string;
  readonly roster: Roster;
}

/**
 * Each class of a OneRoster 1.2 bundle (1EdTech, CSV tables; columns from memory) with who is enrolled in it on a day
 * (`YYYY-MM-DD`). Lines are those of `enrollments.csv`, the first of which names the columns.
 */
export function rosterClasses({ classes, users, enrollments }: RosterTables, today: string): RosterClass[] {
  const people = new Map(users.map((user) => [user.sourcedId ?? '', user]));
  const entries = new Map<string, (Entry & { readonly line: number })[]>();
  enrollments.forEach((row, n) => {
    const { classSourcedId = '', userSourcedId = '' } = row;
    const entry = { line: n + 2, ...enrolled(row, people.get(userSourcedId), today) };
    const those = entries.get(classSourcedId);
    if (those) those.push(entry);
    else entries.set(classSourcedId, [entry]);
  });
  return classes
    .filter((row) => row.status !== 'tobedeleted')
    .map(({ sourcedId: key = '', title = '', classCode = '' }) => ({
      key,
      title: title || classCode || key,
      roster: collected(entries.get(key) ?? []),
    }));
}

function enrolled(row: Rows[number], user: Rows[number] = {}, today: string): Entry {
  return {
    name: nameOf(user) || (row.userSourcedId ?? ''),
    email: user.email ?? '',
    role: row.role ?? '',
    isEnded: isOver(row, today) || user.status === 'tobedeleted' || user.enabledUser === 'false',
  };
}

const nameOf = (user: Rows[number]): string =>
  [user.preferredFirstName || user.givenName, user.preferredLastName || user.familyName].filter(Boolean).join(' ');

const isOver = ({ status, beginDate = '', endDate = '' }: Rows[number], today: string): boolean =>
  status === 'tobedeleted' || (endDate !== '' && endDate < today) || beginDate > today;
