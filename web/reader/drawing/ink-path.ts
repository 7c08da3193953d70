import { getStroke } from 'perfect-freehand';
import { arrowHead, type InkPoint, type Strokes, type Tool } from '@avrelle/core/ink';

/** How something drawn is drawn again: filled for what a pen left, else a line of one width. */
export interface InkPath {
  readonly d: string;
  readonly filled: boolean;
}

const EVEN = 0.5;
const round = (value: number): string => String(Math.round(value * 10) / 10);
const through = (points: readonly (readonly number[])[]): string =>
  points.map(([x, y], n) => `${n === 0 ? 'M' : 'L'}${round(x!)} ${round(y!)}`).join('');

/** SVG path data of strokes in pixels. A pen's line is broader where it was pressed, or, where no pressure is told, slower. */
export function inkPath(tool: Tool, strokes: Strokes, width: number): InkPath {
  if (tool === 'pen' || tool === 'broad')
    return { filled: true, d: strokes.map((stroke) => outline(stroke, width, tool === 'broad')).join('') };
  const lines = strokes.map(through).join('');
  if (tool !== 'arrow') return { filled: false, d: lines };
  return { filled: false, d: lines + through(arrowHead(strokes.at(-1) ?? [], Math.max(9, width * 4))) };
}

function outline(stroke: readonly InkPoint[], width: number, even: boolean): string {
  const pressed = !even && stroke.some(([, , pressure]) => pressure !== EVEN);
  const points = getStroke(stroke as unknown as number[][], {
    size: width,
    thinning: even ? 0 : 0.55,
    smoothing: 0.5,
    streamline: 0.25,
    simulatePressure: !even && !pressed,
    last: true,
  });
  const first = points[0];
  if (!first) return '';
  return (
    points.reduce(
      (path, [x, y], n) => {
        const [nx, ny] = points[(n + 1) % points.length]!;
        return `${path}Q${round(x!)} ${round(y!)} ${round((x! + nx!) / 2)} ${round((y! + ny!) / 2)}`;
      },
      `M${round(first[0]!)} ${round(first[1]!)}`,
    ) + 'Z'
  );
}
