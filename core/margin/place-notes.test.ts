import { expect, test } from '@jest/globals';
import { seeded } from '../random';
import { placeNotes, type Wanted } from './index';

const note = (id: string, y: number, height = 40): Wanted => ({ id, y, height });

test('notes with room stand exactly level with their passages', () => {
  expect([...placeNotes([note('a', 10), note('b', 100)], 8)]).toEqual([
    ['a', 10],
    ['b', 100],
  ]);
});

test('notes that collide share the displacement evenly', () => {
  const tops = placeNotes([note('a', 100), note('b', 100)], 0);
  expect([tops.get('a'), tops.get('b')]).toEqual([80, 120]);
});

test('the note being read keeps its place and the others make room', () => {
  const tops = placeNotes([note('a', 100), note('b', 110), note('c', 120)], 0, 'b');
  expect(tops.get('b')).toBeCloseTo(110, 1);
  expect(tops.get('a')).toBeCloseTo(70, 1);
  expect(tops.get('c')).toBeCloseTo(150, 1);
});

test('nothing overlaps, order holds and nothing leaves the top, for many random layouts', () => {
  const random = seeded(7);
  for (let round = 0; round < 200; round++) {
    const notes = Array.from({ length: 40 }, (_, i) => note(String(i), random() * 800, 20 + random() * 90)).sort(
      (a, b) => a.y - b.y,
    );
    const tops = placeNotes(notes, 6, round % 3 === 0 ? notes[5]!.id : undefined);
    expect(tops.get(notes[0]!.id)).toBeGreaterThanOrEqual(0);
    for (let i = 1; i < notes.length; i++) {
      expect(tops.get(notes[i]!.id)! - tops.get(notes[i - 1]!.id)! - notes[i - 1]!.height).toBeGreaterThanOrEqual(
        6 - 1e-6,
      );
    }
  }
});
