import { readingMinutes } from '../text/reading-time';
import type { Block } from '../text/stream';
import { addSpan, covers, type Spans } from './spans';

/** A block counts as read after half of its reading time on screen: fast readers count, skimmers do not. */
const SHARE = 0.5;
/** Milliseconds under which no block counts as read, however short. */
const LEAST_MS = 700;

/** Time each block was on screen, in milliseconds, by its start offset. */
export type Dwell = ReadonlyMap<number, number>;

/** For how long blocks were on screen, and what was read. */
export interface Reading {
  readonly dwell: Dwell;
  readonly spans: Spans;
}

/**
 * Adds `elapsed` milliseconds during which `visible` blocks were on screen, shared among those not read yet (eyes are
 * on one of them at a time). Returns the dwell times and the spans
 * read, the same `spans` object when nothing new was read.
 */
export function dwellOn(text: string, visible: readonly Block[], elapsed: number, { dwell, spans }: Reading): Reading {
  const times = new Map(dwell);
  let read = spans;
  const waiting = visible.filter((b) => !covers(spans, b.start, b.end));
  for (const block of waiting) {
    const time = (times.get(block.start) ?? 0) + elapsed / waiting.length;
    times.set(block.start, time);
    const needed = Math.max(LEAST_MS, readingMinutes(text.slice(block.start, block.end)) * 60_000 * SHARE);
    if (time >= needed) read = addSpan(read, block.start, block.end);
  }
  return { dwell: times, spans: read };
}
