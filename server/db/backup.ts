import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import Sqlite from 'better-sqlite3';
import { openDatabase } from './database';
import { epochOf, setEpoch } from './epoch';
import { migrate } from './migrate';

/** How long `restore` waits for a moment in which nobody writes, in milliseconds. */
const PATIENCE = 30_000;

/** Copies the database to a file, whole and consistent, while others write to it. Refuses to overwrite. */
export async function backup(databasePath: string, target: string): Promise<void> {
  if (!fs.existsSync(databasePath))
    throw new Error(`There is no database at ${databasePath}: set AVRELLE_DATA to the file the server uses.`);
  if (fs.existsSync(target)) throw new Error(`${target} exists already: choose another name, nothing was overwritten.`);
  await copy(databasePath, target, PATIENCE);
}

/**
 * Replaces the database's content by a backup's, also under a running server and while people write: all of it in one
 * transaction, or nothing. The copy is brought up to the newest schema and given an epoch of its own before, by which a
 * running server notices, has all pages start anew, and by which the result is verified.
 */
export async function restore(databasePath: string, from: string, patience = PATIENCE): Promise<void> {
  if (!fs.existsSync(from)) throw new Error(`There is no file ${from}.`);
  check(from);
  const staged = `${databasePath}.restoring-${process.pid}`;
  const epoch = randomBytes(8).toString('hex');
  try {
    await copy(from, staged, patience);
    const db = openDatabase(staged);
    try {
      migrate(db);
      setEpoch(db, epoch);
      // One file without a log beside it, which the copy below would not read.
      db.raw.pragma('journal_mode = DELETE');
    } finally {
      db.close();
    }
    await copy(staged, databasePath, patience);
  } finally {
    for (const end of ['', '-wal', '-shm', '-journal']) fs.rmSync(`${staged}${end}`, { force: true });
  }
  const there = new Sqlite(databasePath, { readonly: true });
  try {
    if (epochOf({ get: (sql, ...values) => there.prepare(sql).get(...values) as never }) !== epoch)
      throw new Error(
        'The backup did not take the place of the database, which is as it was: stop the server and restore again.',
      );
  } finally {
    there.close();
  }
}

function check(path: string): void {
  try {
    const db = new Sqlite(path, { readonly: true });
    const found = db.pragma('integrity_check', { simple: true });
    const isOurs = db.prepare("SELECT 1 FROM sqlite_master WHERE type = 'view' AND name = 'annotation_visible'").get();
    db.close();
    if (found !== 'ok') throw new Error(String(found));
    if (!isOurs) throw new Error('it holds other tables');
  } catch (cause) {
    throw new Error(`${path} is not an intact Avrelle backup (${(cause as Error).message}): nothing was changed.`, {
      cause,
    });
  }
}

/**
 * All pages in one step, since others may write between two. While somebody else holds the target nothing is copied at
 * all, which the driver does not tell from having finished: a database has at least one page, so then it is tried again.
 */
async function copy(from: string, to: string, patience: number): Promise<void> {
  const db = new Sqlite(from, { fileMustExist: true });
  try {
    for (const end = Date.now() + patience; ;) {
      const { totalPages } = await db.backup(to, { progress: () => 0x7fffffff });
      if (totalPages > 0) return;
      if (Date.now() > end)
        throw new Error(`${to} is written to without a pause, and nothing was changed: stop the server and try again.`);
      await new Promise((next) => setTimeout(next, 5));
    }
  } finally {
    db.close();
  }
}
