import { expect, test } from '@jest/globals';
import { unitFor } from './use-pages';

test('the widest page fills the room beside which some is left, times the zoom, within bounds', () => {
  expect(unitFor(643, 595, 1)).toBe(1);
  expect(unitFor(643, 595, 1.5)).toBe(1.5);
  expect([unitFor(100, 595, 0.5), unitFor(3000, 200, 3)]).toEqual([0.4, 4]);
});
