import { readTree, toTree, TreeMap, type TextNodeLike, type TextStream } from '@avrelle/core/text';

/** A rectangle in document coordinates: pixels from the top left of the page, whatever is scrolled. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export interface StreamRange {
  readonly start: number;
  readonly end: number;
}

/** What the reading view needs of a document, whatever its format. The document itself is never changed. */
export interface PageAdapter {
  readonly stream: TextStream;
  readonly document: Document;
  readonly window: Window & typeof globalThis;
  domRange(range: StreamRange): StaticRange | undefined;
  /** One box per line the range touches. */
  boxes(range: StreamRange): readonly Box[];
  /** The character under a point of the window of the document; undefined beside the text. */
  offsetAt(x: number, y: number): number | undefined;
  selection(): StreamRange | undefined;
  select(range: StreamRange | undefined): void;
}

/** The adapter for a snapshot in its sandboxed frame. Call when the frame has loaded. */
export function openPage(frame: HTMLIFrameElement): PageAdapter {
  const document = frame.contentDocument!, window = frame.contentWindow as Window & typeof globalThis;
  const stream = readTree(document.documentElement as unknown as TextNodeLike);
  const map = new TreeMap(stream);

  const live = (range: StreamRange): Range | undefined => {
    const points = toTree(stream, range.start, range.end);
    if (!points) return undefined;
    const made = document.createRange();
    made.setStart(points.start.node as unknown as Node, points.start.offset);
    made.setEnd(points.end.node as unknown as Node, points.end.offset);
    return made;
  };

  return {
    stream, document, window,
    domRange: (range) => {
      const points = toTree(stream, range.start, range.end);
      return points && new window.StaticRange({ startContainer: points.start.node as unknown as Node, startOffset: points.start.offset, endContainer: points.end.node as unknown as Node, endOffset: points.end.offset });
    },
    boxes: (range) => lines([...(live(range)?.getClientRects() ?? [])], window),
    offsetAt: (x, y) => {
      const caret = caretAt(document, x, y);
      return caret && map.textOffset(caret.node as unknown as TextNodeLike, caret.offset);
    },
    selection: () => {
      const selection = window.getSelection();
      if (!selection || selection.isCollapsed || selection.rangeCount === 0) return undefined;
      const { startContainer, startOffset, endContainer, endOffset } = selection.getRangeAt(0);
      return tidy(stream.text, map.offsetOf(startContainer as unknown as TextNodeLike, startOffset), map.offsetOf(endContainer as unknown as TextNodeLike, endOffset));
    },
    select: (range) => {
      const selection = window.getSelection();
      selection?.removeAllRanges();
      const made = range && live(range);
      if (made) selection?.addRange(made);
    },
  };
}

/** A selection without the white space at its ends; undefined when nothing else is in it. */
export function tidy(text: string, from: number, to: number): StreamRange | undefined {
  let start = Math.min(from, to), end = Math.max(from, to);
  while (start < end && /\s/.test(text[start]!)) start++;
  while (end > start && /\s/.test(text[end - 1]!)) end--;
  return end > start ? { start, end } : undefined;
}

function caretAt(document: Document, x: number, y: number): { node: Node; offset: number } | undefined {
  if (document.caretPositionFromPoint) {
    const at = document.caretPositionFromPoint(x, y);
    return at ? { node: at.offsetNode, offset: at.offset } : undefined;
  }
  const range = (document as unknown as { caretRangeFromPoint?(x: number, y: number): Range | null }).caretRangeFromPoint?.(x, y);
  return range ? { node: range.startContainer, offset: range.startOffset } : undefined;
}

/** Joins the boxes of one line, which inline elements part, and drops empty ones. */
function lines(rects: readonly DOMRect[], window: Window): Box[] {
  const joined: Box[] = [];
  for (const rect of rects) {
    if (rect.width < 0.5) continue;
    const box = { left: rect.left + window.scrollX, top: rect.top + window.scrollY, width: rect.width, height: rect.height };
    const last = joined.at(-1);
    const sameLine = last && Math.abs(last.top - box.top) < box.height / 2 && box.left >= last.left - 1;
    if (sameLine) joined[joined.length - 1] = { ...last, width: Math.max(last.left + last.width, box.left + box.width) - last.left };
    else joined.push(box);
  }
  return joined;
}
