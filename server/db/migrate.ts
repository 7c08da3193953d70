import fs from 'node:fs';
import type { Db } from './database';

const FOLDER = new URL('./migrations/', import.meta.url);
const NAME = /^(\d{3})-[a-z0-9-]+\.sql$/;

export interface Migration {
  readonly number: number;
  readonly sql: string;
}

/** The numbered SQL files, in order. Throws when a number is missing or used twice. */
export function readMigrations(folder: URL = FOLDER): readonly Migration[] {
  const found = fs
    .readdirSync(folder)
    .filter((name) => NAME.test(name))
    .sort()
    .map((name) => ({ number: Number(name.slice(0, 3)), sql: fs.readFileSync(new URL(name, folder), 'utf8') }));
  found.forEach((migration, index) => {
    if (migration.number !== index + 1)
      throw new Error(`Migration ${index + 1} is missing or not the only one: found number ${migration.number}.`);
  });
  return found;
}

export const schemaVersion = (db: Db): number => Number(db.raw.pragma('user_version', { simple: true }));

/**
 * Brings the database up to the newest schema, each step in a transaction of its own. Foreign keys rest meanwhile, so
 * that a table can be made anew (SQLite, "Making Other Kinds Of Table Schema Changes"), and are checked at the end of
 * each step. Returns the version reached.
 */
export function migrate(db: Db, migrations = readMigrations()): number {
  const at = schemaVersion(db);
  if (at > migrations.length)
    throw new Error(
      `The database has schema ${at}, this program knows up to ${migrations.length}: start the newer program it was written by.`,
    );
  db.raw.pragma('foreign_keys = OFF');
  try {
    for (const { number, sql } of migrations.slice(at)) {
      db.transaction(() => {
        db.raw.exec(sql);
        const broken = db.raw.pragma('foreign_key_check') as { table: string }[];
        if (broken.length)
          throw new Error(
            `Migration ${number} leaves ${broken.length} rows of ${broken[0]!.table} without what they refer to.`,
          );
        db.raw.pragma(`user_version = ${number}`);
      });
    }
  } finally {
    db.raw.pragma('foreign_keys = ON');
  }
  return migrations.length;
}
