import type { PersonId } from '@avrelle/core/wire';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { spotName } from '@avrelle/core/anchor';
import type { InkPoint, Strokes } from '@avrelle/core/ink';
import type { Thread } from '../../model/thread';
import { toneOn } from '../../../page/spot-box';
import { inkPath } from '../../drawing/ink-path';
import { LINE_HEIGHT, type Laid } from '../../drawing/laid';
import { cssColour } from '../../drawing/tools';

interface Props {
  readonly laid: readonly Laid[];
  readonly opened: ReadonlySet<string>;
  /** What an eraser has left so far of what it touched. */
  readonly rubbed: ReadonlyMap<Laid, Strokes>;
  /** While things drawn are moved: whose they may be, and which is chosen. */
  readonly moving?:
    | {
        readonly me: PersonId;
        readonly chosen: string | undefined;
        choose(id: string | undefined): void;
        redraw(drawing: Laid, strokes: Strokes): void;
        open(id: string): void;
      }
    | undefined;
}

/** Everything drawn on the page, over the frame. While moving, each of one's own can be taken hold of. */
export function Ink({ laid, opened, rubbed, moving }: Props) {
  if (laid.length === 0) return null;
  const drawn = (each: Laid) => {
    const strokes = rubbed.get(each) ?? each.strokes;
    const { root } = each.thread;
    if (strokes.length === 0) return null;
    const { tied } = each.spot;
    const tone = toneOn(tied.to === 'picture' ? tied.on : undefined);
    if (moving && root.author.id === moving.me)
      return (
        <g key={root.id} data-theme={tone}>
          <Movable laid={each} moving={moving} />
        </g>
      );
    return (
      <g key={root.id} data-theme={tone} role="img" aria-label={nameOf(each.thread)}>
        <Figure laid={each} strokes={strokes} open={opened.has(root.id)} />
      </g>
    );
  };
  const broad = laid.filter((each) => each.spot.tool === 'broad');
  const fine = laid.filter((each) => each.spot.tool !== 'broad');
  return (
    <>
      {broad.length > 0 && (
        <svg
          className="shines-through pointer-events-none absolute inset-0 z-[14] h-full w-full overflow-visible"
          role="group"
          aria-label="Drawn with the broad pen"
        >
          {broad.map(drawn)}
        </svg>
      )}
      {fine.length > 0 && (
        <svg
          className="pointer-events-none absolute inset-0 z-[15] h-full w-full overflow-visible"
          role="group"
          aria-label="Drawings"
        >
          {fine.map(drawn)}
        </svg>
      )}
    </>
  );
}

const nameOf = ({ root }: Thread): string =>
  `${root.anchor?.spot ? spotName(root.anchor.spot) : ''}, ${root.author.name}: ${(root.note || root.anchor?.quote.exact || '').slice(0, 60)}`;

/** One drawing. `strokes` may be other than where it stands, while it is on its way. */
function Figure({
  laid: { spot, width, lines, thread },
  strokes,
  open,
}: {
  laid: Laid;
  strokes: Strokes;
  open: boolean;
}) {
  const colour = spot.tool === 'sign' ? cssColour(thread.root.kind.pigment) : cssColour(spot.colour, spot.tool);
  const at = strokes[0]?.[0];
  if (lines.length && at) {
    return (
      <text
        fill={colour}
        fontSize={width}
        className={spot.tool === 'sign' ? 'font-ui font-bold' : 'font-read'}
        style={open ? { textDecoration: 'underline', textDecorationColor: 'var(--tide)' } : undefined}
      >
        {lines.map((line, n) => (
          <tspan key={n} x={at[0]} y={at[1] + width * (0.92 + n * LINE_HEIGHT)}>
            {line}
          </tspan>
        ))}
      </text>
    );
  }
  const { d, filled } = inkPath(spot.tool, strokes, width);
  return (
    <>
      {open && (
        <path
          d={inkPath('line', strokes, 1).d}
          fill="none"
          stroke="var(--tide)"
          strokeOpacity={0.35}
          strokeWidth={width + 8}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
      <path
        d={d}
        data-tool={spot.tool}
        {...(filled
          ? { fill: colour }
          : { fill: 'none', stroke: colour, strokeWidth: width, strokeLinecap: 'round', strokeLinejoin: 'round' })}
      />
    </>
  );
}

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const FAR = 10;

type Moving = NonNullable<Props['moving']>;

/** Where a drawing is while it is moved; it is set down when the key or the pointer is let go. */
function useMoved(laid: Laid, moving: Moving) {
  const { box } = laid;
  const from = useRef<{ x: number; y: number }>(undefined);
  const [moved, setMoved] = useState<{ dx: number; dy: number; grown: number }>(HERE);
  const at = ([x, y, p]: InkPoint): InkPoint => [
    box.left + (x - box.left) * moved.grown + moved.dx,
    box.top + (y - box.top) * moved.grown + moved.dy,
    p,
  ];
  const strokes = moved === HERE ? laid.strokes : laid.strokes.map((stroke) => stroke.map(at));
  const settle = (): void => {
    from.current = undefined;
    if (moved === HERE) return;
    setMoved(HERE);
    if (moved.dx || moved.dy || moved.grown !== 1) moving.redraw(laid, strokes);
  };
  const onKey = (event: KeyboardEvent): void => {
    const [dx, dy] = ARROWS[event.key] ?? [0, 0];
    const by = event.shiftKey ? FAR : 1;
    if (event.key === 'Enter') moving.open(laid.thread.root.id);
    else if (event.key === 'Escape' && moved !== HERE) setMoved(HERE);
    else if (dx === 0 && dy === 0) return;
    else if (event.altKey)
      setMoved((m) => ({ ...m, grown: Math.max(0.1, m.grown * (1 + ((dx || -dy) * by) / Math.max(20, box.width))) }));
    else setMoved((m) => ({ ...m, dx: m.dx + dx * by, dy: m.dy + dy * by }));
    event.preventDefault();
    event.stopPropagation();
  };
  const onDown = (event: PointerEvent<SVGGElement>): void => {
    event.preventDefault();
    event.currentTarget.focus({ preventScroll: true });
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { x: event.clientX, y: event.clientY };
  };
  const onMove = (event: PointerEvent): void => {
    const start = from.current;
    if (start) setMoved({ dx: event.clientX - start.x, dy: event.clientY - start.y, grown: 1 });
  };
  const shown = {
    left: box.left + moved.dx,
    top: box.top + moved.dy,
    width: box.width * moved.grown,
    height: box.height * moved.grown,
  };
  return { strokes, shown, settle, onKey, onDown, onMove, leave: () => setMoved(HERE) };
}

/** Moved by dragging, or by the arrow keys: a pixel, with Shift ten; with Alt it grows or shrinks. */
function Movable({ laid, moving }: { readonly laid: Laid; readonly moving: Moving }) {
  const { root } = laid.thread;
  const isChosen = moving.chosen === root.id;
  const { strokes, shown, settle, onKey, onDown, onMove, leave } = useMoved(laid, moving);
  return (
    <g
      tabIndex={0}
      role="button"
      aria-pressed={isChosen}
      aria-label={`${nameOf(laid.thread)}. ${Math.round(shown.left)} from the left, ${Math.round(shown.top)} from the top`}
      data-drawing={root.id}
      className="group pointer-events-auto cursor-move touch-none outline-none"
      onFocus={() => moving.choose(root.id)}
      onKeyDown={onKey}
      onKeyUp={(e) => {
        if (ARROWS[e.key]) settle();
      }}
      onBlur={settle}
      onDoubleClick={() => moving.open(root.id)}
      onPointerDown={onDown}
      onPointerMove={onMove}
      onPointerUp={settle}
      onPointerCancel={leave}
    >
      <rect
        x={shown.left - 5}
        y={shown.top - 5}
        width={shown.width + 10}
        height={shown.height + 10}
        fill="transparent"
        stroke={isChosen ? 'var(--tide)' : 'none'}
        strokeDasharray="5 4"
        strokeWidth={1.5}
        className="group-focus-visible:[stroke-width:2.5]"
      />
      <Figure laid={laid} strokes={strokes} open={false} />
    </g>
  );
}

const HERE = { dx: 0, dy: 0, grown: 1 };
