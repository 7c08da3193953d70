import { expect, test } from '@jest/globals';
import { adjust, readType, USUAL, writeType } from './type';

const storage = (held: Record<string, string> = {}) => ({
  held,
  getItem: (key: string) => held[key] ?? null,
  setItem: (key: string, value: string) => {
    held[key] = value;
  },
});

test('type is kept for each kind of source, and what cannot be read is as usual', () => {
  const s = storage();
  const large = { ...USUAL, size: 24 };
  writeType(s, 'page', large);
  expect([readType(s, 'page'), readType(s, 'book')]).toEqual([large, USUAL]);
  for (const bad of ['{', '{"size":900}', '{"size":"18"}', 'null'])
    expect(readType(storage({ 'avrelle.type.page': bad }), 'page')).toBe(USUAL);
});

test('steps stay within what can be read', () => {
  expect(adjust(USUAL, 'size', 2).size).toBe(20);
  expect(adjust(USUAL, 'line', -1).line).toBe(1.57);
  expect(adjust(USUAL, 'measure', 100).measure).toBe(980);
  const most = adjust(USUAL, 'size', 100);
  expect(adjust(most, 'size', 1)).toBe(most);
});
