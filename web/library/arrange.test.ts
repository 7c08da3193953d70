import { expect, test } from '@jest/globals';
import { arranged, flat, movedTo, sectionKey, withNewSection, withoutSection } from './arrange';

const start = arranged(
  ['Opening', 'Data'],
  [
    { id: 'a', section: -1 },
    { id: 'b', section: 0 },
    { id: 'c', section: 0 },
    { id: 'd', section: 1 },
  ],
);
const shape = (what: string, onto: string) => {
  const { sections, groups } = movedTo(start, what, onto);
  return [sections.join(), groups.map((g) => g.join('')).join('|')];
};

test('a source is dragged within its section, into another, and above the first', () => {
  expect(flat(start)).toEqual(['a', sectionKey(0), 'b', 'c', sectionKey(1), 'd']);
  expect(shape('b', 'c')).toEqual(['Opening,Data', 'a|cb|d']);
  expect(shape('c', 'd')).toEqual(['Opening,Data', 'a|b|dc']);
  expect(shape('d', 'b')).toEqual(['Opening,Data', 'a|dbc|']);
  expect(shape('d', 'a')).toEqual(['Opening,Data', 'da|bc|']);
  expect(shape('c', sectionKey(1))).toEqual(['Opening,Data', 'a|b|cd']);
  expect(movedTo(start, 'a', 'a')).toBe(start);
  expect(movedTo(start, 'x', 'a')).toBe(start);
});
test('a section takes its sources along', () => {
  expect(shape(sectionKey(1), sectionKey(0))).toEqual(['Data,Opening', 'a|d|bc']);
  expect(shape(sectionKey(0), 'd')).toEqual(['Data,Opening', 'a|d|bc']);
});

test('every change of the sections says which they were, so that what one may not see moves along', () => {
  expect(movedTo(start, sectionKey(1), sectionKey(0)).was).toEqual([1, 0]);
  expect(withoutSection(start, 0)).toEqual({ sections: ['Data'], groups: [['a', 'b', 'c'], ['d']], was: [1] });
  expect(withNewSection(start, 'End').was).toEqual([0, 1, null]);
});
