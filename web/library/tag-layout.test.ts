import { expect, test } from '@jest/globals';
import { layTags } from './tag-layout';

const related = [
  { tag: 'mud', together: 9 },
  { tag: 'pegs', together: 8 },
  { tag: 'eels', together: 1 },
  { tag: 'sheep', together: 1 },
];
const pairs = [{ a: 'mud', b: 'pegs', together: 7 }];
const far = (a: { x: number; y: number }, b: { x: number; y: number }): number => Math.hypot(a.x - b.x, a.y - b.y);

test('what stands together often stands near; nothing lies outside or upon another; the same tags stand alike', () => {
  const { spots, ties } = layTags('marsh', related, pairs, { width: 520, height: 270 });
  const [marsh, mud, pegs, eels, sheep] = spots;
  expect(ties).toHaveLength(5);
  expect([marsh!.x, marsh!.y]).toEqual([260, 135]);
  expect(far(mud!, pegs!)).toBeLessThan(far(eels!, mud!) + far(sheep!, pegs!));
  expect(far(marsh!, mud!)).toBeLessThan(far(marsh!, eels!));
  for (const a of spots) for (const b of spots) if (a !== b) expect(far(a, b)).toBeGreaterThan(20);
  for (const { x, y } of spots) expect([x > 0 && x < 520, y > 0 && y < 270]).toEqual([true, true]);
  expect(layTags('marsh', related, pairs, { width: 520, height: 270 }).spots.map((s) => [s.x, s.y])).toEqual(
    spots.map((s) => [s.x, s.y]),
  );
});
