import type { ClassId } from '@avrelle/core/wire';
import type { Db } from '../db/database';
import { AppError } from '../errors';
import { archivedClass } from './queries';

/** Throws `class_archived` where a class is only looked at. */
export function mustNotBeArchived(db: Db, classId: ClassId): void {
  const className = archivedClass(db, classId);
  if (className !== undefined) throw new AppError('class_archived', { className }, { field: 'classIds' });
}
