import type { Run, TextStream } from './stream';
import type { TextNodeLike } from './tree';

export interface TreePoint {
  readonly node: TextNodeLike;
  readonly offset: number;
}

/** Index of the last run that starts at or before `at`; -1 when there is none. Binary search, O(log n). */
function runAt(runs: readonly Run[], at: number): number {
  let low = 0;
  let high = runs.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (runs[middle]!.start <= at) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** Where the character at stream offset `at` begins in the tree. */
function startPoint(runs: readonly Run[], at: number): TreePoint | undefined {
  const index = runAt(runs, at);
  const run = runs[index];
  if (run && at < run.end) return inside(run, at);
  const next = runs[index + 1];
  return next && { node: next.node, offset: next.nodeStart };
}

/** Where the character before stream offset `at` ends in the tree. */
function endPoint(runs: readonly Run[], at: number): TreePoint | undefined {
  const run = runs[runAt(runs, at - 1)];
  if (!run) return undefined;
  if (at >= run.end) return { node: run.node, offset: run.nodeEnd };
  return inside(run, at);
}

function inside(run: Run, at: number): TreePoint {
  const ahead = at - run.start;
  const folded = ahead > 0 ? run.nodeEnd : run.nodeStart;
  return { node: run.node, offset: isPlain(run) ? run.nodeStart + ahead : folded };
}

/** The two tree points that hold the stream range `[start, end)`, or undefined when it holds no character of the tree. */
export function toTree(
  stream: TextStream,
  start: number,
  end: number,
): { start: TreePoint; end: TreePoint } | undefined {
  if (end <= start) return undefined;
  const from = startPoint(stream.runs, start);
  const to = endPoint(stream.runs, end);
  return from && to && { start: from, end: to };
}

/** Maps points of the tree to stream offsets. Built once per document: one lookup table by text node. */
export class TreeMap {
  private readonly byNode = new Map<TextNodeLike, { first: number; last: number }>();

  constructor(private readonly stream: TextStream) {
    stream.runs.forEach((run, index) => {
      const known = this.byNode.get(run.node);
      if (known) known.last = index;
      else this.byNode.set(run.node, { first: index, last: index });
    });
  }

  /** Stream offset of a point in a text node; undefined when nothing of that node is in the stream. */
  textOffset(node: TextNodeLike, at: number): number | undefined {
    const span = this.byNode.get(node);
    if (!span) return undefined;
    for (let index = span.first; index <= span.last; index++) {
      const run = this.stream.runs[index]!;
      if (at < run.nodeStart) return run.start;
      if (at <= run.nodeEnd) return within(run, at);
    }
    return this.stream.runs[span.last]!.end;
  }

  /** Stream offset of any boundary point (node and child index, as in a DOM range). */
  offsetOf(node: TextNodeLike, at: number): number {
    const direct = this.textOffset(node, at);
    if (direct !== undefined) return direct;
    let child = node.nodeType === 3 ? null : node.firstChild;
    for (let i = 0; child && i < at; i++) child = child.nextSibling;
    return this.firstAtOrAfter(child ?? following(node));
  }

  private firstAtOrAfter(node: TextNodeLike | null): number {
    for (let here = node; here; here = next(here)) {
      const span = this.byNode.get(here);
      if (span) return this.stream.runs[span.first]!.start;
    }
    return this.stream.text.length;
  }
}

/** Its units match one to one. */
const isPlain = (run: Run): boolean => run.end - run.start === run.nodeEnd - run.nodeStart;

function within(run: Run, at: number): number {
  const ahead = at - run.nodeStart;
  if (isPlain(run)) return run.start + ahead;
  return ahead > 0 ? run.end : run.start;
}

const next = (node: TextNodeLike): TextNodeLike | null => node.firstChild ?? following(node);

function following(node: TextNodeLike): TextNodeLike | null {
  for (let here: TextNodeLike | null = node; here; here = here.parentNode)
    if (here.nextSibling) return here.nextSibling;
  return null;
}
