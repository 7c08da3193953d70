import type { Clock } from '../clock';
import type { Db } from '../db/database';
import { epochOf } from '../db/epoch';
import { appendEvent, eventsSince, newestSeq, type EventRow, type NewEvent } from './queries';

export interface Listener {
  hear(events: readonly EventRow[]): void;
  /** Another database has taken this one's place: nothing heard so far holds any more. */
  restart(): void;
}

/** As many events as are read from the table at once; the rest follows right after. */
const AT_ONCE = 1_000;
/** How often it is looked whether another program has put another database in this one's place, in milliseconds. */
const WATCH = 1_000;

/** The append-only event table, and whoever listens to it. */
export class EventLog {
  private readonly listeners = new Set<Listener>();
  private delivered: number;
  private epoch: string;
  private seen: number;
  private scheduled = false;
  private readonly watch: NodeJS.Timeout;

  constructor(
    private readonly db: Db,
    private readonly now: Clock,
  ) {
    this.epoch = epochOf(db);
    this.seen = this.foreignChanges();
    this.delivered = newestSeq(db);
    this.watch = setInterval(() => this.look(), WATCH).unref();
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

  /** Where the log stands: what a stream is taken up after. */
  cursor(seq = newestSeq(this.db)): string {
    return `${this.epoch}-${seq}`;
  }

  /** The number in a cursor; undefined for one of another database, or of none. */
  seqOf(cursor: string): number | undefined {
    const [epoch, seq = ''] = cursor.split('-');
    return epoch === this.epoch && /^\d{1,15}$/.test(seq) ? Number(seq) : undefined;
  }

  subscribe(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  close(): void {
    clearInterval(this.watch);
  }

  /** Notices a restored backup. Public for whoever cannot wait for the next look. */
  look(): void {
    if (!this.db.raw.open || this.db.raw.inTransaction) return;
    const changes = this.foreignChanges();
    if (changes === this.seen) return;
    this.seen = changes;
    const epoch = epochOf(this.db);
    if (epoch === this.epoch) return;
    this.epoch = epoch;
    this.delivered = newestSeq(this.db);
    for (const listener of [...this.listeners]) listener.restart();
  }

  /** Changes whenever another connection has written (SQLite, PRAGMA data_version). */
  private foreignChanges(): number {
    return Number(this.db.raw.pragma('data_version', { simple: true }));
  }

  private deliver(): void {
    this.scheduled = false;
    if (!this.db.raw.open) return;
    this.look();
    const events = this.since(this.delivered, AT_ONCE);
    if (events.length === 0) return;
    this.delivered = events.at(-1)!.seq;
    for (const listener of [...this.listeners]) listener.hear(events);
    if (events.length < AT_ONCE) return;
    this.scheduled = true;
    setImmediate(() => this.deliver());
  }
}
