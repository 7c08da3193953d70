import type { Clock } from '../context';
import type { Db } from '../db/database';

export type EventType = 'annotation' | 'library' | 'desk' | 'classes' | 'job';

export interface NewEvent {
  readonly type: EventType;
  readonly personId?: string;
  readonly sourceId?: string;
  readonly annotationId?: string;
  readonly classId?: string;
  readonly jobId?: string;
  /** Classes the annotation was for before the change: their members are told when it is gone. */
  readonly formerClasses?: readonly string[];
}

export interface EventRow {
  readonly seq: number;
  readonly type: EventType;
  readonly person_id: string | null;
  readonly source_id: string | null;
  readonly annotation_id: string | null;
  readonly class_id: string | null;
  readonly job_id: string | null;
  readonly former_classes: string | null;
}

const APPEND = 'INSERT INTO event (at, type, person_id, source_id, annotation_id, class_id, job_id, former_classes) VALUES (?, ?, ?, ?, ?, ?, ?, ?)';
const SINCE = 'SELECT seq, type, person_id, source_id, annotation_id, class_id, job_id, former_classes FROM event WHERE seq > ? ORDER BY seq LIMIT ?';
const NEWEST = 'SELECT coalesce(max(seq), 0) AS seq FROM event';

export type Listener = (events: readonly EventRow[]) => void;

/** The append-only event table, and whoever listens to it. */
export class EventLog {
  private readonly listeners = new Set<Listener>();
  private delivered: number;
  private scheduled = false;

  constructor(private readonly db: Db, private readonly now: Clock) {
    this.delivered = this.newest();
  }

  /** Part of the caller's transaction: listeners hear of it only after that is committed. */
  append(event: NewEvent): void {
    this.db.run(APPEND, this.now(), event.type, event.personId ?? null, event.sourceId ?? null, event.annotationId ?? null, event.classId ?? null, event.jobId ?? null, event.formerClasses?.length ? JSON.stringify(event.formerClasses) : null);
    if (this.scheduled) return;
    this.scheduled = true;
    setImmediate(() => this.deliver());
  }

  since(seq: number, limit: number): readonly EventRow[] {
    return this.db.all<EventRow>(SINCE, seq, limit);
  }

  newest(): number {
    return this.db.get<{ seq: number }>(NEWEST)!.seq;
  }

  subscribe(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  private deliver(): void {
    this.scheduled = false;
    if (!this.db.raw.open) return;
    const events = this.since(this.delivered, 1000);
    this.delivered = events.at(-1)?.seq ?? this.delivered;
    if (events.length) for (const listener of this.listeners) listener(events);
  }
}
