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
import { useLatest } from '../../../ui/use-latest';
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

/** The range as it is being tried; settled, it becomes that of the mark. */
function useTried({ page, thread, onMove }: Props) {
  const [tried, setTried] = useState<StreamRange>();
  const { adapter, painter } = page;
  const latest = useLatest({ tried, onMove });
  useEffect(() => {
    painter.grown(tried);
  }, [painter, tried]);
  useEffect(() => () => painter.grown(undefined), [painter]);
  return {
    range: tried ?? thread.range,
    grow: (to: StreamRange): void => setTried(adapter.grown(thread.range, to)),
    leave: (): void => setTried(undefined),
    settle: (): void => {
      const { tried: to, onMove: move } = latest.current;
      setTried(undefined);
      if (to && (to.start !== thread.range.start || to.end !== thread.range.end)) move(to);
    },
  };
}
type Trying = ReturnType<typeof useTried>;

/** What an end is moved by: the words, sentences, paragraphs or characters around a range. */
function piecesOf({ page, text, language }: Props, range: StreamRange, unit: Unit): readonly Piece[] {
  if (unit === 'paragraph') return page.adapter.stream.outline;
  if (unit === 'sentence') return sentencesOf(text, language);
  const read = unit === 'word' ? wordsIn : charactersIn;
  return [...around(text.outline, range.start), ...around(text.outline, range.end)]
    .filter((b, n, all) => all.indexOf(b) === n)
    .flatMap((b) => read(text.text, b, language || 'en'));
}

/** Two handles at the ends of the open mark: dragged from word to word, or moved with the keys and settled with Enter. */
export function RangeHandles(props: Props) {
  const { page, layout, text, language } = props;
  const trying = useTried(props);
  const { range } = trying;
  const rightToLeft = textDirection(text.text.slice(range.start, range.end), language) === 'rtl';
  const boxes = layout > 0 ? page.adapter.boxes(range) : [];
  const first = boxes[0];
  const last = boxes.at(-1);
  if (!first || !last) return null;
  const from = (box: Box): number => box.left - 13;
  const to = (box: Box): number => box.left + box.width - 11;
  const lefts: Readonly<Record<Edge, number>> = rightToLeft
    ? { start: to(first), end: from(last) }
    : { start: from(first), end: to(last) };
  return (['start', 'end'] as const).map((edge) => {
    const line = edge === 'start' ? first : last;
    const place = { left: lefts[edge], top: line.top - 4, height: line.height + 8 };
    return <Handle key={edge} edge={edge} given={props} trying={trying} place={place} rightToLeft={rightToLeft} />;
  });
}

interface HandleProps {
  readonly edge: Edge;
  readonly given: Props;
  readonly trying: Trying;
  readonly place: { readonly left: number; readonly top: number; readonly height: number };
  readonly rightToLeft: boolean;
}

function Handle({ edge, given, trying, place, rightToLeft }: HandleProps) {
  const { page, text, language, onPress } = given;
  const { range, grow, settle, leave } = trying;
  const pressedAt = useRef<{ readonly x: number; readonly y: number }>(undefined);
  const onKey = (event: KeyboardEvent): void => {
    const [unit, direction] = KEYS[event.key] ?? [];
    if (event.key === 'Escape') leave();
    else if (event.key === 'Enter') settle();
    else if (unit && direction) {
      const by = isAside(event.key) && rightToLeft ? opposite(direction) : direction;
      const finer = event.shiftKey && unit === 'word' ? 'character' : unit;
      grow(stepEdge(range, edge, by, piecesOf(given, range, finer)));
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const within = (event: PointerEvent<HTMLElement>): { readonly x: number; readonly y: number } => {
    const frame = event.currentTarget.parentElement!.getBoundingClientRect();
    return { x: event.clientX - frame.left, y: event.clientY - frame.top };
  };
  const release = (event: PointerEvent<HTMLElement>): void => {
    const from = pressedAt.current;
    if (!from || Math.hypot(event.clientX - from.x, event.clientY - from.y) >= STILL) return settle();
    leave();
    const at = within(event);
    onPress(at.x, at.y);
  };
  const drag = (event: PointerEvent<HTMLElement>): void => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const at = within(event);
    const offset = page.adapter.offsetAt(at.x, at.y);
    if (offset === undefined) return;
    const read = event.altKey ? charactersIn : wordsIn;
    const near = around(text.outline, offset).flatMap((b) => read(text.text, b, language || 'en'));
    grow(snapEdge(range, edge, offset, near));
  };
  return (
    <button
      data-edge={edge}
      aria-label={NAMES[edge]}
      title={`${NAMES[edge]}: drag it, or move it with the arrow keys by words and sentences, then Enter`}
      className="group absolute z-10 w-6 cursor-ew-resize touch-none outline-none"
      style={place}
      onPointerDown={(e) => {
        e.preventDefault();
        pressedAt.current = { x: e.clientX, y: e.clientY };
        e.currentTarget.focus({ preventScroll: true });
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={drag}
      onPointerUp={release}
      onPointerCancel={leave}
      onKeyDown={onKey}
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
  );
}

const opposite = (direction: 1 | -1): 1 | -1 => (direction === 1 ? -1 : 1);
