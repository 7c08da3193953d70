import { boxAround, type Strokes } from '@avrelle/core/ink';

export interface StrokeTime {
  readonly from: number;
  readonly until: number;
}

/** What was drawn last. */
export interface LastInk {
  readonly id: string;
  /** When its last stroke began and ended, in milliseconds of the clock of the browser's events. */
  readonly time: StrokeTime;
  readonly strokes: Strokes;
  /** Tool, colour and width. */
  readonly look: string;
}

/** A stroke that begins so soon after the last, in milliseconds, and so near to it, in pixels, is part of one drawing. */
const SAME_WORD = 1_200;
const NEAR = 60;

/** What was drawn last, where strokes of a hand that writes go on with it. */
export const goingOn = (
  last: LastInk | undefined,
  { look, strokes, time }: Omit<LastInk, 'id'>,
): LastInk | undefined =>
  last?.look === look && time.from - last.time.until < SAME_WORD && isBeside(last.strokes, strokes) ? last : undefined;

function isBeside(a: Strokes, b: Strokes): boolean {
  const one = boxAround(a);
  const two = boxAround(b);
  return Boolean(
    one &&
    two &&
    two.left < one.left + one.width + NEAR &&
    two.left + two.width > one.left - NEAR &&
    two.top < one.top + one.height + NEAR / 2 &&
    two.top + two.height > one.top - NEAR / 2,
  );
}
