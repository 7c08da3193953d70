import { useEffect, useRef } from 'react';
import { PLAIN_NOTE, type Kind } from '@avrelle/core/legend';
import { simplify, type Strokes } from '@avrelle/core/ink';
import type { Annotation } from '@avrelle/core/wire';
import { useDocument } from '../document/document-context';
import { useSession } from '../session/reader-context';
import type { NewMark } from '../session/annotation-writer';
import { goingOn, type LastInk, type StrokeTime } from './last-ink';
import type { Look, TiedSpot } from './tie-to-page';
import { isFreehand, isInk } from './tools';
import type { ToolSettings } from './use-tool-settings';

/** How far a simplified stroke may lie beside what the hand drew, in pixels. */
const TRUE_TO = 0.4;

interface Given {
  readonly on: boolean;
  readonly settings: ToolSettings;
  readonly sign: Kind;
  spotOf(strokes: Strokes, look: Look): TiedSpot | undefined;
}

interface Drawn {
  /** Typed on the page, with or instead of strokes. */
  readonly words?: string;
  /** When a pointer drew it; now where none did. */
  readonly time?: StrokeTime;
}

/** Sets down what was drawn; a stroke of a hand that writes on joins the one before. */
export function useSetDown({ on, settings, sign, spotOf }: Given): (drawn: Strokes, more?: Drawn) => void {
  const { writer, audience, mayWrite } = useSession();
  const { laid } = useDocument();
  const last = useRef<LastInk>(undefined);
  useEffect(() => {
    if (!on) last.current = undefined;
  }, [on]);
  const { tool, colour, width } = settings;
  return (drawn, { words, time } = {}) => {
    if (!isInk(tool) || !mayWrite()) return;
    const strokes = isFreehand(tool) ? drawn.map((stroke) => simplify(stroke, TRUE_TO)) : drawn;
    const ink = { look: `${tool} ${colour} ${width}`, strokes, time: time ?? atOnce() };
    const joined = isFreehand(tool) ? joining(ink) : undefined;
    const [kind, inked] = tool === 'sign' ? [sign, sign.pigment] : [PLAIN_NOTE, colour];
    const all = joined ? joined.strokes : strokes;
    const made = spotOf(all, { tool, colour: inked, width });
    if (!made) return;
    const id = setDown(made, joined?.root, { kind, note: words ?? '' });
    last.current = { ...ink, strokes: all, id };
  };

  function joining(ink: Omit<LastInk, 'id'>): { root: Annotation; strokes: Strokes } | undefined {
    const before = goingOn(last.current, ink);
    const root = before && laid.find((l) => l.thread.root.id === before.id)?.thread.root;
    return root && { root, strokes: [...before.strokes, ...ink.strokes] };
  }

  function setDown(made: TiedSpot, joined: Annotation | undefined, fresh: Pick<NewMark, 'kind' | 'note'>): string {
    if (!joined) return writer.create({ ...made, ...fresh, audience, words: 'Drawing added' });
    writer.move(joined, made.range, made.spot);
    return joined.id;
  }
}

const atOnce = (): StrokeTime => ({ from: performance.now(), until: performance.now() });
