import { expect, test } from '@jest/globals';
import type { AnnotationHit } from '@avrelle/core/wire';
import { grouped } from './grouped';

const hit = (id: string, tags: string[], more: Partial<AnnotationHit> = {}): AnnotationHit => ({ id, tags, title: 'Marsh', kind: { name: 'Claim' }, author: { name: 'Ines' }, createdAt: '2026-11-02T10:00:00Z', ...more }) as AnnotationHit;
const shape = (...of: Parameters<typeof grouped>) => grouped(...of).map((g) => [g.name, g.hits.map((h) => h.id).join('')]);

test('marks stand in groups in the order they came, under each of their tags, those without one last', () => {
  const hits = [hit('a', []), hit('b', ['mud', 'essay']), hit('c', ['essay'], { title: 'Pegs', createdAt: '2025-01-02T10:00:00Z' })];
  expect(shape(hits, 'none')).toEqual([['', 'abc']]);
  expect(shape(hits, 'tag')).toEqual([['#essay', 'bc'], ['#mud', 'b'], ['Without a tag', 'a']]);
  expect(shape(hits, 'source')).toEqual([['Marsh', 'ab'], ['Pegs', 'c']]);
  expect(shape(hits, 'day', new Date('2026-11-25'))).toEqual([['2 Nov', 'ab'], ['2 Jan 2025', 'c']]);
  expect([shape(hits, 'kind'), shape(hits, 'person')]).toEqual([[['Claim', 'abc']], [['Ines', 'abc']]]);
});
