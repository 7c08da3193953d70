/** In pixels of the picture as it was kept, whole numbers. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const EDITS = ['crop', 'hide', 'pixelate'] as const;
export type EditType = (typeof EDITS)[number];
export interface Edit {
  readonly type: EditType;
  readonly area: Rect;
}

/** Pixels as a canvas gives them: red, green, blue, opacity, row by row. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** Fewer than this across would leave what was there to be guessed. */
const MOST_ACROSS = 8;
const LEAST_SIDE = 12;

/** Blacks out or pixelates an area, in place: what was there is not in the pixels any more. Cropping leaves them as they are. */
export function apply(pixels: Pixels, { type, area }: Edit): void {
  if (type === 'hide') fill(pixels, area, [0, 0, 0]);
  if (type !== 'pixelate') return;
  const side = Math.max(LEAST_SIDE, Math.ceil(Math.min(area.width, area.height) / MOST_ACROSS));
  for (let y = area.y; y < area.y + area.height; y += side) {
    for (let x = area.x; x < area.x + area.width; x += side) {
      const block = {
        x,
        y,
        width: Math.min(side, area.x + area.width - x),
        height: Math.min(side, area.y + area.height - y),
      };
      fill(pixels, block, mean(pixels, block));
    }
  }
}

type Colour = readonly [number, number, number];

function fill({ width, data }: Pixels, area: Rect, [red, green, blue]: Colour): void {
  for (let y = area.y; y < area.y + area.height; y++) {
    for (let x = area.x; x < area.x + area.width; x++) data.set([red, green, blue, 255], 4 * (y * width + x));
  }
}

/** Of the colours as they are seen; what is clear counts as white. */
function mean({ width, data }: Pixels, area: Rect): Colour {
  const sum = [0, 0, 0];
  const count = area.width * area.height;
  for (let y = area.y; y < area.y + area.height; y++) {
    for (let x = area.x; x < area.x + area.width; x++) {
      const at = 4 * (y * width + x);
      const opacity = data[at + 3]! / 255;
      for (let c = 0; c < 3; c++) sum[c] = sum[c]! + data[at + c]! * opacity + 255 * (1 - opacity);
    }
  }
  return [Math.round(sum[0]! / count), Math.round(sum[1]! / count), Math.round(sum[2]! / count)];
}

/** What is left of a picture: the last crop, or all of it. */
export const leftOf = (edits: readonly Edit[], whole: Rect): Rect =>
  edits.findLast((e) => e.type === 'crop')?.area ?? whole;

/** A rectangle between two points, in whole pixels, within another; undefined where nothing of it is in there. */
export function rectBetween(a: { x: number; y: number }, b: { x: number; y: number }, within: Rect): Rect | undefined {
  const x = Math.max(within.x, Math.floor(Math.min(a.x, b.x)));
  const y = Math.max(within.y, Math.floor(Math.min(a.y, b.y)));
  const width = Math.min(within.x + within.width, Math.ceil(Math.max(a.x, b.x))) - x;
  const height = Math.min(within.y + within.height, Math.ceil(Math.max(a.y, b.y))) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : undefined;
}
