import { expect, test } from '@jest/globals';
import readability from 'text-readability';
import type { Ease } from '@avrelle/core/wire';
import { startServer } from '../testing/harness';
import { readingEase } from './ease';

const EASY =
  'The tide goes out. The mud is wet. Birds come to eat. We walk on the bank. It is cold but we like it. Ines has a peg. She puts it in the mud. It goes in well. Bram counts the birds. He sees ten. Then the tide comes in. We go home. We had fun. The peg stays there. '.repeat(
    3,
  );
const HARD =
  'Accretion measurements undertaken repeatedly throughout successive equinoctial intervals demonstrate considerable heterogeneity, notwithstanding methodological standardisation; consequently, estimations concerning sedimentary accumulation necessitate circumspect interpretation by knowledgeable practitioners. '.repeat(
    6,
  );

// R. Flesch (1948), the value from memory: 206.835 - 1.015 words a sentence - 84.6 syllables a word.
test('reading ease is what the published formula gives', () => {
  const text = `${'The cat sat. '.repeat(50)}`;
  const { ease, words, sentences } = readingEase(text, 'en')!;
  expect([words, sentences]).toEqual([150, 50]);
  expect(ease).toBeCloseTo(206.835 - 1.015 * 3 - 84.6, 5);
});

test.each([
  ['easy', EASY],
  ['hard', HARD],
])('of an %s text it is near to what a reference library says', (_, text) => {
  expect(Math.abs(readingEase(text, 'en-GB')!.ease - readability.fleschReadingEase(text))).toBeLessThan(8);
});

test('what is easy scores higher; other languages and short texts have none', () => {
  expect(readingEase(EASY, '')!.ease).toBeGreaterThan(90);
  expect(readingEase(HARD, 'en')!.ease).toBeLessThan(0);
  expect([readingEase(EASY, 'el'), readingEase('Too short to tell.', 'en'), readingEase('', 'en')]).toEqual([
    undefined,
    undefined,
    undefined,
  ]);
});

test('it is told of a source one may read', async () => {
  const server = await startServer();
  const me = await server.person('Reader');
  const other = await server.person('Other');
  const id = await me.keepText('easy', EASY);
  expect((await me.send<Ease>('GET', `/api/sources/${id}/ease`)).body.ease).toBeGreaterThan(90);
  expect((await other.send('GET', `/api/sources/${id}/ease`)).status).toBe(404);
  await server.close();
});
