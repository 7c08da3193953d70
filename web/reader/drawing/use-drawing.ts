import { useEffect, useState } from 'react';
import { shapePoints, type Strokes } from '@avrelle/core/ink';
import { textDirection } from '@avrelle/core/text';
import { useMessages } from '../../ui/Messages';
import { toneOn } from '../../page/spot-box';
import { useDocument } from '../document/document-context';
import { useReader, useSession } from '../session/reader-context';
import { aroundWords } from './around-words';
import { changing } from './changing';
import { tieToPage, type Former, type Look, type TiedSpot } from './tie-to-page';
import type { Held } from './tools';
import { useSetDown } from './use-set-down';
import { toolOf, useToolSettings } from './use-tool-settings';

export type Drawing = ReturnType<typeof useDrawing>;

/** Drawing on the page: what the hand holds, and setting down, changing and moving what was drawn. */
export function useDrawing() {
  const { store, writer, legend } = useSession();
  const { page, laid } = useDocument();
  const on = useReader((s) => s.tool === 'draw');
  const settings = useToolSettings();
  const [signOf, setSign] = useState<string>();
  const [chosen, choose] = useState<string>();
  useEffect(() => {
    if (!on) choose(undefined);
  }, [on]);
  const sign = legend.kinds.find((k) => k.code === signOf) ?? legend.kinds[0]!;
  const held = laid.find((l) => l.thread.root.id === chosen);
  const spotOf = useSpotOf();
  const setDown = useSetDown({ on, settings, sign, spotOf });
  const { redraw, rubOut, restyle } = changing(writer, spotOf);
  const hold = (to: Held): void => {
    settings.hold(to);
    if (to !== 'move') choose(undefined);
  };
  return {
    ...{ on, sign, setSign, choose, hold, setDown, redraw, rubOut },
    end: () => store.dispatch({ type: 'tool', tool: 'read' }),
    tool: settings.tool,
    colour: held ? held.spot.colour : settings.colour,
    width: held ? held.width : settings.width,
    chosen: held,
    /** By the digit of its place in the strip. */
    holdBy: (digit: string) => {
      const to = toolOf(digit);
      if (to) hold(to);
    },
    onWords: useOnWords(settings.tool, settings.width, setDown),
    /** A box over words from corner to corner, or a sign at a point of them, to write a note about. */
    areaOverWords: (from: Point, to: Point) => spotOf(...areaStrokes(from, to)),
    /** In which theme's tones something drawn at a point will stand. */
    toneAt: (x: number, y: number) => toneOn(page?.adapter.holderAt(x, y)?.on),
    setColour: (colour: string) => (held ? restyle(held, { colour }) : settings.setColour(colour)),
    setWidth: (width: number) => (held ? restyle(held, { width }) : settings.setWidth(width)),
    remove: () => {
      if (!held) return;
      writer.remove([held.thread.root]);
      choose(undefined);
    },
  };
}

/** Ties strokes to what they lie on; who draws where nothing bears them is told. */
function useSpotOf() {
  const { source } = useSession();
  const { page, blocks } = useDocument();
  const messages = useMessages();
  return (strokes: Strokes, look: Look, former?: Former): TiedSpot | undefined => {
    const onto = page && { adapter: page.adapter, blocks, language: source.language };
    const made = onto && tieToPage(onto, strokes, look, former);
    if (!made) messages.warn('There are no words or pictures here to attach a drawing to.');
    return made;
  };
}

/** The tool at work round the words that are selected, without a pointer. */
function useOnWords(tool: Held, width: number, setDown: (drawn: Strokes) => void): () => void {
  const { source } = useSession();
  const { page, selection } = useDocument();
  return () => {
    const range = selection();
    if (!range || !page) return;
    const { adapter } = page;
    const direction = textDirection(adapter.stream.text.slice(range.start, range.end), source.language);
    const draws = tool !== 'move' && tool !== 'eraser' && tool !== 'text';
    const strokes = draws ? aroundWords(tool, adapter.boxes(range), width, direction) : [];
    if (strokes.length) setDown(strokes);
    adapter.select(undefined);
  };
}

const EVEN = 0.5;
const PIN = 24;

interface Point {
  readonly x: number;
  readonly y: number;
}

function areaStrokes(from: Point, to: Point): [Strokes, Look] {
  return from.x === to.x && from.y === to.y
    ? [[[[from.x - PIN * 0.3, from.y - PIN * 0.6, EVEN]]], { tool: 'sign', colour: 'plain', width: PIN }]
    : [[shapePoints('box', [from.x, from.y], [to.x, to.y])], { tool: 'box', colour: 'ink', width: 2 }];
}
