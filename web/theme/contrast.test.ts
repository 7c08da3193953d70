import { expect, test } from '@jest/globals';
import fs from 'node:fs';

const css = fs.readFileSync(new URL('./theme.css', import.meta.url), 'utf8');
type Tokens = Readonly<Record<string, string>>;

function tokensOf(theme: 'day' | 'night'): Tokens {
  const rule = new RegExp(`\\[data-theme="${theme}"\\]\\s*\\{([^}]*)\\}`).exec(css)![1]!;
  return Object.fromEntries(
    [...rule.matchAll(/--([\w-]+):\s*(#[0-9a-f]{6})/g)].map(([, name, value]) => [name, value]),
  );
}

const channels = (hex: string): readonly number[] => [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16));

/** WCAG 2.2, relative luminance. */
function luminance(hex: string): number {
  const [r, g, b] = channels(hex)
    .map((v) => v / 255)
    .map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}

/** WCAG 2.2, contrast ratio: 1 to 21. */
function contrast(one: string, other: string): number {
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a);
  return (light! + 0.05) / (dark! + 0.05);
}

/** As `color-mix(in srgb, one share, other)`. */
const mixed = (one: string, other: string, share: number): string =>
  `#${channels(one)
    .map((v, i) => Math.round(v * share + channels(other)[i]! * (1 - share)))
    .map((v) => v.toString(16).padStart(2, '0'))
    .join('')}`;

const PIGMENTS = ['weld', 'verdigris', 'woad', 'orchil', 'madder', 'ochre', 'walnut', 'lichen'];
const TINTS = ['moss', 'heather', 'clay', 'tide'];

/** Words or lines, what they stand on, and the least contrast (WCAG 2.2: 1.4.3, 1.4.6, 1.4.11). */
function pairs(t: Tokens): readonly (readonly [string, string, string, number])[] {
  return ['paper', 'sheet', 'tide-wash'].flatMap((ground): (readonly [string, string, string, number])[] => [
    ['ink', t.ink!, ground, 7],
    ...['ink-soft', 'ink-faint', 'tide'].map((words) => [words, t[words]!, ground, 4.5] as const),
    ...(ground === 'tide-wash'
      ? []
      : [
          ['ink-soft', t['ink-soft']!, ground, 7] as const,
          ['brick', t.brick!, ground, 4.5] as const,
          ['strand', t.strand!, ground, 3] as const,
          ...PIGMENTS.flatMap((pigment) => [
            [`${pigment} line`, t[`${pigment}-line`]!, ground, 3] as const,
            [`${pigment} bar`, mixed(t[`${pigment}-line`]!, t[pigment]!, 0.7), ground, 3] as const,
          ]),
        ]),
    ...PIGMENTS.map((pigment) => ['ink', t.ink!, pigment, 7] as const),
    ...TINTS.flatMap((tint) => [`${tint}-wash`, 'paper'].map((behind) => [tint, t[tint]!, behind, 4.5] as const)),
    ['paper', t.paper!, 'tide', 4.5],
  ]);
}

test('black on white is 21 to 1 (WCAG 2.2)', () => {
  expect([contrast('#000000', '#ffffff'), contrast('#767676', '#ffffff') >= 4.5]).toEqual([21, true]);
});

test.each(['day', 'night'] as const)('by %s words, fields and lines stand out from what they stand on', (theme) => {
  const tokens = tokensOf(theme);
  const weak = pairs(tokens).filter(([, colour, ground, least]) => contrast(colour, tokens[ground]!) < least);
  expect(weak).toEqual([]);
});
