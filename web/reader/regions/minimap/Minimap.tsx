import { memo, useMemo, useRef, type PointerEvent } from 'react';
import { covers, type Spans } from '@avrelle/core/reading';
import { textDirection } from '@avrelle/core/text';
import type { CardRow } from '@avrelle/core/wire';
import { useHardCards } from '../../../data/review-queries';
import { count } from '../../../ui/when';
import type { Place, PlacedBlock } from '../../document/use-layout';
import { useDocument } from '../../document/document-context';
import type { Thread } from '../../model/thread';
import { useReader, useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';

interface MarksProps {
  readonly threads: readonly Thread[];
  readonly places: ReadonlyMap<string, Place>;
  readonly pageHeight: number;
}

/** In the strip: where its first line stands, and from line to line. */
const FIRST = 2;
const STEP = 5;
const WIDTH = 96;
const HEIGHT = 640;

/** The whole document as a strip: its lines and headings, what is read, where the marks are thick. Click or drag to go. */
export function Minimap() {
  const {
    source: { id },
    text: source,
    visible,
  } = useSession();
  const { blocks, places, height: pageHeight, goTo } = useDocument();
  const { spans } = useTools().progress;
  const view = useReader((s) => s.scroll);
  const cards = useHardCards(id);
  const hard = useMemo(() => cards.filter((card) => places.has(card.annotationId ?? '')), [cards, places]);
  const { text } = source;
  const strip = useRef<SVGSVGElement>(null);
  const y = (top: number): number => (top / Math.max(1, pageHeight)) * HEIGHT;
  const lines = useMemo(() => minimapLines(blocks, spans, pageHeight, text), [blocks, spans, pageHeight, text]);
  const direction = useMemo(() => textDirection(text), [text]);
  const go = (event: PointerEvent): void => {
    const box = strip.current!.getBoundingClientRect();
    goTo(((event.clientY - box.top) / box.height) * pageHeight - view.height / 2);
  };
  const top = y(view.top);
  const bottom = Math.min(HEIGHT, y(view.top + view.height));
  return (
    <aside aria-label="Spine" className="steps-back hidden border-r border-rule py-3 min-[900px]:block">
      <svg
        ref={strip}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        className="h-full w-full cursor-pointer touch-none"
        role="img"
        aria-label={`Map of the document: headings, what is read, and the marks${hardWords(hard)}`}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          go(e);
        }}
        onPointerMove={(e) => e.buttons === 1 && go(e)}
      >
        <MinimapLines lines={lines} direction={direction} />
        <MinimapMarks threads={visible} places={places} pageHeight={pageHeight} />
        <MinimapHard cards={hard} places={places} pageHeight={pageHeight} />
        <path d={`M52 ${top}V${bottom}`} stroke="var(--tide)" strokeWidth="2.5" />
        <path d={`M8 ${top}h44M8 ${bottom}h44`} stroke="var(--tide)" strokeWidth="1.2" />
      </svg>
    </aside>
  );
}

/** Where lines begin and end in the strip, whichever way they are read. */
const LINES_START = 10;
const LINES_END = 50;
const indentOf = ({ heading }: Line): number => (heading ? 0 : 4);

interface MinimapLinesProps {
  readonly lines: readonly Line[];
  readonly direction: 'ltr' | 'rtl';
}

/** These two stay as they are while one scrolls. */
const MinimapLines = memo(function MinimapLines({ lines, direction }: MinimapLinesProps) {
  return lines.map((line) => (
    <rect
      key={line.y}
      data-line={line.heading ? 'heading' : 'text'}
      x={direction === 'rtl' ? LINES_END - line.width - indentOf(line) : LINES_START + indentOf(line)}
      y={line.y}
      width={line.width}
      height={line.heading ? 3.2 : 1.8}
      fill={fillOf(line)}
    />
  ));
});

function fillOf({ heading, read }: Pick<Line, 'heading' | 'read'>): string {
  if (heading) return 'var(--ink)';
  return read ? 'var(--strand)' : 'var(--rule)';
}

/** A path a pigment: a mark more costs the browser next to nothing. */
const MinimapMarks = memo(function MinimapMarks({ threads, places, pageHeight }: MarksProps) {
  const paths = new Map<string, string[]>();
  for (const {
    root: { id, kind },
    range,
  } of threads) {
    const place = places.get(id);
    if (!place) continue;
    const dash = `M58 ${round((place.top / Math.max(1, pageHeight)) * HEIGHT + 1.4)}h${round(Math.min(24, 5 + (range.end - range.start) / 9))}`;
    const of = paths.get(kind.pigment);
    if (of) of.push(dash);
    else paths.set(kind.pigment, [dash]);
  }
  return [...paths].map(([pigment, dashes]) => (
    <path
      key={pigment}
      data-marks={dashes.length}
      d={dashes.join('')}
      stroke={`var(--${pigment}-line)`}
      strokeWidth="2.8"
    />
  ));
});

interface HardProps extends Pick<MarksProps, 'places' | 'pageHeight'> {
  readonly cards: readonly CardRow[];
}

/** Where one's hardest cards stand: the more often one was forgotten, the taller. */
const MinimapHard = memo(function MinimapHard({ cards, places, pageHeight }: HardProps) {
  return cards.map(({ id, annotationId, forgotten, words }) => {
    const place = places.get(annotationId!)!;
    const tall = 3 + Math.min(5, forgotten);
    const top = round((place.top / Math.max(1, pageHeight)) * HEIGHT + 1.4);
    return (
      <path key={id} data-hard d={`M86 ${top}l7 ${-tall}v${2 * tall}z`} fill="var(--brick)">
        <title>{`Forgotten ${forgotten === 1 ? 'once' : `${forgotten} times`}: ${words}`}</title>
      </path>
    );
  });
});

const hardWords = (cards: readonly CardRow[]): string =>
  cards.length === 0 ? '' : `; ${count(cards.length, 'hard card')}`;

const round = (value: number): number => Math.round(value * 10) / 10;

interface Line {
  readonly y: number;
  readonly width: number;
  readonly heading: boolean;
  readonly read: boolean;
}

/** By level; smaller ones are alike. */
const HEADING_WIDTHS: Readonly<Record<number, number>> = { 1: 32, 2: 30 };

/** A line of the strip every few pixels, as wide as the words that stand there are many; a bar at each heading. */
function minimapLines(blocks: readonly PlacedBlock[], spans: Spans, pageHeight: number, text: string): readonly Line[] {
  const lines: Line[] = [];
  let at = 0;
  for (let y = FIRST; y < HEIGHT; y += STEP) {
    // Of a long page, what stands above the first line is more than its title.
    const from = y === FIRST ? 0 : (y / HEIGHT) * pageHeight;
    const to = ((y + STEP) / HEIGHT) * pageHeight;
    while (at < blocks.length && blocks[at]!.bottom < from) at++;
    const here = blocks.slice(at, at + 40).filter((b) => b.top < to);
    const heading = here.find((b) => b.block.role === 'heading' && b.top >= from);
    if (heading)
      lines.push({
        y,
        width: HEADING_WIDTHS[heading.block.level ?? 0] ?? 22,
        heading: true,
        read: true,
      });
    else if (here[0]) {
      const { start, end } = here[0].block;
      lines.push({
        y,
        width: 20 + (text.charCodeAt(Math.min(end - 1, start + y)) % 13),
        heading: false,
        read: covers(spans, start, end),
      });
    }
  }
  return lines;
}
