import { boxAround, type DrawnSpot, type InkBox, type Strokes } from '@avrelle/core/ink';
import { plainWords } from '@avrelle/core/markdown';
import type { PageAdapter, StreamRange } from '../../page/page-frame';
import type { Thread } from '../model/thread';
import { inkOn } from '../../page/spot-box';

/** Something drawn, as it stands on the page now, in pixels as shown. */
export interface Laid {
  readonly thread: Thread;
  readonly spot: DrawnSpot;
  readonly strokes: Strokes;
  readonly width: number;
  readonly box: InkBox;
  /** Its lines, for words on the page; a sign for a sign. */
  readonly lines: readonly string[];
}

export const LINE_HEIGHT = 1.25;

const NOTHING: readonly Laid[] = [];

/** Where ink was found to stand, by its anchor: as long as the page and the range stay, so does the ink. */
export interface Standing {
  readonly range: StreamRange;
  readonly ink: { readonly strokes: Strokes; readonly unit: number; readonly box: InkBox } | undefined;
}

/** Lays out what was drawn, by how its words or pictures stand now. What is not shown is left out. `known` is of this layout of the page. */
export function layDrawings(
  adapter: PageAdapter,
  threads: readonly Thread[],
  known: Map<object, Standing>,
): readonly Laid[] {
  const laid = threads.flatMap((thread): Laid[] => {
    const {
      root: { anchor, deleted },
      range,
    } = thread;
    const spot = anchor?.spot;
    if (spot?.type !== 'drawn' || deleted) return [];
    const before = known.get(anchor!);
    const same = before?.range.start === range.start && before.range.end === range.end;
    const { ink } = same ? before! : { ink: stand(adapter, spot, range) };
    if (!same) known.set(anchor!, { range, ink });
    if (!ink) return [];
    const width = spot.width * ink.unit;
    const lines = linesOf(thread, spot);
    return [
      {
        thread,
        spot,
        strokes: ink.strokes,
        width,
        lines,
        box: lines.length ? lettersBox(ink.box, lines, width) : grown(ink.box, width / 2),
      },
    ];
  });
  return laid.length ? laid : NOTHING;
}

function stand(adapter: PageAdapter, { tied }: DrawnSpot, range: StreamRange): Standing['ink'] {
  const laid = inkOn(adapter, tied, range);
  const strokes = laid && onPage(laid.strokes, adapter.shownAt(adapter.window.innerWidth, 0).x);
  const box = strokes && boxAround(strokes);
  return laid && box && { strokes, unit: laid.unit, box };
}

const EDGE = 4;

/** What would stand beyond the edge of a narrower page is moved onto it, as far as it fits. */
export function onPage(strokes: Strokes, room: number): Strokes {
  const box = boxAround(strokes);
  if (!box) return strokes;
  const over = box.left + box.width - (room - EDGE);
  const by = box.left < EDGE ? EDGE - box.left : -Math.max(0, Math.min(over, box.left - EDGE));
  return by === 0 ? strokes : strokes.map((stroke) => stroke.map(([x, y, pressure]) => [x + by, y, pressure] as const));
}

function linesOf({ root }: Thread, { tool }: DrawnSpot): readonly string[] {
  if (tool === 'sign') return [root.kind.sign];
  // Words that were emptied can still be found, and written anew.
  return tool === 'text' ? (plainWords(root.note) || '…').split('\n') : [];
}

const grown = ({ left, top, width, height }: InkBox, by: number): InkBox => ({
  left: left - by,
  top: top - by,
  width: width + 2 * by,
  height: height + 2 * by,
});

/** Letters are half as wide as high, near enough to be clicked and outlined. */
const lettersBox = ({ left, top }: InkBox, lines: readonly string[], size: number): InkBox => ({
  left,
  top,
  width: Math.max(...lines.map((line) => Math.max(1, line.length))) * size * 0.52,
  height: lines.length * size * LINE_HEIGHT,
});
