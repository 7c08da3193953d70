import type { AreaSpot, Spot } from '@avrelle/core/anchor';
import { boxAround, layOut, type InkBox, type LaidOut, type Tied } from '@avrelle/core/ink';
import type { Box, PageAdapter, StreamRange } from './page-frame';

/** Where an area stands, in pixels as shown; undefined where what it lies on is not shown. */
export function areaBox(adapter: PageAdapter, { on, x, y, width, height }: AreaSpot): Box | undefined {
  const box = adapter.holder(on);
  return (
    box && {
      left: box.left + x * box.width,
      top: box.top + y * box.height,
      width: width * box.width,
      height: height * box.height,
    }
  );
}

/** Where ink tied to the words of a range, or to a picture, stands now. Words that were taken out of the range bear none. */
export function inkOn(adapter: PageAdapter, tied: Tied, { start, end }: StreamRange): LaidOut | undefined {
  return layOut(
    tied,
    end - start,
    (from, to) => (start + from < end ? adapter.boxes({ start: start + from, end: Math.min(start + to, end) }) : []),
    (on) => adapter.holder(on),
  );
}

/** A picture is as light by night as by day: what lies on it keeps the tones of the day. */
export const toneOn = (on: AreaSpot['on'] | undefined): 'day' | undefined =>
  on && 'picture' in on ? 'day' : undefined;

/** The box of what is no words but has one: an area, or something drawn. */
export function boxOfSpot(adapter: PageAdapter, spot: Spot, range: StreamRange): InkBox | undefined {
  if (spot.type === 'area') return areaBox(adapter, spot);
  const laid = spot.type === 'drawn' ? inkOn(adapter, spot.tied, range) : undefined;
  return laid && boxAround(laid.strokes);
}
