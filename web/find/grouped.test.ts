import { expect, test } from '@jest/globals';
import type { AnnotationHit } from '@avrelle/core/wire';
import { grouped } from './grouped';

const hit = (id: string, group?: string): AnnotationHit => ({ id, group }) as AnnotationHit;
const NOW = new Date('2026-11-25T10:00:00');

test('hits stand in their groups as the server listed them, with how many each has in all', () => {
  const groups = [
    { key: 's1', name: 'Marsh', total: 120 },
    { key: 's2', name: 'Marsh', total: 1 },
  ];
  const made = grouped([hit('a', 's1'), hit('b', 's1'), hit('a', 's2')], groups, 'source', NOW);
  expect(made.map((g) => [g.key, g.name, g.total, g.hits.map((h) => h.id).join('')])).toEqual([
    ['s1', 'Marsh', 120, 'ab'],
    ['s2', 'Marsh', 1, 'a'],
  ]);
});

test('without groups they are one list, days and tags are named for people', () => {
  expect(grouped([hit('a'), hit('b')], [], 'none', NOW)).toMatchObject([{ name: '', total: 2 }]);
  const day = { key: '2026-11-02', name: '', total: 1 };
  expect(grouped([hit('a', day.key)], [day], 'day', NOW)[0]!.name).toBe('2 Nov');
  expect(grouped([hit('a', 'mud'), hit('b', '')], [], 'tag', NOW).map((g) => g.name)).toEqual([
    '#mud',
    'Without a tag',
  ]);
});
