import { describe as group, expect, test } from '@jest/globals';
import { seeded } from '../random';
import { range } from '../text';
import { describe, indexText, locateAll } from './index';

const TEXT = 'The marsh dies from the middle. Near the creeks the water slows. A hundred paces back the surface gains almost nothing. The marsh dies from the middle, they say.';
const at = (words: string, from = 0) => { const start = TEXT.indexOf(words, from); return range(start, start + words.length); };
const one = (text: string, anchor: ReturnType<typeof describe>) => locateAll(indexText(text), [anchor])[0]!;

group('anchors', () => {
  test('a passage is found where it was', () => {
    const anchor = describe(TEXT, at('the water slows'));
    expect(one(TEXT, anchor)).toEqual({ state: 'exact', start: anchor.position.start, end: anchor.position.end, confidence: 1 });
  });

  test('of two equal sentences the one with the same surroundings is found after a shift', () => {
    const second = describe(TEXT, at('The marsh dies from the middle', 40));
    const moved = `A new opening. ${TEXT}`;
    expect(one(moved, second)).toMatchObject({ state: 'shifted', start: 15 + second.position.start });
  });

  test('a removed passage is lost, not placed on something else', () => {
    const anchor = describe(TEXT, at('Near the creeks'));
    expect(one(TEXT.replace('Near the creeks ', ''), anchor)).toMatchObject({ state: 'lost', confidence: 0 });
  });

  test('words that repeat with nothing to tell them apart are lost with candidates', () => {
    const anchor = { quote: { exact: 'marsh', prefix: 'xxxxxxxx', suffix: 'yyyyyyyy' }, position: { start: 900, end: 905 } };
    const found = one(TEXT, anchor);
    expect(found).toMatchObject({ state: 'lost', candidates: [expect.anything(), expect.anything()] });
  });

  test('a surrogate pair is never cut', () => {
    const text = 'a 𝒳 b';
    expect(describe(text, range(3, 4)).quote.exact).toBe('𝒳');
    expect(describe(text, range(0, 1)).quote.suffix).toBe(' 𝒳 b');
  });

  test('an empty or outside range is refused with its bounds', () => {
    expect(() => describe('abc', range(1, 1))).toThrow(/\[1, 1\).*0\.\.3/);
    expect(() => describe('abc', range(1, 9))).toThrow(/\[1, 9\)/);
  });
});

group('many seeded passages', () => {
  const words = Array.from({ length: 4000 }, (_, n) => `${['tide', 'marsh', 'peg', 'mud', 'sluice'][n % 5]}${n % 7 === 0 ? n : ''}`).join(' ');
  const random = seeded(11);
  const anchors = Array.from({ length: 300 }, () => {
    const start = Math.floor(random() * (words.length - 200));
    return describe(words, range(start, start + 8 + Math.floor(random() * 100)));
  });

  test('each is where it was in the same text, in the order asked', () => {
    expect(locateAll(indexText(words), anchors)).toEqual(anchors.map(({ position }) => ({ state: 'exact', ...position, confidence: 1 })));
  });

  test('after words were put in front each is found at its own new place, or said to be lost, never elsewhere', () => {
    const shift = 'A new beginning. ';
    const found = locateAll(indexText(shift + words), anchors);
    found.forEach((place, n) => {
      if (place.state !== 'lost') expect(place.start).toBe(anchors[n]!.position.start + shift.length);
    });
    expect(found.filter((place) => place.state !== 'lost').length).toBeGreaterThan(280);
  });
});
