import { useRef } from 'react';
import { shapePoints, type InkPoint, type Strokes, type Tool } from '@avrelle/core/ink';
import { inkPath } from '../../drawing/ink-path';
import { cssColour, isFreehand } from '../../drawing/tools';
import type { Drawing } from '../../drawing/use-drawing';

/** Shorter than this, in pixels, a drag of a shape was no drag. */
const LEAST = 4;

/** What is being drawn: it follows the pointer without React. */
export function useLiveStroke({ tool, width, colour, toneAt }: Pick<Drawing, 'tool' | 'width' | 'colour' | 'toneAt'>) {
  const path = useRef<SVGPathElement>(null);
  const points = useRef<InkPoint[]>([]);
  const strokesNow = (): Strokes => {
    const all = points.current;
    const first = all[0];
    const last = all.at(-1);
    if (!first || !last) return [];
    return [isFreehand(tool) ? all : shapePoints(tool as Tool, [first[0], first[1]], [last[0], last[1]])];
  };
  const show = (): void => {
    const node = path.current;
    const strokes = strokesNow();
    const { d, filled } = strokes.length ? inkPath(tool as Tool, strokes, width) : { d: '', filled: false };
    if (!node) return;
    node.setAttribute('d', d);
    node.style.fill = filled ? cssColour(colour, tool) : 'none';
    node.style.stroke = filled ? 'none' : cssColour(colour);
  };
  return {
    path,
    show,
    /** Where the pointer was last told of. */
    last: (): InkPoint | undefined => points.current.at(-1),
    begin: (at: InkPoint): void => {
      points.current = [at];
      path.current?.parentElement?.setAttribute('data-theme', toneAt(at[0], at[1]) ?? '');
    },
    add: (point: InkPoint): void => void points.current.push(point),
    /** Gives what was drawn, none where it was too little, and takes it from view. */
    end: (): Strokes => {
      const strokes = strokesNow();
      const [first, last] = [points.current[0], points.current.at(-1)];
      const far = first && last ? Math.hypot(last[0] - first[0], last[1] - first[1]) : 0;
      points.current = [];
      path.current?.setAttribute('d', '');
      return isFreehand(tool) || far >= LEAST ? strokes : [];
    },
  };
}
