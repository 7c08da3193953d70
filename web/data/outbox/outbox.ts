import type { Annotation, PersonId, SourceId } from '@avrelle/core/wire';
import { isOffline, ProblemError } from '../api';
import { rebase } from './rebase';
import type { OutboxStore } from './store';
import { idsOf, type AnnotationChange, type Entry, type Send, type Write } from './write';

export interface OutboxWorld {
  readonly store: OutboxStore;
  readonly send: Send;
  readonly newKey: () => string;
  /** Does work while no other window does the same; the queue is sent by one at a time. */
  readonly alone: (work: () => Promise<void>) => Promise<void>;
  /** Resolves when it is worth to try again. */
  readonly pause: (tries: number) => Promise<void>;
  /** Tells other windows what became of an entry. */
  readonly announce: (ended: Ended) => void;
  /** An entry of another window or an earlier visit has ended: nobody in this window waits for its answer. */
  readonly fromBefore: (entry: Entry) => void;
  /** Keeps the words of what was refused, wherever it was written. */
  readonly refused: (entry: Entry, error: ProblemError, mine: boolean) => void;
  /** Writes wait for a connection, or no longer do. */
  readonly waiting: (waits: boolean) => void;
}

export type Ended =
  | { readonly key: string; readonly type: 'held'; readonly annotations: readonly Annotation[] }
  | { readonly key: string; readonly type: 'refused'; readonly problem: ProblemError['problem'] };

interface Waiting {
  readonly resolve: (annotations: readonly Annotation[]) => void;
  readonly reject: (error: ProblemError) => void;
}

/** Tries of a write at which the server breaks before it counts as refused: it would hold up all others. */
const MOST_TRIES = 6;

/**
 * Writes on their way to the server: stored first, then sent once and in their order, by whichever window has the queue,
 * also after a restart. What was changed elsewhere meanwhile is joined where both fit; else it is refused with both.
 */
export class Outbox {
  private readonly waiters = new Map<string, Waiting>();
  /** Versions that this window's own writes went on from, and where they led. */
  private readonly led = new Map<string, { readonly from: Set<number>; to: number }>();
  private readonly tab: string;
  private personId: string | undefined;
  private waits = false;
  private busy = false;
  private more = false;

  constructor(private readonly world: OutboxWorld) {
    this.tab = world.newKey();
  }

  /** Sends what this person has waiting, from earlier visits as well. */
  resume(personId: PersonId | undefined): void {
    if (personId !== this.personId) this.wait(false);
    this.personId = personId;
    void this.drain();
  }

  /** Rejects with what the server refused; as long as it does not answer, waits. */
  async add(sourceId: SourceId, write: Write): Promise<readonly Annotation[]> {
    const { personId } = this;
    if (personId === undefined) throw new Error('A write needs somebody who is signed in.');
    const key = this.world.newKey();
    const ended = new Promise<readonly Annotation[]>((resolve, reject) => this.waiters.set(key, { resolve, reject }));
    ended.catch(() => undefined);
    await this.world.store.add({ key, personId, sourceId, tab: this.tab, write: this.onOwn(write) });
    void this.drain();
    return ended;
  }

  /** Whether something waits for a connection. */
  get isWaiting(): boolean {
    return this.waits;
  }

  private wait(waits: boolean): void {
    if (waits === this.waits) return;
    this.waits = waits;
    this.world.waiting(waits);
  }

  /** What another window announced. */
  heard(ended: Ended): void {
    const waiting = this.waiters.get(ended.key);
    this.waiters.delete(ended.key);
    if (ended.type === 'held') {
      for (const { id, version } of ended.annotations) if (waiting) this.lead(id, version);
      waiting?.resolve(ended.annotations);
    } else waiting?.reject(new ProblemError(ended.problem));
  }

  /** A change begun before an own earlier one had come back goes on from that. */
  private onOwn(write: Write): Write {
    if (write.type !== 'change') return write;
    return {
      ...write,
      changes: write.changes.map((change) => {
        const led = this.led.get(change.id);
        return led?.from.has(change.version) ? { ...change, version: led.to } : change;
      }),
    };
  }

  private lead(id: string, to: number, from?: number): void {
    const led = this.led.get(id) ?? { from: new Set([0]), to };
    led.from.add(led.to);
    if (from !== undefined) led.from.add(from);
    led.from.delete(to);
    led.to = to;
    this.led.set(id, led);
  }

  private async drain(): Promise<void> {
    if (this.busy) {
      this.more = true;
      return;
    }
    this.busy = true;
    try {
      do {
        this.more = false;
        await this.world.alone(() => this.sendAll());
      } while (this.more);
    } finally {
      this.busy = false;
    }
  }

  private async sendAll(): Promise<void> {
    for (;;) {
      const { personId } = this;
      const [entry] = personId === undefined ? [] : await this.world.store.all(personId);
      if (!entry || !(await this.sendOne(entry))) return;
    }
  }

  /** False where nothing more can be sent until somebody signs in. */
  private async sendOne(entry: Entry): Promise<boolean> {
    for (let tries = 0; ; tries++) {
      try {
        const annotations = await this.sent(entry.write);
        this.wait(false);
        await this.goOn(entry, annotations);
        this.end(entry, { key: entry.key, type: 'held', annotations });
        return true;
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        if (error.problem.code === 'signed_out') return false;
        if (!isPassing(error, tries)) {
          this.wait(false);
          await this.dropWith(entry);
          this.world.refused(entry, error, entry.tab === this.tab);
          this.end(entry, { key: entry.key, type: 'refused', problem: error.problem });
          return true;
        }
        this.wait(true);
        await this.world.pause(tries);
      }
    }
  }

  /** What was to change something that was refused itself has nothing to change. */
  private async dropWith(entry: Entry): Promise<void> {
    const { store } = this.world;
    const [made] = entry.write.type === 'create' || entry.write.type === 'reply' ? idsOf(entry.write) : [];
    await store.remove(entry.seq);
    if (made === undefined) return;
    for (const later of await store.all(entry.personId)) {
      if (!idsOf(later.write).includes(made)) continue;
      await store.remove(later.seq);
      this.end(later, { key: later.key, type: 'held', annotations: [] });
    }
  }

  /** Changes of other windows are joined with those of this write, one annotation after the other. */
  private async sent(write: Write): Promise<readonly Annotation[]> {
    let now = write;
    for (let left = idsOf(write).length; ; left--) {
      try {
        return now.type === 'change' && now.changes.length === 0 ? [] : await this.world.send(now);
      } catch (error) {
        const current =
          error instanceof ProblemError && error.problem.code === 'stale'
            ? (error.problem.current as Annotation | undefined)
            : undefined;
        if (!current || now.type !== 'change' || left <= 0) throw error;
        const changes = now.changes.flatMap((change) =>
          change.id === current.id ? rebasedOn(change, current) : [change],
        );
        if (changes === undefined || changes.includes('conflict')) throw error;
        now = { type: 'change', changes: changes as AnnotationChange[] };
      }
    }
  }

  /** What was written in the same window after this write goes on from where it led. */
  private async goOn(entry: Entry, annotations: readonly Annotation[]): Promise<void> {
    const { store } = this.world;
    const versions = new Map(annotations.map((a) => [a.id, a.version]));
    const begun =
      entry.write.type === 'change'
        ? new Map(entry.write.changes.map((c) => [c.id, c.version]))
        : new Map<string, number>();
    if (entry.tab === this.tab) for (const { id, version } of annotations) this.lead(id, version, begun.get(id));
    for (const later of await store.all(entry.personId)) {
      const { write } = later;
      if (
        later.seq === entry.seq ||
        later.tab !== entry.tab ||
        write.type !== 'change' ||
        !write.changes.some((c) => versions.has(c.id))
      )
        continue;
      await store.put({
        ...later,
        write: { ...write, changes: write.changes.map((c) => ({ ...c, version: versions.get(c.id) ?? c.version })) },
      });
    }
    await store.remove(entry.seq);
  }

  private end(entry: Entry, ended: Ended): void {
    this.heard(ended);
    if (entry.tab === this.tab) return;
    this.world.announce(ended);
    this.world.fromBefore(entry);
  }
}

function rebasedOn(change: AnnotationChange, current: Annotation): (AnnotationChange | 'conflict')[] {
  const rebased = rebase(change.fields, change.before, current);
  if (rebased.type === 'conflict') return ['conflict'];
  return Object.keys(rebased.fields).length === 0
    ? []
    : [{ ...change, version: current.version, fields: rebased.fields }];
}

/** No connection, or a server that is busy or being started. */
function isPassing(error: ProblemError, tries: number): boolean {
  const { status } = error.problem;
  if (isOffline(error) || status === 429 || status === 503 || status === 502 || status === 504) return true;
  return status >= 500 && tries + 1 < MOST_TRIES;
}
