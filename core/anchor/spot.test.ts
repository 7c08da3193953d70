import { describe, expect, test } from '@jest/globals';
import { areaBetween, isPin, onOtherPicture, toFragment } from './spot';

const on = { picture: 'a'.repeat(64) };

describe('areas', () => {
  test('run from corner to corner, whichever was first, and stay within', () => {
    const area = { type: 'area', on, x: 0.2, y: 0.1, width: 0.5, height: 0.3 };
    expect(areaBetween(on, { x: 0.2, y: 0.1 }, { x: 0.7, y: 0.4 }, 0.01)).toEqual(area);
    expect(areaBetween(on, { x: 0.7, y: 0.4 }, { x: 0.2, y: 0.1 }, 0.01)).toEqual(area);
    expect(areaBetween(on, { x: -0.5, y: 0.5 }, { x: 2, y: 0.75 }, 0.01)).toMatchObject({
      x: 0,
      y: 0.5,
      width: 1,
      height: 0.25,
    });
  });

  test('too small to be meant are pins where the pointer went down', () => {
    const pin = areaBetween(on, { x: 0.3, y: 0.4 }, { x: 0.303, y: 0.401 }, 0.01);
    expect([isPin(pin), pin.x, pin.y]).toEqual([true, 0.3, 0.4]);
    expect(isPin(areaBetween(on, { x: 0.3, y: 0.4 }, { x: 0.9, y: 0.4 }, 0.01))).toBe(false);
  });
});

// Media Fragments URI 1.0 (basic), 4.2.1 and 4.2.2: `t=10,20` and `xywh=percent:25,25,50,50` are its examples.
test('fragments are written as the recommendation has them', () => {
  expect(toFragment({ type: 'time', from: 10, to: 20 })).toBe('t=10,20');
  expect(toFragment({ type: 'time', from: 1.5, to: 1.5 })).toBe('t=1.5');
  expect(toFragment({ type: 'area', on, x: 0.25, y: 0.25, width: 0.5, height: 0.5 })).toBe('xywh=percent:25,25,50,50');
  expect(toFragment({ type: 'area', on: { page: 3 }, x: 0, y: 0, width: 1, height: 0.125 })).toBe(
    'page=3&xywh=percent:0,0,100,12.5',
  );
});

describe('on a picture that was cut out of another', () => {
  const to = 'b'.repeat(64);
  const crop = { x: 0.5, y: 0, width: 0.5, height: 0.5 };
  const moved = (x: number, y: number, width: number, height: number) =>
    onOtherPicture({ type: 'area', on, x, y, width, height }, on.picture, to, crop);
  test('an area has its place in what is left, cut off at the edge, at the edge where it lay beyond', () => {
    expect(moved(0.6, 0.1, 0.2, 0.2)).toEqual({
      type: 'area',
      on: { picture: to },
      x: 0.2,
      y: 0.2,
      width: 0.4,
      height: 0.4,
    });
    expect(moved(0.4, 0.4, 0.2, 0.2)).toMatchObject({ x: 0, y: 0.8, width: 0.2, height: 0.2 });
    expect(moved(0.1, 0.1, 0.1, 0.1)).toMatchObject({ x: 0, y: 0.2, width: 0 });
  });
  test('a drawing keeps its size and place; what lies elsewhere is left alone', () => {
    const drawn = {
      type: 'drawn',
      tool: 'pen',
      colour: 'ink',
      width: 4,
      tied: { to: 'picture', on, strokes: [[[0.75, 0.25, 0.5]]] },
    } as const;
    expect(onOtherPicture(drawn, on.picture, to, crop)).toEqual({
      ...drawn,
      width: 8,
      tied: { to: 'picture', on: { picture: to }, strokes: [[[0.5, 0.5, 0.5]]] },
    });
    expect(onOtherPicture(drawn, to, on.picture, crop)).toBe(drawn);
  });
});
