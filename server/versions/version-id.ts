import type { SourceId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { versionNumbered } from './queries';

/** The version of a source by its number; null for the newest, where no number is named. Throws `not_found`. */
export function versionIdOf(db: Db, sourceId: SourceId, number: string | undefined): string | null {
  if (number === undefined) return null;
  const found = versionNumbered(db, sourceId, Number(number));
  if (!found) throw new AppError('not_found', { what: 'version' });
  return found;
}
