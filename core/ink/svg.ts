import type { DrawnSpot, InkBox } from './drawing';
import { layOut, type Strokes } from './tie';

/** Letters are about half as wide as a line is high. */
const LETTER = 0.5;

/**
 * A drawing as SVG (W3C SVG 2), as in an SvgSelector of the Web Annotation Data Model (4.2.7). On a page or picture one
 * unit is the whole of it, both ways; over words one unit is the height of a line, the words set on one line from 0, 0.
 */
export function toSvg(spot: DrawnSpot, quoteLength: number): string {
  const unit: InkBox = { left: 0, top: 0, width: 1, height: 1 };
  const line = (start: number, end: number): InkBox[] => [
    { left: start * LETTER, top: 0, width: (end - start) * LETTER, height: 1 },
  ];
  const laid = layOut(spot.tied, quoteLength, line, () => unit)!;
  const stroke = spot.tied.to === 'picture' ? spot.width / 1_000 : spot.width;
  return `<svg xmlns="http://www.w3.org/2000/svg"${spot.tied.to === 'picture' ? ' viewBox="0 0 1 1"' : ''}><path fill="none" stroke-width="${number(stroke)}" d="${pathOf(laid.strokes)}"/></svg>`;
}

const number = (value: number): string => String(Math.round(value * 10_000) / 10_000);
const pathOf = (strokes: Strokes): string =>
  strokes.map((stroke) => `M${stroke.map(([x, y]) => `${number(x)} ${number(y)}`).join('L')}`).join('');
