import type { AreaSpot } from '@avrelle/core/anchor';
import {
  grownSeen,
  readTree,
  seenPart,
  toTree,
  TreeMap,
  type Block,
  type Outline,
  type TextNodeLike,
  type TextStream,
} from '@avrelle/core/text';
import { refuseDrops } from '../ui/refuse-drops';

/** A rectangle in document coordinates: pixels from the top left of the page, whatever is scrolled. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export interface Extent {
  readonly block: Block;
  readonly top: number;
  readonly bottom: number;
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
  /** Where each block that is shown begins and ends. */
  extents(): readonly Extent[];
  /** The character under a point of the window of the document; undefined beside the text. */
  offsetAt(x: number, y: number): number | undefined;
  selection(): StreamRange | undefined;
  select(range: StreamRange | undefined): void;
  /** A passage that one has grown: without what is hidden. */
  grown(former: StreamRange, to: StreamRange): StreamRange;
  /** Where what an area lies on is shown; undefined where it is not shown as a picture. */
  holder(on: AreaSpot['on']): Box | undefined;
  /** What lies at a point, as shown, and can bear an area. */
  holderAt(
    x: number,
    y: number,
  ): { readonly on: AreaSpot['on']; readonly box: Box; readonly element: Element } | undefined;
  /** A point of the window of the document, as shown. */
  shownAt(x: number, y: number): { readonly x: number; readonly y: number };
  /** Whether what lies outside the main text is hidden: nobody selects what they do not see. */
  setMainOnly(mainOnly: boolean): void;
  /** How much smaller than its own pixels the page is shown: boxes are given as shown. */
  setScale(scale: number): void;
}

/** A document that has loaded, with its text and the way between the two. */
interface Loaded {
  readonly document: Document;
  readonly window: Window & typeof globalThis;
  readonly stream: TextStream;
  readonly map: TreeMap;
  /** As set from outside. */
  scale: number;
  mainOnly: boolean;
}

const asNode = (point: { readonly node: TextNodeLike }): Node => point.node as unknown as Node;

function liveRange({ document, stream }: Loaded, range: StreamRange): Range | undefined {
  const points = toTree(stream, range.start, range.end);
  if (!points) return undefined;
  const made = document.createRange();
  made.setStart(asNode(points.start), points.start.offset);
  made.setEnd(asNode(points.end), points.end.offset);
  return made;
}

/** The box around all of it: much less to ask of the browser than a box a line. */
function around(at: Loaded, range: StreamRange): { readonly top: number; readonly bottom: number } | undefined {
  const rect = liveRange(at, range)?.getBoundingClientRect();
  const shown = (y: number): number => (y + at.window.scrollY) * at.scale;
  return rect && rect.height > 0 ? { top: shown(rect.top), bottom: shown(rect.bottom) } : undefined;
}

/** The adapter for a snapshot in its sandboxed frame. Call when the frame has loaded. */
export function openPage(frame: HTMLIFrameElement): PageAdapter {
  const document = frame.contentDocument!;
  const window = frame.contentWindow as Window & typeof globalThis;
  const stream = readTree(document.documentElement as unknown as TextNodeLike);
  const at: Loaded = { document, window, stream, map: new TreeMap(stream), scale: 1, mainOnly: false };
  refuseDrops(window);
  return { stream, document, window, ...measures(at), ...points(at), ...selecting(at) };
}

type Measures = Pick<PageAdapter, 'domRange' | 'boxes' | 'extents' | 'grown' | 'setMainOnly' | 'setScale'>;

/** Where passages and blocks stand. */
function measures(at: Loaded): Measures {
  const { document, window, stream } = at;
  return {
    boxes: (range) => lines([...(liveRange(at, range)?.getClientRects() ?? [])], window, at.scale),
    domRange: (range) => {
      const ends = toTree(stream, range.start, range.end);
      return (
        ends &&
        new window.StaticRange({
          startContainer: asNode(ends.start),
          startOffset: ends.start.offset,
          endContainer: asNode(ends.end),
          endOffset: ends.end.offset,
        })
      );
    },
    extents: () =>
      pageExtents(stream.outline, document) ??
      stream.outline.flatMap((block) => {
        const found = around(at, block);
        return found ? [{ block, ...found }] : [];
      }),
    grown: (former, to) => (at.mainOnly ? grownSeen(stream.outline, former, to) : to),
    setScale: (to) => {
      at.scale = to;
    },
    setMainOnly: (only) => {
      at.mainOnly = only;
    },
  };
}

/** What lies at a point, and where what bears areas stands. */
function points(at: Loaded): Pick<PageAdapter, 'holder' | 'holderAt' | 'shownAt' | 'offsetAt'> {
  const { document, window, map } = at;
  return {
    holder: (on) => {
      const element = holderOf(document, on);
      return element && boxOf(element, window, at.scale);
    },
    holderAt: (x, y) => {
      for (const element of document.elementsFromPoint(x / at.scale, y / at.scale)) {
        const on = bearing(element, window);
        if (on) return { on, box: boxOf(element, window, at.scale), element };
      }
      return undefined;
    },
    shownAt: (x, y) => ({ x: x * at.scale, y: y * at.scale }),
    offsetAt: (x, y) => {
      const caret = caretAt(document, x, y);
      return caret && map.textOffset(caret.node as unknown as TextNodeLike, caret.offset);
    },
  };
}

/** The selection, as a passage of the text. To ask for one lays the whole page out: nobody does before there has been one. */
function selecting(at: Loaded): Pick<PageAdapter, 'selection' | 'select'> {
  const { document, window, stream, map } = at;
  let touched = false;
  const touch = (): void => {
    touched = true;
  };
  document.addEventListener('selectionchange', touch, { once: true });
  return {
    selection: () => {
      if (!touched) return undefined;
      const selection = window.getSelection();
      if (!selection || selection.isCollapsed || selection.rangeCount === 0) return undefined;
      const { startContainer, startOffset, endContainer, endOffset } = selection.getRangeAt(0);
      const chosen = tidy(
        stream.text,
        map.offsetOf(startContainer as unknown as TextNodeLike, startOffset),
        map.offsetOf(endContainer as unknown as TextNodeLike, endOffset),
      );
      const part = chosen && at.mainOnly ? seenPart(stream.outline, chosen) : chosen;
      return part && tidy(stream.text, part.start, part.end);
    },
    select: (range) => {
      touch();
      const selection = window.getSelection();
      selection?.removeAllRanges();
      const made = range && liveRange(at, range);
      if (made) selection?.addRange(made);
    },
  };
}

const boxOf = (element: Element, window: Window, scale: number): Box => {
  const { left, top, width, height } = element.getBoundingClientRect();
  return {
    left: (left + window.scrollX) * scale,
    top: (top + window.scrollY) * scale,
    width: width * scale,
    height: height * scale,
  };
};

/**
 * Where blocks stand on the pages of a PDF, as their words' own style says: measuring them would lay out every page,
 * those that nobody sees as well. Undefined where no pages are shown.
 */
function pageExtents(outline: Outline, document: Document): Extent[] | undefined {
  const first = document.querySelector('section[data-avrelle-page]');
  if (!first || !isDrawn(first, document.defaultView!)) return undefined;
  const unit = Number.parseFloat(document.defaultView!.getComputedStyle(first).getPropertyValue('--u'));
  const tops = new Map<Element, number>();
  const value = (span: HTMLElement, name: string): number => Number(span.style.getPropertyValue(name));
  return outline.flatMap((block) => {
    const element = elementAt(document.documentElement, block.path);
    const section = element?.closest('section');
    if (!element || !section) return [];
    if (!tops.has(section)) tops.set(section, section.getBoundingClientRect().top + document.defaultView!.scrollY);
    const spans = element.getElementsByTagName('span');
    const from = spans[0];
    const to = spans[spans.length - 1];
    const top = tops.get(section)!;
    if (!from || !to) return [{ block, top, bottom: top + value(section, '--h') * unit }];
    return [
      {
        block,
        top: top + (value(from, '--y') - value(from, '--s')) * unit,
        bottom: top + (value(to, '--y') + 0.2 * value(to, '--s')) * unit,
      },
    ];
  });
}

function elementAt(root: Element, path: string): Element | undefined {
  let here: Element | undefined = root;
  for (const step of path.split('/')) here = here?.children[Number(step)];
  return here;
}

/** Pages bear areas where they are shown as pages, not where their text flows. */
const isDrawn = (section: Element, window: Window): boolean => window.getComputedStyle(section).overflow === 'hidden';

function holderOf(document: Document, on: AreaSpot['on']): Element | undefined {
  const section = 'page' in on ? document.querySelector(`section[data-avrelle-page="${on.page}"]`) : null;
  if (section) return isDrawn(section, document.defaultView!) ? section : undefined;
  return ('picture' in on && document.querySelector(`img[src$="${on.picture}"]`)) || undefined;
}

function bearing(element: Element, window: Window): AreaSpot['on'] | undefined {
  const page = element.getAttribute('data-avrelle-page');
  const picture = /asset\/([0-9a-f]{64})$/.exec(element.getAttribute('src') ?? '')?.[1];
  if (element.nodeName === 'IMG' && picture) return { picture };
  return page !== null && isDrawn(element, window) ? { page: Number(page) } : undefined;
}

/** A selection without the white space at its ends; undefined when nothing else is in it. */
export function tidy(text: string, from: number, to: number): StreamRange | undefined {
  let start = Math.min(from, to);
  let end = Math.max(from, to);
  while (start < end && /\s/.test(text[start]!)) start++;
  while (end > start && /\s/.test(text[end - 1]!)) end--;
  return end > start ? { start, end } : undefined;
}

function caretAt(document: Document, x: number, y: number): { node: Node; offset: number } | undefined {
  if (document.caretPositionFromPoint) {
    const at = document.caretPositionFromPoint(x, y);
    return at ? { node: at.offsetNode, offset: at.offset } : undefined;
  }
  const range = (
    document as unknown as { caretRangeFromPoint?(x: number, y: number): Range | null }
  ).caretRangeFromPoint?.(x, y);
  return range ? { node: range.startContainer, offset: range.startOffset } : undefined;
}

/** Joins the boxes of one line, which inline elements part, and drops empty ones. */
function lines(rects: readonly DOMRect[], { scrollX, scrollY }: Window, scale: number): Box[] {
  const joined: Box[] = [];
  for (const rect of rects) {
    if (rect.width < 0.5) continue;
    const box = {
      left: (rect.left + scrollX) * scale,
      top: (rect.top + scrollY) * scale,
      width: rect.width * scale,
      height: rect.height * scale,
    };
    const last = joined.at(-1);
    const sameLine = last && Math.abs(last.top - box.top) < box.height / 2 && box.left >= last.left - 1;
    if (sameLine)
      joined[joined.length - 1] = {
        ...last,
        width: Math.max(last.left + last.width, box.left + box.width) - last.left,
      };
    else joined.push(box);
  }
  return joined;
}
