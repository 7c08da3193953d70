import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { renameTagInNote } from './rename-tag';

test.each([
  ['#mud holds, #Mud/wet too, #muddy does not (#mud).', '#silt holds, #silt/wet too, #muddy does not (#silt).'],
  ['\\#mud begins', '\\#silt begins'],
  ['`#mud` and $#mud$ stay, **so #mud** does not', '`#mud` and $#mud$ stay, **so #silt** does not'],
  ['[#mud](https://creek.saltmere.test/#mud)', '[#mud](https://creek.saltmere.test/#mud)'],
  ['- one #mud\n- two\n\n> #mud/a', '- one #silt\n- two\n\n> #silt/a'],
  ['a#mud mud', 'a#mud mud'],
])('%s', (before, after) => {
  expect(renameTagInNote(before, 'mud', 'silt')).toBe(after);
});

test('names with signs that Markdown escapes are found, and written so that they stay what they are', () => {
  expect(renameTagInNote('#field\\_notes and #field_notes', 'field_notes', 'my_notes')).toBe(
    '#my\\_notes and #my\\_notes',
  );
  expect(renameTagInNote('#a/b', 'a/b', 'c')).toBe('#c');
});

test('a tag that is taken away leaves its word', () => {
  expect(renameTagInNote('\\#mud is #mud/wet', 'mud', '')).toBe('mud is mud/wet');
});

test('what does not hold the tag stays as it was written', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom('#', 'a', '_', '\\', '*', '`', '$', ' ', '\n', '/', '(') }),
      (note) => {
        expect(renameTagInNote(note, 'other', 'new')).toBe(note);
      },
    ),
  );
});
