import { describe, expect, test } from '@jest/globals';
import { edit, EDITS } from './edits';
import { destinations, truthOf, verdict } from './judge-places';
import { prose, seeded } from './measure';

const TEXT = prose(6_000, seeded(5)).replaceAll('\n\n', '\n');

describe.each(EDITS)('%s', (kind) => {
  const { text, origin } = edit(TEXT, 0.1, kind, seeded(6));

  test('changes the text and knows of each unit where it came from', () => {
    expect(text).not.toBe(TEXT);
    expect(origin).toHaveLength(text.length);
    const stray = [...origin].filter((from, at) => from >= 0 && kind !== 'typography' && text[at] !== TEXT[from]);
    expect(stray).toEqual([]);
  });

  test('no unit went to two places', () => {
    const kept = [...origin].filter((from) => from >= 0);
    expect(new Set(kept).size).toBe(kept.length);
  });
});

const found = (start: number, end: number) => ({ state: 'edited' as const, start, end, confidence: 1, candidates: [] });
const LOST = { state: 'lost' as const, confidence: 0, candidates: [] };

test('a passage is kept, edited, removed or torn by what is left of it together', () => {
  const origin = (...from: number[]) =>
    destinations({ text: 'x'.repeat(from.length), origin: Int32Array.from(from) }, 10);
  expect(truthOf(origin(0, 1, 2, 3), 0, 4)).toEqual({ fate: 'kept', start: 0, end: 4 });
  expect(truthOf(origin(0, 1, -1, 3), 0, 4)).toEqual({ fate: 'edited', start: 0, end: 4 });
  expect(truthOf(origin(-1, 8, 9), 0, 4).fate).toBe('removed');
  expect(truthOf(origin(0, -1, -1), 0, 4).fate).toBe('torn');
});

test('a verdict is hard on a wrong place and fair to a near one', () => {
  const before = 'b'.repeat(300);
  const after = 'c'.repeat(300);
  const passage = { start: 50, end: 90 };
  const judged = (fate: 'kept' | 'edited' | 'removed', place: Parameters<typeof verdict>[3]['found']) =>
    verdict(before, passage, { fate, start: 100, end: 140 }, { found: place, text: after });
  expect([
    judged('kept', found(100, 140)),
    judged('kept', found(101, 140)),
    judged('kept', found(200, 240)),
    judged('kept', LOST),
  ]).toEqual(['right', 'imprecise', 'wrong place', 'missed']);
  expect([
    judged('edited', found(102, 139)),
    judged('edited', found(100, 110)),
    judged('edited', found(90, 200)),
  ]).toEqual(['right', 'imprecise', 'imprecise']);
  expect([judged('removed', LOST), judged('removed', found(100, 140))]).toEqual(['right', 'wrong place']);
});
