import type { ForClass } from '@avrelle/core/audience';
import type { AnnotationId, ClassId, GroupId, JobId, PersonId, SourceId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

export type EventType =
  | 'annotation'
  | 'source'
  | 'library'
  | 'desk'
  | 'threads'
  | 'questions'
  | 'walkthroughs'
  | 'study'
  | 'review'
  | 'live'
  | 'classes'
  | 'job'
  | 'arrivals'
  | 'key';

export interface NewEvent {
  readonly type: EventType;
  readonly personId?: PersonId;
  readonly sourceId?: SourceId;
  readonly annotationId?: AnnotationId;
  readonly classId?: ClassId;
  readonly jobId?: JobId;
  /** Who saw it before the change, and is told when it is gone. */
  readonly formerClasses?: readonly ForClass[];
}

export interface EventRow {
  readonly seq: number;
  readonly type: EventType;
  readonly personId: PersonId | null;
  readonly sourceId: SourceId | null;
  readonly annotationId: AnnotationId | null;
  readonly classId: ClassId | null;
  readonly jobId: JobId | null;
  readonly formerClasses: string | null;
}

const APPEND =
  'INSERT INTO event (at, type, person_id, source_id, annotation_id, class_id, job_id, former_classes) VALUES (?, ?, ?, ?, ?, ?, ?, ?)';
const SINCE =
  'SELECT seq, type, person_id, source_id, annotation_id, class_id, job_id, former_classes FROM event WHERE seq > ? ORDER BY seq LIMIT ?';
const NEWEST = 'SELECT coalesce(max(seq), 0) AS seq FROM event';

/** A class, of which all saw something, or only who teaches it or a group: nobody else learns that it was there. */
export interface Formerly {
  readonly classId: ClassId;
  readonly teachers: boolean;
  readonly groupId?: GroupId;
}
const formerly = ({ classId, teachersOnly, held, groupId }: ForClass): Formerly => ({
  classId,
  teachers: teachersOnly || held,
  ...(groupId === null ? {} : { groupId }),
});

export function appendEvent(db: Db, event: NewEvent, at: string): void {
  const former = event.formerClasses?.length ? JSON.stringify(event.formerClasses.map(formerly)) : null;
  db.run(
    APPEND,
    at,
    event.type,
    event.personId ?? null,
    event.sourceId ?? null,
    event.annotationId ?? null,
    event.classId ?? null,
    event.jobId ?? null,
    former,
  );
}

export const eventsSince = (db: Db, seq: number, limit: number): EventRow[] => db.all<EventRow>(SINCE, seq, limit);
export const newestSeq = (db: Db): number => db.get<{ seq: number }>(NEWEST)!.seq;

const REMOVE_OLD = 'DELETE FROM event WHERE at < ?';
export const removeOldEvents = (db: Db, before: string): number => db.run(REMOVE_OLD, before);
