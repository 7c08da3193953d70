import Sqlite from 'better-sqlite3';
import { folded, spaced } from './spaced';
import { Statement, type Params } from './statement';

/** The one database file, with its statements prepared once each. Columns come as `sourceId`, however SQL spells them. */
export interface Db {
  all<Row>(sql: string, ...params: Params): Row[];
  get<Row>(sql: string, ...params: Params): Row | undefined;
  /** Returns the number of rows changed. */
  run(sql: string, ...params: Params): number;
  /** Takes the right to write at its beginning: what it has read cannot be changed by another thread before it writes. */
  transaction<T>(work: () => T): T;
  readonly raw: Sqlite.Database;
  close(): void;
}

/** Searches make statements of their own; those that are asked again are kept. */
const MOST_STATEMENTS = 1_000;

/** Opens a database file (or `:memory:`), in WAL mode, durable at every commit. */
export function openDatabase(path: string): Db {
  const raw = new Sqlite(path);
  raw.pragma('journal_mode = WAL');
  raw.pragma('synchronous = FULL');
  raw.pragma('foreign_keys = ON');
  // What is deleted is overwritten within its page; whole pages that are freed are by `forGood`.
  raw.pragma('secure_delete = FAST');
  raw.pragma('busy_timeout = 5000');
  raw.pragma('cache_size = -65536');
  // Read where it lies: searches go over thousands of rows of more pages than the cache holds.
  raw.pragma('mmap_size = 1073741824');
  raw.function('spaced', { deterministic: true }, (text) => spaced(String(text)));
  raw.function('folded', { deterministic: true }, (text) => folded(String(text)));
  const statements = new Map<string, Statement>();
  const prepared = (sql: string): Statement => {
    let statement = statements.get(sql);
    if (!statement) {
      if (statements.size === MOST_STATEMENTS) statements.clear();
      statements.set(sql, (statement = new Statement(raw.prepare(sql))));
    }
    return statement;
  };
  return {
    all: <Row>(sql: string, ...params: Params) => prepared(sql).all(params) as Row[],
    get: <Row>(sql: string, ...params: Params) => prepared(sql).get(params) as Row | undefined,
    run: (sql, ...params) => prepared(sql).run(params),
    transaction: (work) => raw.transaction(work).immediate(),
    raw,
    close: () => raw.close(),
  };
}
