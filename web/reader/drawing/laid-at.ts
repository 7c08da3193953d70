import { isNear } from '@avrelle/core/ink';
import type { Laid } from './laid';

/** A pointer need not hit a thin line exactly, in pixels. */
const REACH = 6;

/** Whether something drawn lies at a point: its line, or anywhere among its letters. */
export function liesAt({ strokes, width, box, lines }: Laid, x: number, y: number, reach = REACH): boolean {
  if (lines.length)
    return (
      x >= box.left - reach &&
      x <= box.left + box.width + reach &&
      y >= box.top - reach &&
      y <= box.top + box.height + reach
    );
  return isNear(strokes, x, y, width / 2 + reach);
}

/** What was drawn last of all that lies at a point. */
export const laidAt = (all: readonly Laid[], x: number, y: number): Laid | undefined =>
  all.findLast((laid) => liesAt(laid, x, y));
