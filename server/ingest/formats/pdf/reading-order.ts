/** A stretch of text as the file sets it: one face, one size, one line. Points from the top left of the page. */
export interface Run {
  readonly text: string;
  readonly x: number;
  readonly width: number;
  readonly baseline: number;
  readonly size: number;
}

/** Runs of one line that stand close together. */
export interface Segment {
  readonly runs: readonly Run[];
  readonly left: number;
  readonly right: number;
  readonly baseline: number;
  readonly size: number;
  readonly text: string;
}

/** Two runs further apart than this, in sizes of their type, are of two columns or cells. */
const APART = 1.3;
/** A gap wider than this, in sizes, is a space between words. */
const SPACE = 0.16;
/** Columns of prose hold at least so many lines, of at least so many characters in the mean. */
const LEAST_LINES = 3;
const LEAST_CHARACTERS = 16;

/** Shares of a page's height within which running heads and folios stand (common practice), and how far from all else, in sizes. */
const HEAD = 0.12;
const FOOT = 0.88;
const AWAY = 1.8;

/** The lines of a page in the order in which they are read; in that of the file where no other can be made out. */
export function readingOrder(runs: readonly Run[], height = Infinity): readonly Segment[] {
  try {
    return ordered(runs, height);
  } catch {
    return runs.flatMap((run) => splitLine([run]));
  }
}

/** Of a page of some height: down one column, then down the next. */
function ordered(runs: readonly Run[], height: number): readonly Segment[] {
  const segments = segmentsOf(runs);
  const alone = (line: Segment, away: (other: Segment) => number): boolean =>
    segments.every((other) => {
      const distance = away(other);
      return distance <= 0.5 * line.size || distance > AWAY * line.size;
    });
  const isHead = (line: Segment): boolean =>
    line.baseline < HEAD * height &&
    line.text.length < 100 &&
    alone(line, (other) => other.baseline - line.baseline) &&
    segments.every((o) => o.baseline >= line.baseline - 0.5 * line.size);
  const isFoot = (line: Segment): boolean =>
    line.baseline > FOOT * height &&
    line.text.length < 100 &&
    alone(line, (other) => line.baseline - other.baseline) &&
    segments.every((o) => o.baseline <= line.baseline + 0.5 * line.size);
  if (height === Infinity) return inColumns(segments);
  const [heads, feet] = [segments.filter(isHead), segments.filter(isFoot)];
  const apart = new Set([...heads, ...feet]);
  return [
    ...inColumns(heads),
    ...inColumns(segments.filter((line) => !apart.has(line))),
    ...inColumns(feet.filter((line) => !heads.includes(line))),
  ];
}

/** Joins runs that stand on one line and close together, adding the spaces that files leave out. */
function segmentsOf(runs: readonly Run[]): Segment[] {
  const sorted = [...runs].filter((run) => run.text.trim() !== '').sort((a, b) => a.baseline - b.baseline);
  const lines: Run[][] = [];
  for (const run of sorted) {
    const line = lines.at(-1);
    if (line && Math.abs(line[0]!.baseline - run.baseline) <= 0.35 * Math.min(line[0]!.size, run.size)) line.push(run);
    else lines.push([run]);
  }
  return lines.flatMap((line) => splitLine([...line].sort((a, b) => a.x - b.x)));
}

function splitLine(line: readonly Run[]): Segment[] {
  const groups: Run[][] = [];
  for (const run of line) {
    const last = groups.at(-1)?.at(-1);
    const gap = last ? run.x - (last.x + last.width) : Infinity;
    if (!last || gap > APART * Math.max(last.size, run.size)) groups.push([run]);
    else
      groups
        .at(-1)!
        .push(
          gap > SPACE * run.size && !/\s$/.test(last.text) && !/^\s/.test(run.text)
            ? { ...run, text: ` ${run.text}` }
            : run,
        );
  }
  return groups.map((group) => {
    const main = group.reduce((a, b) => (b.text.length > a.text.length ? b : a));
    return {
      runs: group,
      left: group[0]!.x,
      right: Math.max(...group.map((r) => r.x + r.width)),
      baseline: main.baseline,
      size: main.size,
      text: group.map((r) => r.text).join(''),
    };
  });
}

/** Ends, since each part that is ordered in its turn has fewer segments: a band of several, or one of two sides that hold some each. */
function inColumns(segments: readonly Segment[]): readonly Segment[] {
  const gutter = findGutter(segments);
  if (gutter === undefined) return rows(segments);
  const bands = bandsOf(segments, gutter);
  // Prose beside words too short to be prose is no column: line by line.
  if (bands.length === 1 && !standsBeside(segments, gutter)) return rows(segments);
  return bands.flatMap((band) => (standsBeside(band, gutter) ? besides(band, gutter) : inColumns(band)));
}

/** A strip as high as this, in sizes, with nothing in it from edge to edge, ends what stands in columns, unless they go on below. */
const BLANK = 2.2;

/** What lies above and below such strips, each for itself; one band where all of it stands in the same columns. */
function bandsOf(segments: readonly Segment[], gutter: number): readonly (readonly Segment[])[] {
  const parts: Segment[][] = [];
  for (const segment of rows(segments)) {
    const last = parts.at(-1)?.at(-1);
    if (!last || segment.baseline - last.baseline > BLANK * Math.min(last.size, segment.size)) parts.push([segment]);
    else parts.at(-1)!.push(segment);
  }
  const bands: Segment[][] = [];
  for (const part of parts) {
    const before = bands.at(-1);
    if (before && standsBeside(before, gutter) === standsBeside(part, gutter)) before.push(...part);
    else bands.push([...part]);
  }
  return bands.length > 1 && bands.some((band) => standsBeside(band, gutter)) ? bands : [[...segments]];
}

/** Prose on both sides of a strip, whatever crosses it. */
function standsBeside(band: readonly Segment[], gutter: number): boolean {
  const sides = [band.filter((s) => s.right <= gutter), band.filter((s) => s.left >= gutter)];
  return sides.every((side) => side.length > 0 && isWordy(side));
}

const rows = (segments: readonly Segment[]): Segment[] =>
  [...segments].sort((a, b) => a.baseline - b.baseline || a.left - b.left);

function besides(segments: readonly Segment[], gutter: number): readonly Segment[] {
  const ordered: Segment[] = [];
  let left: Segment[] = [];
  let right: Segment[] = [];
  const flush = (): void => {
    ordered.push(...inColumns(left), ...inColumns(right));
    left = [];
    right = [];
  };
  for (const segment of rows(segments)) {
    if (segment.right <= gutter) left.push(segment);
    else if (segment.left >= gutter) right.push(segment);
    else {
      flush();
      ordered.push(segment);
    }
  }
  flush();
  return ordered;
}

/** Where prose stands on both sides of an empty strip: the strip's right edge. Undefined for a page of one column. */
function findGutter(segments: readonly Segment[]): number | undefined {
  // Cells of tables and short last lines say nothing of columns, but for those that lie across them.
  const prose = segments.filter((s) => s.text.length >= LEAST_CHARACTERS);
  const edges = [...new Set(prose.map((s) => Math.round(s.left) - 1))];
  let best: { at: number; score: number } | undefined;
  for (const at of edges) {
    const left = prose.filter((s) => s.right <= at);
    const right = prose.filter((s) => s.left >= at);
    if (left.length < LEAST_LINES || right.length < LEAST_LINES) continue;
    const beside = left.filter((l) => right.some((r) => Math.abs(r.baseline - l.baseline) < 2 * l.size)).length;
    const score = Math.min(left.length, right.length) - (prose.length - left.length - right.length);
    if (beside >= LEAST_LINES && score > 0 && score > (best?.score ?? 0)) best = { at, score };
  }
  return best?.at;
}

const isWordy = (side: readonly Segment[]): boolean =>
  side.reduce((sum, s) => sum + s.text.length, 0) >= LEAST_CHARACTERS * side.length;
