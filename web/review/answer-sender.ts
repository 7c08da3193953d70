import type { CardId } from '@avrelle/core/wire';
import type { CardRating } from '@avrelle/core/review';

/** What was answered, or taken back, and is not stored yet. Its key orders it among others. */
export type Waiting =
  | {
      readonly type: 'answer';
      readonly key: string;
      readonly cardId: CardId;
      readonly id: string;
      readonly rating: CardRating;
      readonly seen: number;
      readonly at: string;
    }
  | { readonly type: 'back'; readonly key: string; readonly cardId: CardId; readonly id: string };

/** `offline`: tried again; `refused`: it no longer counts, as the card was answered elsewhere or is gone. */
export type Outcome = 'stored' | 'offline' | 'refused';

export interface SenderWorld {
  send(waiting: Waiting): Promise<Outcome>;
  /** Keeps it on this computer until it is stored. */
  keep(waiting: Waiting): void;
  drop(waiting: Waiting): void;
  /** Calls back when it may be tried again; gives what calls that off. */
  later(run: () => void): () => void;
  /** How many wait has changed, or one was stored. */
  changed(): void;
}

/** Sends answers one after the other, in the order in which they were given; nobody waits for it. */
export class AnswerSender {
  private readonly queue: Waiting[];
  private isSending = false;
  private isOver = false;
  private callOff: (() => void) | undefined;
  /** Whether the last attempt found no connection. */
  isOffline = false;

  /** `kept` is what former visits left. */
  constructor(
    private readonly world: SenderWorld,
    kept: readonly Waiting[],
  ) {
    this.queue = kept.toSorted((a, b) => (a.key < b.key ? -1 : 1));
    void this.run();
  }

  get waiting(): number {
    return this.queue.length;
  }

  add(waiting: Waiting): void {
    this.world.keep(waiting);
    this.queue.push(waiting);
    void this.run();
  }

  /** Nothing more is sent from here; what waits is kept. */
  end(): void {
    this.isOver = true;
    this.callOff?.();
  }

  private async run(): Promise<void> {
    if (this.isSending || this.isOver) return;
    this.isSending = true;
    for (let next = this.queue[0]; next && !this.isOver; next = this.queue[0]) {
      const outcome = await this.world.send(next);
      this.isOffline = outcome === 'offline';
      if (outcome === 'offline') break;
      this.queue.shift();
      this.world.drop(next);
      this.world.changed();
    }
    this.isSending = false;
    if (this.queue.length === 0 || this.isOver) return;
    this.world.changed();
    this.callOff?.();
    this.callOff = this.world.later(() => void this.run());
  }
}
