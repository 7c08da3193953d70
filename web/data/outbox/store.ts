import type { PersonId } from '@avrelle/core/wire';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Entry } from './write';

/** Where writes wait, in their order, across windows and restarts. */
export interface OutboxStore {
  /** Resolves once the entry would outlive the window. */
  add(entry: Omit<Entry, 'seq'>): Promise<Entry>;
  /** All that a person has waiting, oldest first. */
  all(personId: PersonId): Promise<readonly Entry[]>;
  put(entry: Entry): Promise<void>;
  remove(seq: number): Promise<void>;
}

interface Schema extends DBSchema {
  writes: { key: number; value: Entry; indexes: { person: string } };
}

/** In IndexedDB. */
export class StoredOutbox implements OutboxStore {
  private readonly db: Promise<IDBPDatabase<Schema>>;

  constructor(name = 'avrelle') {
    this.db = openDB<Schema>(name, 1, {
      upgrade(db) {
        db.createObjectStore('writes', { keyPath: 'seq', autoIncrement: true }).createIndex('person', 'personId');
      },
    });
    this.db.catch(() => undefined);
  }

  async add(entry: Omit<Entry, 'seq'>): Promise<Entry> {
    const seq = await (await this.db).add('writes', entry as Entry);
    return { ...entry, seq };
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

/** For browsers that store nothing, and for tests. */
export class MemoryOutbox implements OutboxStore {
  private entries: readonly Entry[] = [];
  private last = 0;

  add(entry: Omit<Entry, 'seq'>): Promise<Entry> {
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

  async add(entry: Omit<Entry, 'seq'>): Promise<Entry> {
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
