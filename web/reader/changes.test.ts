import { expect, test } from '@jest/globals';
import { EMPTY, remember, stepBack, stepForward, withdraw, type Change } from './changes';

const change = (id: string): Change => ({ id, words: id, undo: { deleted: true }, redo: { deleted: false } });

test('steps are taken back newest first and done again in order', () => {
  const history = remember(remember(EMPTY, change('a')), change('b'));
  const back = stepBack(history)!;
  expect(back.change.id).toBe('b');
  const further = stepBack(back.history)!;
  expect(further.change.id).toBe('a');
  expect(stepBack(further.history)).toBeUndefined();
  expect(stepForward(further.history)!.change.id).toBe('a');
});

test('a new step ends what could be done again', () => {
  const back = stepBack(remember(EMPTY, change('a')))!;
  expect(stepForward(remember(back.history, change('c')))).toBeUndefined();
});

test('a step that did not hold is forgotten, and only that one', () => {
  const history = remember(remember(remember(EMPTY, change('a')), change('b')), change('c'));
  expect(withdraw(history, change('b')).done.map((c) => c.id)).toEqual(['a', 'c']);
  expect(withdraw(history, change('x'))).toBe(history);
});
