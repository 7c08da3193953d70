import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { InkPoint, Strokes } from '@avrelle/core/ink';
import { LINE_HEIGHT, type Laid } from '../../drawing/laid';
import { cssColour, HELD_HINTS, isPlaced, type Held } from '../../drawing/tools';
import type { Drawing } from '../../drawing/use-drawing';
import { useEraser } from './use-eraser';
import { useLiveStroke } from './use-live-stroke';

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

const EVEN = 0.5;

/** A finger or mouse presses evenly; a pen as it is pressed. */
const pointOf = (event: Pressed, box: DOMRect): InkPoint => [
  event.clientX - box.left,
  event.clientY - box.top,
  event.pointerType === 'pen' ? event.pressure : EVEN,
];
type Pressed = Pick<globalThis.PointerEvent, 'clientX' | 'clientY' | 'pressure' | 'pointerType'>;

/** What the pointer does on the pad, by the tool that is held. */
function usePointer({ drawing, mine, onRubbed }: Props, onPlace: (at: Point) => void) {
  const { tool, width } = drawing;
  const stroke = useLiveStroke(drawing);
  const eraser = useEraser(mine, width, onRubbed);
  const began = useRef(0);
  /** Where a pen was seen, fingers scroll and palms do nothing. */
  const [hasPen, setHasPen] = useState(false);
  const place = (event: PointerEvent<HTMLDivElement>, point: InkPoint): void => {
    event.preventDefault();
    if (tool === 'sign') drawing.setDown([[point]]);
    else onPlace({ x: point[0], y: point[1] - width / 2 });
  };
  const down = (event: PointerEvent<HTMLDivElement>): void => {
    if (event.pointerType === 'pen') setHasPen(true);
    if (event.button !== 0 || (hasPen && event.pointerType === 'touch')) return;
    const point = pointOf(event, event.currentTarget.getBoundingClientRect());
    if (isPlaced(tool)) return place(event, point);
    event.currentTarget.setPointerCapture(event.pointerId);
    stroke.begin(point);
    began.current = event.timeStamp;
    if (tool === 'eraser') eraser.rub(point);
    else stroke.show();
  };
  const move = (event: PointerEvent<HTMLDivElement>): void => {
    if (!stroke.last()) return;
    const box = event.currentTarget.getBoundingClientRect();
    const all = event.nativeEvent.getCoalescedEvents?.() ?? [];
    for (const each of all.length ? all : [event.nativeEvent]) {
      const point = pointOf(each, box);
      if (tool === 'eraser') eraser.rub(point, stroke.last());
      stroke.add(point);
    }
    if (tool !== 'eraser') stroke.show();
  };
  const up = (event: PointerEvent<HTMLDivElement>): void => {
    const time = { from: began.current, until: event.timeStamp };
    const strokes = stroke.end();
    if (tool === 'eraser') drawing.rubOut(eraser.end());
    else if (strokes.length) drawing.setDown(strokes, { time });
  };
  const cancel = (): void => {
    stroke.end();
    eraser.end();
  };
  const pick = (): void => drawing.choose(undefined);
  return { path: stroke.path, hasPen, down: tool === 'move' ? pick : down, move, up, cancel };
}

/** Lies over the page while one draws, and takes the pointer. */
export function Pad(props: Props) {
  const { drawing } = props;
  const { tool, width, colour } = drawing;
  const [writing, setWriting] = useState<Point>();
  useEffect(() => {
    setWriting(undefined);
  }, [tool]);
  const { path, hasPen, down, move, up, cancel } = usePointer(props, setWriting);
  return (
    <div
      role="application"
      aria-label={HELD_HINTS[tool]}
      data-pad={tool}
      className={`absolute inset-0 ${tool === 'move' ? 'z-10' : 'z-20'} ${CURSORS[tool] ?? 'cursor-crosshair'} ${hasPen ? 'touch-pan-y' : 'touch-none'}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={cancel}
    >
      <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible" aria-hidden="true">
        <path
          ref={path}
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
            if (words) drawing.setDown([[[writing.x, writing.y, EVEN]]], { words });
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
      title="Enter adds them; Shift Enter begins a new line"
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
