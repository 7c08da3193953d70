import { expect, test } from '@jest/globals';
import { freeLook, STARTING_LEGEND, LOOKS, lookName, moveKind, PLAIN_NOTE, startingKind } from '.';

test('no two kinds of the starting Legend share a pigment, a line or a sign', () => {
  for (const what of ['pigment', 'line', 'sign', 'name'] as const)
    expect(new Set([...STARTING_LEGEND, PLAIN_NOTE].map((k) => k[what])).size).toBe(STARTING_LEGEND.length + 1);
});

test('every look has a name of its own, and every kind a look', () => {
  const names = LOOKS.map(lookName);
  expect(new Set(names).size).toBe(names.length);
  for (const kind of [...STARTING_LEGEND, PLAIN_NOTE]) expect(names).toContain(lookName(kind));
});

test('a kind moves within its Legend, and nothing is made anew where it stays', () => {
  expect(
    moveKind(STARTING_LEGEND, 0, 2)
      .map((k) => k.code)
      .slice(0, 3),
  ).toEqual(['evidence', 'question', 'claim']);
  expect(moveKind(STARTING_LEGEND, 5, 0)[0]!.code).toBe('keep');
  for (const [from, to] of [
    [2, 2],
    [0, -1],
    [0, 6],
    [9, 0],
  ] as const)
    expect(moveKind(STARTING_LEGEND, from, to)).toBe(STARTING_LEGEND);
});

test('a new kind is offered a look that none has', () => {
  const free = freeLook(STARTING_LEGEND);
  expect(STARTING_LEGEND.some((k) => k.pigment === free.pigment)).toBe(false);
  expect(freeLook(STARTING_LEGEND.slice(1))).toEqual({ pigment: 'weld', line: 'solid' });
});

test('codes that somebody made are no starting kinds', () => {
  expect(startingKind('claim')?.sign).toBe('§');
  expect(startingKind('019ab000-0000-7000-8000-000000000000')).toBeUndefined();
});
