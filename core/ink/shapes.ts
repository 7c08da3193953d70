import type { InkPoint, Tool } from './drawing';

/** Every few pixels a point, so that each piece of a shape is tied to the words it lies at. */
const STEP = 6;
const EVEN = 0.5;

/** A straight line, an arrow's shaft, a box or an ellipse from one corner to the other, as points to be tied like ink. */
export function shapePoints(tool: Tool, from: readonly [number, number], to: readonly [number, number]): InkPoint[] {
  const [x1, y1] = from;
  const [x2, y2] = to;
  switch (tool) {
    case 'box':
      return [
        [x1, y1],
        [x2, y1],
        [x2, y2],
        [x1, y2],
        [x1, y1],
      ].flatMap((corner, n, all) =>
        n === 0 ? [[corner[0]!, corner[1]!, EVEN] as const] : between(all[n - 1]!, corner),
      );
    case 'ellipse': {
      const steps = Math.max(24, Math.ceil(((Math.abs(x2 - x1) + Math.abs(y2 - y1)) * 1.6) / STEP));
      return Array.from({ length: steps + 1 }, (_, n): InkPoint => {
        const angle = (2 * Math.PI * n) / steps;
        return [
          (x1 + x2) / 2 + (Math.cos(angle) * (x2 - x1)) / 2,
          (y1 + y2) / 2 + (Math.sin(angle) * (y2 - y1)) / 2,
          EVEN,
        ];
      });
    }
    default:
      return [[x1, y1, EVEN], ...between([x1, y1], [x2, y2])];
  }
}

function between(a: readonly number[], b: readonly number[]): InkPoint[] {
  const steps = Math.max(1, Math.ceil(Math.hypot(b[0]! - a[0]!, b[1]! - a[1]!) / STEP));
  return Array.from({ length: steps }, (_, n): InkPoint => [
    a[0]! + ((b[0]! - a[0]!) * (n + 1)) / steps,
    a[1]! + ((b[1]! - a[1]!) * (n + 1)) / steps,
    EVEN,
  ]);
}

/** The two barbs of an arrow whose shaft is given: three points, the tip in the middle. `size` in pixels. */
export function arrowHead(shaft: readonly InkPoint[], size: number): readonly (readonly [number, number])[] {
  const tip = shaft.at(-1);
  const from = shaft.findLast(([x, y]) => tip && Math.hypot(x - tip[0], y - tip[1]) > size / 2) ?? shaft[0];
  if (!tip || !from) return [];
  const angle = Math.atan2(tip[1] - from[1], tip[0] - from[0]);
  const barb = (turn: number): readonly [number, number] => [
    tip[0] - size * Math.cos(angle + turn),
    tip[1] - size * Math.sin(angle + turn),
  ];
  return [barb(0.45), [tip[0], tip[1]], barb(-0.45)];
}

/** Points that are needed to draw a stroke within `tolerance` pixels of itself (Ramer 1972; Douglas and Peucker 1973). */
export function simplify(points: readonly InkPoint[], tolerance: number): readonly InkPoint[] {
  if (points.length < 3) return points;
  const keep = new Set([0, points.length - 1]);
  const open: [number, number][] = [[0, points.length - 1]];
  for (let part = open.pop(); part; part = open.pop()) {
    const [from, to] = part;
    const a = points[from]!;
    const b = points[to]!;
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    let farthest = -1;
    let most = tolerance;
    for (let n = from + 1; n < to; n++) {
      const [x, y] = points[n]!;
      const away =
        length === 0
          ? Math.hypot(x - a[0], y - a[1])
          : Math.abs((b[0] - a[0]) * (a[1] - y) - (a[0] - x) * (b[1] - a[1])) / length;
      if (away > most) {
        most = away;
        farthest = n;
      }
    }
    if (farthest >= 0) {
      keep.add(farthest);
      open.push([from, farthest], [farthest, to]);
    }
  }
  return points.filter((_, n) => keep.has(n));
}
