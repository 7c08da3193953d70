import { useRef } from 'react';
import { erase, type InkPoint, type Strokes } from '@avrelle/core/ink';
import type { Laid } from '../../drawing/laid';
import { liesAt } from '../../drawing/laid-at';
import { isFreehand } from '../../drawing/tools';

export type Rubbed = ReadonlyMap<Laid, Strokes>;

interface Circle {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** What an eraser has left of what it touched, until the pointer lets go. `onRubbed` is told of every change. */
export function useEraser(mine: readonly Laid[], width: number, onRubbed: (left: Rubbed) => void) {
  const rubbed = useRef(new Map<Laid, Strokes>());
  const rubAt = (at: Circle): boolean => {
    let changed = false;
    for (const laid of mine) {
      const before = rubbed.current.get(laid) ?? laid.strokes;
      const after = rubbedOut(laid, before, at);
      if (after === before) continue;
      rubbed.current.set(laid, after);
      changed = true;
    }
    return changed;
  };
  return {
    /** Also between where the pointer was told of: a quick hand leaves no gaps. */
    rub: (to: InkPoint, from: InkPoint = to): void => {
      const radius = width / 2;
      const steps = Math.max(1, Math.ceil((2 * Math.hypot(to[0] - from[0], to[1] - from[1])) / radius));
      const changed = Array.from({ length: steps }, (_, n) => {
        const share = (n + 1) / steps;
        return rubAt({ x: from[0] + (to[0] - from[0]) * share, y: from[1] + (to[1] - from[1]) * share, radius });
      });
      if (changed.includes(true)) onRubbed(new Map(rubbed.current));
    },
    /** Gives what was rubbed out, and begins anew. */
    end: (): Rubbed => {
      const done = rubbed.current;
      rubbed.current = new Map();
      onRubbed(rubbed.current);
      return done;
    },
  };
}

/** What an eraser leaves of a drawing: of lines what it did not touch, of anything else all or nothing. */
function rubbedOut(laid: Laid, before: Strokes, { x, y, radius }: Circle): Strokes {
  if (isFreehand(laid.spot.tool)) return erase(before, x, y, radius + laid.width / 2);
  const isTouched = before.length > 0 && liesAt({ ...laid, strokes: before }, x, y, radius);
  return isTouched ? [] : before;
}
