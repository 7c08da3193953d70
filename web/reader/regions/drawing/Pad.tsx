import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { erase, shapePoints, type InkPoint, type Strokes, type Tool } from '@avrelle/core/ink';
import { inkPath } from '../../drawing/ink-path';
import { LINE_HEIGHT, type Laid } from '../../drawing/laid';
import { liesAt } from '../../drawing/laid-at';
import { cssColour, HELD_HINTS, isFreehand, isPlaced, type Held } from '../../drawing/tools';
import type { Drawing } from '../../drawing/use-drawing';

interface Props {
  readonly drawing: Drawing;
  /** What an eraser may touch: one's own. */
  readonly mine: readonly Laid[];
  onRubbed(left: ReadonlyMap<Laid, Strokes>): void;
}

interface Point {
  readonly x: number;
  readonly y: number;
}

/** Shorter than this, in pixels, a drag of a shape was no drag. */
const LEAST = 4;
const EVEN = 0.5;

/** Lies over the page while one draws, and takes the pointer. What is being drawn follows it without React. */
export function Pad({ drawing, mine, onRubbed }: Props) {
  const { tool, width, colour } = drawing;
  const live = useRef<SVGPathElement>(null);
  const points = useRef<InkPoint[]>([]);
  const rubbed = useRef(new Map<Laid, Strokes>());
  const [writing, setWriting] = useState<Point>();
  /** Where a pen was seen, fingers scroll and palms do nothing. */
  const [hasPen, setHasPen] = useState(false);
  useEffect(() => {
    setWriting(undefined);
  }, [tool]);

  const pointOf = (
    event: { clientX: number; clientY: number; pressure: number; pointerType: string },
    box: DOMRect,
  ): InkPoint => [
    event.clientX - box.left,
    event.clientY - box.top,
    event.pointerType === 'pen' ? event.pressure : EVEN,
  ];
  const strokesNow = (): Strokes => {
    const all = points.current;
    const first = all[0];
    const last = all.at(-1);
    if (!first || !last) return [];
    return [isFreehand(tool) ? all : shapePoints(tool as Tool, [first[0], first[1]], [last[0], last[1]])];
  };
  const show = (): void => {
    const strokes = strokesNow();
    const { d, filled } = strokes.length ? inkPath(tool as Tool, strokes, width) : { d: '', filled: false };
    const node = live.current;
    if (!node) return;
    node.setAttribute('d', d);
    node.style.fill = filled ? cssColour(colour, tool) : 'none';
    node.style.stroke = filled ? 'none' : cssColour(colour);
  };
  /** Also between where the pointer was told of: a quick hand leaves no gaps. */
  const rub = (to: InkPoint, from: InkPoint = to): void => {
    const radius = width / 2;
    const steps = Math.max(1, Math.ceil((2 * Math.hypot(to[0] - from[0], to[1] - from[1])) / radius));
    const former = [...rubbed.current.values()];
    for (let step = 1; step <= steps; step++) {
      const x = from[0] + ((to[0] - from[0]) * step) / steps;
      const y = from[1] + ((to[1] - from[1]) * step) / steps;
      for (const laid of mine) {
        const before = rubbed.current.get(laid) ?? laid.strokes;
        const after = rubbedOut(laid, before, { x, y, radius });
        if (after !== before) rubbed.current.set(laid, after);
      }
    }
    const now = [...rubbed.current.values()];
    if (now.length !== former.length || now.some((strokes, n) => strokes !== former[n]))
      onRubbed(new Map(rubbed.current));
  };

  const down = (event: PointerEvent<HTMLDivElement>): void => {
    if (event.pointerType === 'pen') setHasPen(true);
    if (event.button !== 0 || (hasPen && event.pointerType === 'touch') || tool === 'move') return;
    const point = pointOf(event, event.currentTarget.getBoundingClientRect());
    if (isPlaced(tool)) {
      event.preventDefault();
      if (tool === 'sign') drawing.setDown([[point]]);
      else setWriting({ x: point[0], y: point[1] - width / 2 });
      return;
    }
    event.currentTarget.setPointerCapture(event.pointerId);
    points.current = [point];
    live.current?.parentElement?.setAttribute('data-theme', drawing.toneAt(point[0], point[1]) ?? '');
    if (tool === 'eraser') rub(point);
    else show();
  };
  const move = (event: PointerEvent<HTMLDivElement>): void => {
    if (points.current.length === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    const all = event.nativeEvent.getCoalescedEvents?.() ?? [];
    for (const each of all.length ? all : [event.nativeEvent]) {
      const point = pointOf(each, box);
      if (tool === 'eraser') {
        rub(point, points.current[0]);
        points.current = [point];
      } else points.current.push(point);
    }
    if (tool !== 'eraser') show();
  };
  const up = (): void => {
    const strokes = strokesNow();
    const [first, last] = [points.current[0], points.current.at(-1)];
    const far = first && last ? Math.hypot(last[0] - first[0], last[1] - first[1]) : 0;
    points.current = [];
    if (tool === 'eraser') {
      drawing.rubOut(rubbed.current);
      rubbed.current = new Map();
      onRubbed(rubbed.current);
    } else if (strokes.length && (isFreehand(tool) || far >= LEAST)) drawing.setDown(strokes);
    live.current?.setAttribute('d', '');
  };
  const cancel = (): void => {
    points.current = [];
    rubbed.current = new Map();
    onRubbed(rubbed.current);
    live.current?.setAttribute('d', '');
  };

  return (
    <div
      role="application"
      aria-label={HELD_HINTS[tool]}
      data-pad={tool}
      className={`absolute inset-0 ${tool === 'move' ? 'z-10' : 'z-20'} ${CURSORS[tool] ?? 'cursor-crosshair'} ${hasPen ? 'touch-pan-y' : 'touch-none'}`}
      onPointerDown={tool === 'move' ? () => drawing.choose(undefined) : down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={cancel}
    >
      <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible" aria-hidden="true">
        <path
          ref={live}
          strokeWidth={width}
          strokeLinecap="round"
          strokeLinejoin="round"
          opacity={tool === 'broad' ? 0.6 : 1}
        />
      </svg>
      {writing && (
        <WordsHere
          tone={drawing.toneAt(writing.x, writing.y)}
          key={`${writing.x} ${writing.y}`}
          at={writing}
          size={width}
          colour={cssColour(colour)}
          onDone={(words) => {
            setWriting(undefined);
            if (words) drawing.setDown([[[writing.x, writing.y, EVEN]]], words);
          }}
        />
      )}
    </div>
  );
}

const CURSORS: Partial<Record<Held, string>> = {
  move: 'cursor-default',
  text: 'cursor-text',
  sign: 'cursor-copy',
  eraser: 'cursor-cell',
};

/** Words written on the page itself: Enter sets them down, Escape leaves them. */
function WordsHere({
  tone,
  at,
  size,
  colour,
  onDone,
}: {
  tone: 'day' | undefined;
  at: Point;
  size: number;
  colour: string;
  onDone: (words: string) => void;
}) {
  const [words, setWords] = useState('');
  const done = useRef(false);
  const end = (said: string): void => {
    if (!done.current) {
      done.current = true;
      onDone(said.trim());
    }
  };
  const onKey = (event: KeyboardEvent): void => {
    if (event.key === 'Enter' && !event.shiftKey) {
      event.preventDefault();
      end(words);
    }
    if (event.key === 'Escape') {
      event.stopPropagation();
      end('');
    }
  };
  const longest = Math.max(8, ...words.split('\n').map((line) => line.length + 2));
  return (
    <textarea
      autoFocus
      data-theme={tone}
      aria-label="Words on the page"
      title="Enter sets them down; Shift Enter begins a line"
      rows={words.split('\n').length}
      value={words}
      onChange={(e) => setWords(e.target.value)}
      onKeyDown={onKey}
      onBlur={() => end(words)}
      onPointerDown={(e) => e.stopPropagation()}
      className="absolute resize-none overflow-hidden border-0 border-b border-dashed border-tide bg-sheet/80 p-0 font-read outline-none"
      style={{
        left: at.x,
        top: at.y,
        fontSize: size,
        lineHeight: LINE_HEIGHT,
        color: colour,
        width: `${longest * 0.62}em`,
      }}
    />
  );
}

/** What an eraser leaves of a drawing: of lines what it did not touch, of anything else all or nothing. */
function rubbedOut(laid: Laid, before: Strokes, { x, y, radius }: { x: number; y: number; radius: number }): Strokes {
  if (isFreehand(laid.spot.tool)) return erase(before, x, y, radius + laid.width / 2);
  const isTouched = before.length > 0 && liesAt({ ...laid, strokes: before }, x, y, radius);
  return isTouched ? [] : before;
}
