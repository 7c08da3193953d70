import type { Db } from '../db/database';
import { AppError } from '../errors';
import { usedBy } from './room-queries';

/** For so long it is not counted anew: that takes a tenth of a second for a very large library. */
const KNOWN_FOR = 30_000;
const MEGABYTE = 1024 * 1024;

/** How much each person may keep. */
export class Room {
  private readonly known = new Map<string, { readonly at: number; readonly bytes: number }>();

  /** `most` in megabytes; 0 for no limit. `clock` in milliseconds. */
  constructor(
    private readonly db: Db,
    private readonly most: number,
    private readonly clock: () => number,
  ) {}

  /** Throws `no_room` where `more` bytes are too many. */
  check(person: string, more = 0): void {
    if (this.most === 0) return;
    const used = this.used(person) + more;
    if (used > this.most * MEGABYTE)
      throw new AppError('no_room', { used: Math.ceil(used / MEGABYTE), limit: this.most });
    const known = this.known.get(person)!;
    this.known.set(person, { ...known, bytes: used });
  }

  private used(person: string): number {
    const before = this.known.get(person);
    if (before && this.clock() - before.at < KNOWN_FOR) return before.bytes;
    const bytes = usedBy(this.db, person);
    this.known.set(person, { at: this.clock(), bytes });
    return bytes;
  }
}
