import { boxAround, type Strokes } from '@avrelle/core/ink';

/** What was drawn last. */
export interface LastInk {
  readonly id: string;
  /** When its last stroke ended, in milliseconds since 1970. */
  readonly until: number;
  readonly strokes: Strokes;
  /** Tool, colour and width. */
  readonly look: string;
}

/** Strokes that follow each other within this time, in milliseconds, and near each other, in pixels, are one drawing. */
const SAME_WORD = 1_200;
const NEAR = 60;

/** What was drawn last, where strokes of a hand that writes go on with it. */
export const goingOn = (
  last: LastInk | undefined,
  { look, strokes, until }: Omit<LastInk, 'id'>,
): LastInk | undefined =>
  last?.look === look && until - last.until < SAME_WORD && isBeside(last.strokes, strokes) ? last : undefined;

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
