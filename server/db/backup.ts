import fs from 'node:fs';
import Sqlite from 'better-sqlite3';

/** Copies the database to a file, whole and consistent, while others write to it. Refuses to overwrite. */
export async function backup(databasePath: string, target: string): Promise<void> {
  if (!fs.existsSync(databasePath)) throw new Error(`There is no database at ${databasePath}: set AVRELLE_DATA to the file the server uses.`);
  if (fs.existsSync(target)) throw new Error(`${target} exists already: choose another name, nothing was overwritten.`);
  await copy(databasePath, target);
}

/** Replaces the database's content by a backup's, also under a running server, which sees it from its next statement on. */
export async function restore(databasePath: string, from: string): Promise<void> {
  if (!fs.existsSync(from)) throw new Error(`There is no file ${from}.`);
  check(from);
  await copy(from, databasePath);
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
    throw new Error(`${path} is not an intact Avrelle backup (${(cause as Error).message}): nothing was changed.`, { cause });
  }
}

async function copy(from: string, to: string): Promise<void> {
  const db = new Sqlite(from, { fileMustExist: true });
  try {
    await db.backup(to);
  } finally {
    db.close();
  }
}
