import { expect, test } from '@jest/globals';
import { renameTagIn } from './rename-tag';

test.each([
  ['tag:mud', 'tag:silt'],
  ['  tag:mud   mud "mud" OR -#mud', '  tag:silt   mud "mud" OR -#silt'],
  ['(tag:mud/wet OR tag:muddy) -tag:"mud" title:mud', '(tag:silt/wet OR tag:muddy) -tag:silt title:mud'],
  ['tag:MUD minutes<10', 'tag:silt minutes<10'],
  ['tag:mud (', 'tag:mud ('],
  ['', ''],
])('%s asks for the new name, and for all else as it was typed', (typed, asked) => {
  expect(renameTagIn(typed, 'mud', 'silt')).toBe(asked);
});

test('a tag that was taken away is still asked for', () => {
  expect(renameTagIn('tag:mud', 'mud', '')).toBe('tag:mud');
});
