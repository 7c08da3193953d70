import { useCallback, useEffect, useRef, useState } from 'react';
import { PLAIN_NOTE, type Kind } from '@avrelle/core/key';
import { boxAround, shapePoints, simplify, type Strokes } from '@avrelle/core/ink';
import { textDirection } from '@avrelle/core/text';
import { useMessages } from '../../ui/Messages';
import type { StreamRange } from '../../page/page-frame';
import { toneOn } from '../../page/spot-box';
import type { PlacedBlock } from '../document/use-layout';
import type { AnnotationWriter } from '../session/use-annotation-writer';
import type { OpenPage } from '../document/use-page';
import { aroundWords } from './around-words';
import { changing } from './changing';
import type { Laid } from './laid';
import { tieToPage, type Former, type Look, type TiedSpot } from './tie-to-page';
import { HELD, isFreehand, keepSettings, readSettings, type Held, type Settings } from './tools';

interface Given {
  readonly page: OpenPage | undefined;
  readonly blocks: readonly PlacedBlock[];
  readonly language: string;
  readonly marks: AnnotationWriter;
  readonly laid: readonly Laid[];
  readonly kinds: readonly Kind[];
  readonly audience: readonly string[];
  selection(): StreamRange | undefined;
  mayWrite(): boolean;
}

/** Strokes that follow each other within this time, in milliseconds, and near each other, in pixels, are one drawing. */
const SAME_WORD = 1_200;
const NEAR = 60;
/** How far a simplified stroke may lie beside what the hand drew, in pixels. */
const TRUE_TO = 0.4;

interface LastInk {
  readonly id: string;
  readonly until: number;
  readonly strokes: Strokes;
  readonly look: string;
}

export type Drawing = ReturnType<typeof useDrawing>;

/** Drawing on the page: what the hand holds, and setting down, changing and moving what was drawn. */
export function useDrawing({ page, blocks, language, marks, laid, kinds, audience, selection, mayWrite }: Given) {
  const messages = useMessages();
  const [on, setOn] = useState(false);
  const [settings, setSettings] = useState<Settings>(readSettings);
  const [signOf, setSignOf] = useState<string>();
  const [chosen, setChosen] = useState<string>();
  const lastInk = useRef<LastInk>(undefined);
  useEffect(() => keepSettings(settings), [settings]);
  const sign = kinds.find((k) => k.code === signOf) ?? kinds[0]!;
  const { tool, colour } = settings;
  const width = settings.widths[tool];
  const held = laid.find((l) => l.thread.root.id === chosen);

  const spotOf = (strokes: Strokes, look: Look, former?: Former): TiedSpot | undefined => {
    const made = page && tieToPage(page.adapter, blocks, language, strokes, look, former);
    if (!made) messages.warn('There are no words or pictures here that a drawing could keep to.');
    return made;
  };

  /** In which theme's tones something drawn at a point will stand. */
  const toneAt = (x: number, y: number): 'day' | undefined => toneOn(page?.adapter.holderAt(x, y)?.on);

  /** A box over words from corner to corner, or a sign at a point of them, to write a note about. */
  const areaOverWords = (from: Point, to: Point): TiedSpot | undefined => {
    if (from.x === to.x && from.y === to.y)
      return spotOf([[[from.x - PIN * 0.3, from.y - PIN * 0.6, EVEN]]], { tool: 'sign', colour: 'plain', width: PIN });
    return spotOf([shapePoints('box', [from.x, from.y], [to.x, to.y])], { tool: 'box', colour: 'ink', width: 2 });
  };

  /** Sets down what was drawn; a stroke of a hand that writes on joins the one before. */
  const setDown = (drawn: Strokes, words?: string): void => {
    if (tool === 'move' || tool === 'eraser' || !mayWrite()) return;
    const look = `${tool} ${colour} ${width}`;
    const strokes = isFreehand(tool) ? drawn.map((stroke) => simplify(stroke, TRUE_TO)) : drawn;
    const before = lastInk.current;
    const joined =
      before &&
      isFreehand(tool) &&
      before.look === look &&
      Date.now() - before.until < SAME_WORD &&
      isBeside(before.strokes, strokes)
        ? laid.find((l) => l.thread.root.id === before.id)?.thread.root
        : undefined;
    const all = joined ? [...before!.strokes, ...strokes] : strokes;
    const made = spotOf(all, { tool, colour: tool === 'sign' ? sign.pigment : colour, width });
    if (!made) return;
    if (joined) marks.move(joined, made.range, made.spot);
    const id =
      joined?.id ??
      marks.create({
        ...made,
        kind: tool === 'sign' ? sign : PLAIN_NOTE,
        note: words ?? '',
        classIds: audience,
        words: 'Drawing set down',
      });
    lastInk.current = { id, until: Date.now(), strokes: all, look };
  };

  /** The tool at work round the words that are selected, without a pointer. */
  const onWords = (): void => {
    const range = selection();
    if (!range || !page) return;
    const { adapter } = page;
    const direction = textDirection(adapter.stream.text.slice(range.start, range.end), language);
    const draws = tool !== 'move' && tool !== 'eraser' && tool !== 'text';
    const strokes = draws ? aroundWords(tool, adapter.boxes(range), width, direction) : [];
    if (strokes.length) setDown(strokes);
    adapter.select(undefined);
  };

  const { redraw, rubOut, restyle } = changing(marks, spotOf);

  const hold = useCallback((to: Held) => {
    setSettings((s) => ({ ...s, tool: to }));
    if (to !== 'move') setChosen(undefined);
  }, []);
  /** By the digit of its place in the strip; false for a key that is none. */
  const holdBy = (digit: string): boolean => {
    const to = /^\d$/.test(digit) ? HELD[(Number(digit) + HELD.length - 1) % HELD.length] : undefined;
    if (to) hold(to);
    return to !== undefined;
  };
  const turn = useCallback((to: boolean) => {
    setOn(to);
    setChosen(undefined);
    lastInk.current = undefined;
  }, []);
  return {
    on,
    turn,
    tool,
    hold,
    holdBy,
    sign,
    setSign: setSignOf,
    colour: held ? held.spot.colour : colour,
    width: held ? held.width : width,
    chosen: held,
    choose: setChosen,
    setDown,
    onWords,
    areaOverWords,
    toneAt,
    redraw,
    rubOut,
    setColour: (to: string) => {
      if (held) restyle(held, { colour: to });
      else setSettings((s) => ({ ...s, colour: to }));
    },
    setWidth: (to: number) => {
      if (held) restyle(held, { width: to });
      else setSettings((s) => ({ ...s, widths: { ...s.widths, [tool]: to } }));
    },
    remove: () => {
      if (held) {
        marks.remove([held.thread.root]);
        setChosen(undefined);
      }
    },
  };
}

function isBeside(a: Strokes, b: Strokes): boolean {
  const one = boxAround(a);
  const two = boxAround(b);
  return Boolean(
    one &&
    two &&
    two.left < one.left + one.width + NEAR &&
    two.left + two.width > one.left - NEAR &&
    two.top < one.top + one.height + NEAR / 2 &&
    two.top + two.height > one.top - NEAR / 2,
  );
}

const EVEN = 0.5;
const PIN = 24;

interface Point {
  readonly x: number;
  readonly y: number;
}
