import type { PersonId } from '@avrelle/core/wire';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Entry } from './write';

/** Where writes wait, in their order, across windows and restarts. */
export interface OutboxStore {
  /** Resolves once the entry would outlive the window. */
  add(entry: NewEntry): Promise<Entry>;
  /** All that a person has waiting, oldest first. */
  all(personId: PersonId): Promise<readonly Entry[]>;
  put(entry: Entry): Promise<void>;
  remove(seq: number): Promise<void>;
}

interface Schema extends DBSchema {
  writes: { key: number; value: Entry; indexes: { person: string } };
}

type NewEntry = Omit<Entry, 'seq'>;
type Database = IDBPDatabase<Schema>;

/** Where a window that goes before its database has answered leaves what it was just told, under each entry's key. */
const LAST_WORDS = 'avrelle.outbox.';

/** In IndexedDB. A window that is closed or loaded anew takes with it what the database has not finished storing: that is left beside it, and taken in by the next window. */
export class StoredOutbox implements OutboxStore {
  private readonly db: Promise<Database>;
  private readonly onTheWay = new Map<string, NewEntry>();

  constructor(name = 'avrelle') {
    this.db = openDB<Schema>(name, 1, {
      upgrade(db) {
        db.createObjectStore('writes', { keyPath: 'seq', autoIncrement: true }).createIndex('person', 'personId');
      },
    }).then(restoreLastWords);
    this.db.catch(() => undefined);
    addEventListener('pagehide', () => {
      for (const [key, entry] of this.onTheWay) localStorage.setItem(LAST_WORDS + key, JSON.stringify(entry));
    });
  }

  async add(entry: NewEntry): Promise<Entry> {
    this.onTheWay.set(entry.key, entry);
    try {
      const seq = await (await this.db).add('writes', entry as Entry);
      // A window that was only put aside goes on here.
      localStorage.removeItem(LAST_WORDS + entry.key);
      return { ...entry, seq };
    } finally {
      this.onTheWay.delete(entry.key);
    }
  }

  async all(personId: PersonId): Promise<readonly Entry[]> {
    return (await this.db).getAllFromIndex('writes', 'person', personId);
  }

  async put(entry: Entry): Promise<void> {
    await (await this.db).put('writes', entry);
  }

  async remove(seq: number): Promise<void> {
    await (await this.db).delete('writes', seq);
  }
}

/** What is no entry was written by nobody of ours, and must not hold up the others. */
function lastWords(name: string): NewEntry | undefined {
  try {
    return JSON.parse(localStorage.getItem(name)!) as NewEntry;
  } catch {
    return undefined;
  }
}

async function restoreLastWords(db: Database): Promise<Database> {
  for (const name of Object.keys(localStorage).filter((key) => key.startsWith(LAST_WORDS))) {
    const entry = lastWords(name);
    if (!entry) continue;
    const stored = await db.getAllFromIndex('writes', 'person', entry.personId);
    if (!stored.some(({ key }) => key === entry.key)) await db.add('writes', entry as Entry);
    localStorage.removeItem(name);
  }
  return db;
}

/** For browsers that store nothing, and for tests. */
export class MemoryOutbox implements OutboxStore {
  private entries: readonly Entry[] = [];
  private last = 0;

  add(entry: NewEntry): Promise<Entry> {
    const added = { ...entry, seq: (this.last += 1) };
    this.entries = [...this.entries, added];
    return Promise.resolve(added);
  }

  all(personId: PersonId): Promise<readonly Entry[]> {
    return Promise.resolve(this.entries.filter((e) => e.personId === personId));
  }

  put(entry: Entry): Promise<void> {
    this.entries = this.entries.map((e) => (e.seq === entry.seq ? entry : e));
    return Promise.resolve();
  }

  remove(seq: number): Promise<void> {
    this.entries = this.entries.filter((e) => e.seq !== seq);
    return Promise.resolve();
  }
}

/** The stored queue; where the browser refuses to store, one that lasts as long as the window. */
export class SafeOutbox implements OutboxStore {
  private readonly memory = new MemoryOutbox();
  constructor(private readonly stored: OutboxStore) {}

  async add(entry: NewEntry): Promise<Entry> {
    return this.stored.add(entry).catch(async () => {
      const kept = await this.memory.add(entry);
      return { ...kept, seq: -kept.seq };
    });
  }

  async all(personId: PersonId): Promise<readonly Entry[]> {
    const memory = (await this.memory.all(personId)).map((e) => ({ ...e, seq: -Math.abs(e.seq) }));
    return [...(await this.stored.all(personId).catch(() => [])), ...memory];
  }

  put(entry: Entry): Promise<void> {
    return entry.seq < 0 ? this.memory.put({ ...entry, seq: -entry.seq }) : this.stored.put(entry);
  }

  remove(seq: number): Promise<void> {
    return seq < 0 ? this.memory.remove(-seq) : this.stored.remove(seq);
  }
}
