import { useEffect, useMemo, useRef, type PointerEvent } from 'react';
import { throttle } from 'es-toolkit';
import { v7 } from 'uuid';
import { simplify, type InkPoint, type Strokes } from '@avrelle/core/ink';
import { useDocument } from '../../reader/document/document-context';
import { tieToPage, type Look } from '../../reader/drawing/tie-to-page';
import { useLiveStroke } from '../../reader/regions/drawing/use-live-stroke';
import { useSession } from '../../reader/session/reader-context';
import { toneOn } from '../../page/spot-box';
import { useLatest } from '../../ui/use-latest';
import { useRoom } from '../room-context';

/** What the hand of who shows holds: nothing, so that words can be selected, or something to show with. */
export const HELD = ['hand', 'pointer', 'pen', 'broad'] as const;
export type Held = (typeof HELD)[number];

const POINTS = 'cursor-default touch-pan-y';
const DRAWS = 'cursor-crosshair touch-none';
const POINTER_EVERY = 40;
const STROKE_EVERY = 80;
/** How far a simplified stroke may lie beside what the hand drew, in pixels. */
const TRUE_TO = 0.4;
const EVEN = 0.5;
/** A stroke is sent whole as it grows, to every screen: a long one is several. */
const MOST_POINTS = 300;
const LOOKS: Readonly<Record<'pointer' | 'pen' | 'broad', Look>> = {
  pointer: { tool: 'pen', colour: 'madder', width: 1 },
  pen: { tool: 'pen', colour: 'madder', width: 3 },
  broad: { tool: 'broad', colour: 'weld', width: 18 },
};

interface Stroke {
  readonly id: string;
  readonly points: InkPoint[];
}

/** Ties what is drawn here, in pixels, to the words or the picture it lies on. */
function useTied() {
  const { source } = useSession();
  const { page, blocks } = useDocument();
  return (strokes: Strokes, look: Look) =>
    page &&
    tieToPage({ adapter: page.adapter, blocks, language: source.language, wordsOverPages: true }, strokes, look);
}

/** Telling the class of the pointer and of strokes, as often as they can follow. */
function useTelling(look: Look) {
  const room = useRoom();
  const latest = useLatest({ tied: useTied(), look });
  const tell = useMemo(() => {
    const point = (at: InkPoint | null): void =>
      room.say({ type: 'pointer', at: at ? (latest.current.tied([[at]], latest.current.look) ?? null) : null });
    const ink = ({ id, points }: Stroke): void => {
      const drawn = latest.current.tied([simplify(points, TRUE_TO)], latest.current.look);
      if (drawn) room.say({ type: 'ink', id, ink: drawn });
    };
    return { point, ink, pointOften: throttle(point, POINTER_EVERY), inkOften: throttle(ink, STROKE_EVERY) };
  }, [room, latest]);
  useEffect(
    () => () => {
      tell.pointOften.cancel();
      tell.inkOften.cancel();
    },
    [tell],
  );
  return tell;
}

const pointOf = (event: PointerEvent<HTMLDivElement>): InkPoint => {
  const box = event.currentTarget.getBoundingClientRect();
  return [event.clientX - box.left, event.clientY - box.top, event.pointerType === 'pen' ? event.pressure : EVEN];
};

/** Lies over the page of who shows, and takes their pointer: what it does, the class sees. */
export function ShowingPad({ held }: { readonly held: Exclude<Held, 'hand'> }) {
  const { page } = useDocument();
  const look = LOOKS[held];
  const stroke = useLiveStroke({
    tool: held === 'pointer' ? 'pen' : held,
    width: look.width,
    colour: look.colour,
    toneAt: (x, y) => toneOn(page?.adapter.holderAt(x, y)?.on),
  });
  const drawing = useRef<Stroke>(undefined);
  const tell = useTelling(look);
  const { point } = tell;
  useEffect(() => (held === 'pointer' ? () => point(null) : undefined), [held, point]);
  const end = (): void => {
    if (!drawing.current) return;
    tell.inkOften.cancel();
    tell.ink(drawing.current);
    drawing.current = undefined;
    stroke.end();
  };
  const begin = (at: InkPoint): void => {
    drawing.current = { id: v7(), points: [at] };
    stroke.begin(at);
    stroke.show();
  };
  const down = (event: PointerEvent<HTMLDivElement>): void => {
    if (held === 'pointer' || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    begin(pointOf(event));
  };
  const move = (event: PointerEvent<HTMLDivElement>): void => {
    const at = pointOf(event);
    if (held === 'pointer') return tell.pointOften(at);
    if (!drawing.current) return;
    drawing.current.points.push(at);
    stroke.add(at);
    stroke.show();
    if (drawing.current.points.length < MOST_POINTS) return tell.inkOften(drawing.current);
    end();
    begin(at);
  };
  return (
    <div
      role="application"
      aria-label={held === 'pointer' ? 'What you point at, the class sees' : 'What you draw here, the class sees'}
      data-showing={held}
      className={`absolute inset-0 z-20 ${held === 'pointer' ? POINTS : DRAWS}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
      onPointerLeave={() => held === 'pointer' && tell.pointOften(null)}
    >
      <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible" aria-hidden="true">
        <path ref={stroke.path} strokeWidth={look.width} strokeLinecap="round" opacity={held === 'broad' ? 0.6 : 1} />
      </svg>
    </div>
  );
}
