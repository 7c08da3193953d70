import { chain, type Link } from './chain';
import { align } from './edit-distance';
import type { Former } from './former';
import type { GramIndex } from './gram-index';
import { findMatches, type Matches } from './matches';

/** Where each unit of a former text is in the present one. */
export interface Alignment {
  readonly former: Former;
  readonly text: Uint16Array;
  /** By unit of the former: the unit of the present text it is, equal or replaced by; -1 where it has no place. */
  readonly to: Int32Array;
  /** By unit: 1 where it stands in a run of equal units too long to be chance. */
  readonly solid: Uint8Array;
  readonly matches: Matches;
  /** By match: 1 where the way goes through it. */
  readonly taken: Uint8Array;
}

/** Cells of the table that a gap may cost; beyond that only its two ends are compared. */
const MOST_CELLS = 400_000;
/** Units compared at each end of a gap, or at the end of a stretch. */
const REACH = 400;

/** Aligns what is known of a former text with the present one: matches, the best way through them, then the gaps. */
export function alignTexts(former: Former, index: GramIndex): Alignment {
  const matches = findMatches(former, index);
  const links = chain(matches, former);
  const filler = new Filler(former.units, index.units);
  const taken = new Uint8Array(matches.count);
  links.forEach((link, n) => {
    taken[link.match] = 1;
    filler.put(link);
    filler.before(link, links[n - 1], former.stretches[link.stretch]!.begin);
    if (links[n + 1]?.stretch !== link.stretch)
      filler.after(link.p + link.length, former.stretches[link.stretch]!.end, link.q + link.length);
  });
  return { former, text: index.units, to: filler.to, solid: solidOf(former, index.units, filler.to), matches, taken };
}

class Filler {
  readonly to: Int32Array;

  constructor(
    private readonly units: Uint16Array,
    private readonly text: Uint16Array,
  ) {
    this.to = new Int32Array(units.length).fill(-1);
  }

  put({ p, q, length }: Link): void {
    for (let i = 0; i < length; i++) this.to[p + i] = q + i;
  }

  /** Fills what lies between a link and the one before it in the same stretch, or the stretch's beginning. */
  before(link: Link, last: Link | undefined, begin: number): void {
    if (last?.stretch !== link.stretch) return this.back(begin, link.p, link.q, 0);
    const p = last.p + last.length;
    const q = last.q + last.length;
    const gap = link.p - p;
    const room = link.q - q;
    if (gap <= 0) return;
    const alike = room > 0 && room <= 2 * gap + 32 && gap <= 2 * room + 32;
    if (alike && gap * room <= MOST_CELLS) return this.between(p, link.p, q, link.q);
    const reached = this.after(p, link.p, q, room >= 0 ? link.q : this.text.length);
    this.back(reached, link.p, link.q, room >= 0 ? q : 0);
  }

  private between(p: number, pEnd: number, q: number, qEnd: number): void {
    const places = align(this.units.subarray(p, pEnd), this.text.subarray(q, qEnd));
    for (let i = 0; i < places.length; i++) if (places[i]! >= 0) this.to[p + i] = q + places[i]!;
  }

  /** Continues behind `q` as long as it agrees more than not; the result is where it stopped. */
  after(p: number, pEnd: number, q: number, qEnd = this.text.length): number {
    const length = Math.min(REACH, pEnd - p);
    const places = align(
      this.units.subarray(p, p + length),
      this.text.subarray(q, Math.min(qEnd, q + reachFor(length))),
      'free',
    );
    const kept = agreeing(places, (i, place) => this.units[p + i] === this.text[q + place]);
    for (let i = 0; i < kept; i++) if (places[i]! >= 0) this.to[p + i] = q + places[i]!;
    return p + kept;
  }

  private back(p: number, pEnd: number, qEnd: number, floor: number): void {
    const length = Math.min(REACH, pEnd - p);
    const pattern = this.units.slice(pEnd - length, pEnd).reverse();
    const text = this.text.slice(Math.max(floor, qEnd - reachFor(length)), qEnd).reverse();
    const places = align(pattern, text, 'free');
    const kept = agreeing(places, (i, place) => pattern[i] === text[place]);
    for (let i = 0; i < kept; i++) if (places[i]! >= 0) this.to[pEnd - 1 - i] = qEnd - 1 - places[i]!;
  }
}

const reachFor = (length: number): number => length + (length >> 1) + 16;

/** How many places from the first are worth keeping: to where equal units outweigh the edits by most. */
function agreeing(places: Int32Array, equal: (i: number, place: number) => boolean): number {
  let score = 0;
  let best = 0;
  let kept = 0;
  let next = 0;
  for (let i = 0; i < places.length; i++) {
    const place = places[i]!;
    if (place < 0) score -= 1;
    else {
      score -= Math.min(4, place - next);
      score += equal(i, place) ? 1 : -1;
      next = place + 1;
    }
    if (score > best) {
      best = score;
      kept = i + 1;
    }
  }
  return kept;
}

/** Letters that agree by chance; of Han and kana and other large scripts two say as much. */
const LEAST_RUN = 3;
const LEAST_RUN_LARGE = 2;
const LARGE_SCRIPTS = 0x2e80;

function solidOf({ units, stretches }: Former, text: Uint16Array, to: Int32Array): Uint8Array {
  const solid = new Uint8Array(units.length);
  for (const { begin, end } of stretches) {
    for (let p = begin; p < end;) {
      let length = 0;
      while (
        p + length < end &&
        to[p + length]! >= 0 &&
        units[p + length] === text[to[p + length]!] &&
        (length === 0 || to[p + length] === to[p + length - 1]! + 1)
      )
        length++;
      const least = units[p]! >= LARGE_SCRIPTS ? LEAST_RUN_LARGE : LEAST_RUN;
      if (length >= Math.min(least, end - begin)) solid.fill(1, p, p + length);
      p += Math.max(1, length);
    }
  }
  return solid;
}
