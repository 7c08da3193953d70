import { expect, test } from '@jest/globals';
import { tintOfTag } from '.';

test.each([
  ['essay', 'moss'],
  ['essay/opening', 'moss'],
  ['essay/opening/first', 'clay'],
  ['essay/openings', 'moss'],
  ['essays', undefined],
  ['mud', undefined],
  ['constructor', undefined],
])('the tint of #%s is %s', (tag, tint) => {
  expect(tintOfTag({ essay: 'moss', 'essay/opening/first': 'clay' }, tag)).toBe(tint);
});
