import type { Strokes } from '@avrelle/core/ink';
import type { Annotation } from '@avrelle/core/wire';
import type { Fields } from '../model/history';
import type { AnnotationWriter } from '../session/annotation-writer';
import type { Laid } from './laid';
import type { Former, Look, TiedSpot } from './tie-to-page';

/** Changing what was drawn. `spotOf` ties strokes to the page, or has told why it cannot. */
export function changing(
  marks: Pick<AnnotationWriter, 'move' | 'passage' | 'changeAll'>,
  spotOf: (strokes: Strokes, look: Look, former?: Former) => TiedSpot | undefined,
) {
  const tiedAnew = (
    { spot, width, strokes: before, thread: { range } }: Laid,
    strokes: Strokes,
  ): TiedSpot | undefined =>
    spotOf(strokes, { tool: spot.tool, colour: spot.colour, width }, { tied: spot.tied, range, strokes: before });
  return {
    /** Other strokes: moved, or made larger. */
    redraw: (drawing: Laid, strokes: Strokes): void => {
      const made = tiedAnew(drawing, strokes);
      if (made) marks.move(drawing.thread.root, made.range, made.spot);
    },
    /** What an eraser left of several drawings, as one step. */
    rubOut: (left: ReadonlyMap<Laid, Strokes>): void => {
      const changes = [...left].flatMap(([drawing, strokes]): [Annotation, Fields][] => {
        if (strokes.length === 0) return [[drawing.thread.root, { deleted: true }]];
        const made = tiedAnew(drawing, strokes);
        return made ? [[drawing.thread.root, { passage: marks.passage(made.range, made.spot) }]] : [];
      });
      if (changes.length) void marks.changeAll(changes, 'rubbed out');
    },
    /** Another colour, or another width in pixels. */
    restyle: (
      { thread: { root, range }, spot, width: pixels }: Laid,
      { colour = spot.colour, width = pixels }: { readonly colour?: string; readonly width?: number },
    ): void => marks.move(root, range, { ...spot, colour, width: (spot.width * width) / pixels }),
  };
}
