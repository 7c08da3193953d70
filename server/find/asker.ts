import type { PersonId } from '@avrelle/core/wire';
/** Whoever asks, and what a search depends on besides its words. */
export interface Asker {
  readonly me: PersonId;
  /** Ids of the classes they are in. */
  readonly classes: readonly string[];
  /** Of these, those they teach. */
  readonly taught: readonly string[];
  /** The groups of classes they are in. */
  readonly groups: readonly string[];
  /** The day it is where they are, `YYYY-MM-DD`. */
  readonly today: string;
  /** How far their clocks are ahead of UTC, in minutes. */
  readonly ahead: number;
}
