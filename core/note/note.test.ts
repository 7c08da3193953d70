import { expect, test } from '@jest/globals';
import { linkAddress, linksIn, outward, parseLinkAddress, tagsIn } from '.';

const A = '0193a1b2-0000-7000-8000-000000000001';
const HASH = 'ab'.repeat(32);

test('addresses are read as they are written, and nothing else is one', () => {
  for (const link of [
    { type: 'annotation', id: A },
    { type: 'picture', id: HASH },
  ] as const)
    expect(parseLinkAddress(linkAddress(link))).toEqual(link);
  for (const address of [
    'avrelle:annotation/../secret',
    'avrelle:class/' + A,
    'http://avrelle:annotation/' + A,
    'avrelle:annotation/',
  ])
    expect(parseLinkAddress(address)).toBeUndefined();
});

test('what a note leads to is found in links and pictures, each once', () => {
  const note = `See [here](avrelle:annotation/${A}) and [again](avrelle:annotation/${A}) by [@Tomas](<avrelle:person/${A}>), ![a peg](avrelle:picture/${HASH} "peg"). avrelle:source/${A} alone is words.`;
  expect(linksIn(note).map(linkAddress)).toEqual([
    `avrelle:annotation/${A}`,
    `avrelle:person/${A}`,
    `avrelle:picture/${HASH}`,
  ]);
  expect(outward(note, 'https://a.test')).toContain(`[here](https://a.test/to/annotation/${A}) and`);
  expect(outward(note, 'https://a.test')).toContain(`(https://a.test/pictures/${HASH} "peg")`);
});

test('tags stand in the words', () => {
  expect(tagsIn('#Accretion is (#sea/level), not #1 or a#b, #größe.')).toEqual(['accretion', 'sea/level', 'größe']);
});
