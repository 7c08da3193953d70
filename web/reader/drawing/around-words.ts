import { boxAround, shapePoints, type InkBox, type InkPoint, type Strokes, type Tool } from '@avrelle/core/ink';

const EVEN = 0.5;
/** Room left round words, in pixels. */
const ROUND = 4;

/** What a tool draws round words whose boxes, one a line, are given. What comes before them stands where they begin. */
export function aroundWords(
  tool: Exclude<Tool, 'text'>,
  boxes: readonly InkBox[],
  width: number,
  direction: 'ltr' | 'rtl',
): Strokes {
  const first = boxes[0];
  const whole = boxAround(
    boxes.map((b): InkPoint[] => [
      [b.left, b.top, EVEN],
      [b.left + b.width, b.top + b.height, EVEN],
    ]),
  );
  if (!first || !whole) return [];
  switch (tool) {
    case 'pen':
    case 'line':
      return boxes.map((b) =>
        shapePoints('line', [b.left, b.top + b.height + width / 2], [b.left + b.width, b.top + b.height + width / 2]),
      );
    case 'broad':
      return boxes.map((b) =>
        shapePoints('line', [b.left, b.top + b.height / 2], [b.left + b.width, b.top + b.height / 2]),
      );
    case 'arrow': {
      const [away, edge] = direction === 'rtl' ? [1, first.left + first.width] : [-1, first.left];
      const from = [edge + away * 52, first.top - first.height] as const;
      return [shapePoints('arrow', from, [edge + away * ROUND, first.top + first.height / 2])];
    }
    case 'box':
    case 'ellipse':
      return [
        shapePoints(
          tool,
          [whole.left - ROUND, whole.top - ROUND / 2],
          [whole.left + whole.width + ROUND, whole.top + whole.height + ROUND / 2],
        ),
      ];
    case 'sign':
      return [[[direction === 'rtl' ? first.left + first.width : first.left - width, first.top, EVEN]]];
  }
}
