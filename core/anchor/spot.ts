import type { DrawnSpot, Tool } from '../ink/drawing';
import { clockTime } from '../text/locator';
import type { Surface } from './surface';

/**
 * What is no words: an area of a page or picture, a moment of a recording, something drawn. It is tied to the words nearest to
 * it, which are the anchor's quotation, so that it is found again as they are.
 */
export type Spot = AreaSpot | TimeSpot | DrawnSpot | WholeSpot;

/** All of the source: tied to no words in particular, it is never lost. */
export interface WholeSpot {
  readonly type: 'whole';
}

/** Shares of the width and height of what it lies on, 0 to 1, from the top left. A pin has no width and height. */
export interface AreaSpot {
  readonly type: 'area';
  readonly on: Surface;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** In seconds; a moment where both are the same. */
export interface TimeSpot {
  readonly type: 'time';
  readonly from: number;
  readonly to: number;
}

export const isPin = ({ width, height }: AreaSpot): boolean => width === 0 && height === 0;

const DRAWN_NAMES: Readonly<Record<Tool, string>> = {
  pen: 'drawn with the pen',
  broad: 'drawn with the broad pen',
  line: 'a line',
  arrow: 'an arrow',
  box: 'a box',
  ellipse: 'an ellipse',
  text: 'written on the page',
  sign: 'a sign on the page',
};

/** How it is called where there are no words to quote. */
export function spotName(spot: Spot): string {
  if (spot.type === 'time')
    return spot.from === spot.to ? `at ${clockTime(spot.from)}` : `${clockTime(spot.from)} to ${clockTime(spot.to)}`;
  if (spot.type === 'whole') return 'the whole source';
  if (spot.type === 'drawn') return DRAWN_NAMES[spot.tool];
  const on = 'page' in spot.on ? `page ${spot.on.page}` : 'the picture';
  return isPin(spot) ? `a point on ${on}` : `an area of ${on}`;
}

const percent = (share: number): string => String(Math.round(share * 10_000) / 100);
const seconds = (time: number): string => String(Math.round(time * 1_000) / 1_000);

/** As a fragment of W3C Media Fragments URI 1.0 (4.2.1 and 4.2.2); an area of a PDF with its page (RFC 8118). */
export function toFragment(spot: AreaSpot | TimeSpot): string {
  if (spot.type === 'time')
    return spot.from === spot.to ? `t=${seconds(spot.from)}` : `t=${seconds(spot.from)},${seconds(spot.to)}`;
  const area = `xywh=percent:${[spot.x, spot.y, spot.width, spot.height].map(percent).join(',')}`;
  return 'page' in spot.on ? `page=${spot.on.page}&${area}` : area;
}

/** An area drawn between two corners, each in shares; kept within what it lies on. Smaller than `least` both ways, it is a pin. */
export function areaBetween(
  on: AreaSpot['on'],
  a: { x: number; y: number },
  b: { x: number; y: number },
  least: number,
): AreaSpot {
  const within = (share: number): number => Math.round(Math.min(1, Math.max(0, share)) * 10_000) / 10_000;
  const [left, right, top, bottom] = [
    within(Math.min(a.x, b.x)),
    within(Math.max(a.x, b.x)),
    within(Math.min(a.y, b.y)),
    within(Math.max(a.y, b.y)),
  ];
  if (right - left < least && bottom - top < least)
    return { type: 'area', on, x: within(a.x), y: within(a.y), width: 0, height: 0 };
  return { type: 'area', on, x: left, y: top, width: within(right - left), height: within(bottom - top) };
}

/** Part of a picture, in shares of it. */
export interface Crop {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * What lies on a picture, on another one that was made of it: all of it, or the part of it that `crop` says. Beyond the
 * edge an area is cut off, or becomes a point on it. The same spot where it lies on something else.
 */
export function onOtherPicture(spot: Spot, from: string, to: string, crop: Crop): Spot {
  const across = (x: number): number => tidy((x - crop.x) / crop.width);
  const down = (y: number): number => tidy((y - crop.y) / crop.height);
  if (spot.type === 'area' && 'picture' in spot.on && spot.on.picture === from) {
    return areaBetween(
      { picture: to },
      { x: across(spot.x), y: down(spot.y) },
      { x: across(spot.x + spot.width), y: down(spot.y + spot.height) },
      LEAST_AREA,
    );
  }
  if (
    spot.type === 'drawn' &&
    spot.tied.to === 'picture' &&
    'picture' in spot.tied.on &&
    spot.tied.on.picture === from
  ) {
    return {
      ...spot,
      width: tidy(spot.width / crop.width),
      tied: {
        to: 'picture',
        on: { picture: to },
        strokes: spot.tied.strokes.map((stroke) =>
          stroke.map(([x, y, pressure]) => [across(x), down(y), pressure] as const),
        ),
      },
    };
  }
  return spot;
}

const LEAST_AREA = 0.0005;
const tidy = (share: number): number => Math.round(share * 100_000) / 100_000;
