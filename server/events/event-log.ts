import type { Clock } from '../context';
import type { Db } from '../db/database';
import { appendEvent, eventsSince, newestSeq, type EventRow, type NewEvent } from './queries';

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
    appendEvent(this.db, event, this.now());
    if (this.scheduled) return;
    this.scheduled = true;
    setImmediate(() => this.deliver());
  }

  since(seq: number, limit: number): readonly EventRow[] {
    return eventsSince(this.db, seq, limit);
  }

  newest(): number {
    return newestSeq(this.db);
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
