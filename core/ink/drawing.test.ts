import { describe, expect, test } from '@jest/globals';
import { isDrawnSpot, toSvg } from '.';

describe('what comes in as a drawing', () => {
  const tied = {
    to: 'words',
    words: [
      [0, 4],
      [5, 9],
    ],
    strokes: [
      [
        [0, 0.5, 1.1, 0.5],
        [1, 0.5, 1.1, 0.5],
      ],
    ],
  } as const;
  const drawing = { type: 'drawn', tool: 'pen', colour: '#a1b2c3', width: 0.1, tied } as const;
  test('is one where it is whole', () => {
    expect(isDrawnSpot(drawing)).toBe(true);
    expect(
      isDrawnSpot({
        ...drawing,
        colour: 'woad',
        tied: { to: 'picture', on: { page: 2 }, strokes: [[[0.1, 0.2, 0.5]]] },
      }),
    ).toBe(true);
  });
  test.each([
    ['a tool that is none', { ...drawing, tool: 'spray' }],
    ['a colour that is none', { ...drawing, colour: 'url(x)' }],
    ['no width', { ...drawing, width: 0 }],
    ['more than it has', { ...drawing, text: 'x' }],
    ['a word that is not named', { ...drawing, tied: { ...tied, strokes: [[[2, 0, 0, 0]]] } }],
    ['a point that is no number', { ...drawing, tied: { ...tied, strokes: [[[0, NaN, 0, 0]]] } }],
    ['a point too short', { ...drawing, tied: { ...tied, strokes: [[[0, 0, 0]]] } }],
    ['no strokes', { ...drawing, tied: { ...tied, strokes: [] } }],
    ['an empty stroke', { ...drawing, tied: { ...tied, strokes: [[]] } }],
    [
      'a page and a picture',
      { ...drawing, tied: { to: 'picture', on: { page: 1, picture: 'a'.repeat(64) }, strokes: [[[0, 0, 0]]] } },
    ],
    [
      'too many points',
      { ...drawing, tied: { ...tied, strokes: [Array.from({ length: 20_001 }, () => [0, 0, 0, 0])] } },
    ],
    ['nothing', null],
  ])('is none with %s', (_, value) => expect(isDrawnSpot(value)).toBe(false));
});

// Web Annotation Data Model, 4.2.7: an SvgSelector’s value is an SVG element with the shape.
test('as SVG a drawing is a path over its page, or over its words set on one line', () => {
  const on = {
    type: 'drawn',
    tool: 'line',
    colour: 'ink',
    width: 5,
    tied: {
      to: 'picture',
      on: { page: 1 },
      strokes: [
        [
          [0.1, 0.2, 0.5],
          [0.5, 0.2, 0.5],
        ],
      ],
    },
  } as const;
  expect(toSvg(on, 0)).toBe(
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1"><path fill="none" stroke-width="0.005" d="M0.1 0.2L0.5 0.2"/></svg>',
  );
  expect(
    toSvg(
      {
        ...on,
        width: 0.1,
        tied: {
          to: 'words',
          words: [[0, 4]],
          strokes: [
            [
              [0, 0, 1.1, 0.5],
              [0, 1, 1.1, 0.5],
            ],
          ],
        },
      },
      4,
    ),
  ).toContain('d="M0 1.1L2 1.1"');
});
