import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import {
  around,
  charactersIn,
  snapEdge,
  stepEdge,
  textDirection,
  wordsIn,
  type Edge,
  type Piece,
  type Unit,
} from '@avrelle/core/text';
import type { SourceText } from '@avrelle/core/wire';
import type { Box, StreamRange } from '../../../page/page-frame';
import type { Thread } from '../../model/thread';
import { sentencesOf } from '../../../page/text-index';
import type { OpenPage } from '../../document/use-page';

interface Props {
  readonly page: OpenPage;
  /** Changes with every layout of the page. */
  readonly layout: number;
  readonly thread: Thread;
  readonly text: SourceText;
  readonly language: string;
  /** A press at a point of the frame, without a drag: it means what lies beneath. */
  onPress(x: number, y: number): void;
  /** As the passage shall be from now on. */
  onMove(range: StreamRange): void;
}

/** Pixels a press may move and still be none of a drag. */
const STILL = 3;

const KEYS: Readonly<Record<string, readonly [Unit, 1 | -1]>> = {
  ArrowRight: ['word', 1],
  ArrowLeft: ['word', -1],
  ArrowDown: ['sentence', 1],
  ArrowUp: ['sentence', -1],
  PageDown: ['paragraph', 1],
  PageUp: ['paragraph', -1],
};
/** Keys that point along the line, whichever way it is read. */
const isAside = (key: string): boolean => key === 'ArrowRight' || key === 'ArrowLeft';
const NAMES: Readonly<Record<Edge, string>> = { start: 'Beginning of the mark', end: 'End of the mark' };

/** Two handles at the ends of the open mark: dragged from word to word, or moved with the keys and settled with Enter. */
export function RangeHandles({ page, layout, thread, text, language, onPress, onMove }: Props) {
  const [tried, setTried] = useState<StreamRange>();
  const range = tried ?? thread.range;
  const { adapter, painter } = page;
  const pieces = (unit: Unit): readonly Piece[] => {
    if (unit === 'paragraph') return adapter.stream.outline;
    if (unit === 'sentence') return sentencesOf(text, language);
    const read = unit === 'word' ? wordsIn : charactersIn;
    return [...around(text.outline, range.start), ...around(text.outline, range.end)]
      .filter((b, n, all) => all.indexOf(b) === n)
      .flatMap((b) => read(text.text, b, language || 'en'));
  };
  const rightToLeft = textDirection(text.text.slice(range.start, range.end), language) === 'rtl';
  const latest = useRef({ tried, onMove });
  useEffect(() => {
    latest.current = { tried, onMove };
  });
  useEffect(() => {
    painter.grown(tried);
  }, [painter, tried]);
  useEffect(() => () => painter.grown(undefined), [painter]);
  const grow = (to: StreamRange): void => setTried(adapter.grown(thread.range, to));
  const settle = (): void => {
    const { tried: to, onMove: move } = latest.current;
    setTried(undefined);
    if (to && (to.start !== thread.range.start || to.end !== thread.range.end)) move(to);
  };
  const onKey =
    (edge: Edge) =>
    (event: KeyboardEvent): void => {
      const [unit, direction] = KEYS[event.key] ?? [];
      if (event.key === 'Escape') setTried(undefined);
      else if (event.key === 'Enter') settle();
      else if (unit && direction)
        grow(
          stepEdge(
            range,
            edge,
            isAside(event.key) && rightToLeft ? opposite(direction) : direction,
            pieces(event.shiftKey && unit === 'word' ? 'character' : unit),
          ),
        );
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
  const pressedAt = useRef<{ readonly x: number; readonly y: number }>(undefined);
  const release = (event: PointerEvent<HTMLElement>): void => {
    const from = pressedAt.current;
    const frame = event.currentTarget.parentElement!.getBoundingClientRect();
    if (from && Math.hypot(event.clientX - from.x, event.clientY - from.y) < STILL) {
      setTried(undefined);
      onPress(event.clientX - frame.left, event.clientY - frame.top);
    } else settle();
  };
  const drag =
    (edge: Edge) =>
    (event: PointerEvent<HTMLElement>): void => {
      if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
      const frame = event.currentTarget.parentElement!.getBoundingClientRect();
      const offset = adapter.offsetAt(event.clientX - frame.left, event.clientY - frame.top);
      if (offset === undefined) return;
      const near = around(text.outline, offset).flatMap((b) =>
        (event.altKey ? charactersIn : wordsIn)(text.text, b, language || 'en'),
      );
      grow(snapEdge(range, edge, offset, near));
    };
  const boxes = layout > 0 ? adapter.boxes(range) : [];
  const first = boxes[0];
  const last = boxes.at(-1);
  if (!first || !last) return null;
  const from = (box: Box): number => box.left - 13;
  const to = (box: Box): number => box.left + box.width - 11;
  const place: Readonly<Record<Edge, { left: number; top: number; height: number }>> = {
    start: { left: rightToLeft ? to(first) : from(first), top: first.top - 4, height: first.height + 8 },
    end: { left: rightToLeft ? from(last) : to(last), top: last.top - 4, height: last.height + 8 },
  };
  return (['start', 'end'] as const).map((edge) => (
    <button
      key={edge}
      data-edge={edge}
      aria-label={NAMES[edge]}
      title={`${NAMES[edge]}: drag it, or move it with the arrow keys by words and sentences, then Enter`}
      className="group absolute z-10 w-6 cursor-ew-resize touch-none outline-none"
      style={place[edge]}
      onPointerDown={(e) => {
        e.preventDefault();
        pressedAt.current = { x: e.clientX, y: e.clientY };
        e.currentTarget.focus({ preventScroll: true });
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={drag(edge)}
      onPointerUp={release}
      onPointerCancel={() => setTried(undefined)}
      onKeyDown={onKey(edge)}
      onBlur={settle}
    >
      <span
        aria-hidden="true"
        className="absolute inset-y-0 left-[11px] w-[2px] bg-tide group-focus-visible:left-[10px] group-focus-visible:w-[4px]"
      />
      <span
        aria-hidden="true"
        className={`absolute left-[8px] size-2 bg-tide group-focus-visible:left-[6px] group-focus-visible:size-3 ${edge === 'start' ? 'top-[-4px]' : 'bottom-[-4px]'}`}
      />
    </button>
  ));
}

const opposite = (direction: 1 | -1): 1 | -1 => (direction === 1 ? -1 : 1);
