import { lookName, LOOKS, type Line, type Look } from '@avrelle/core/legend';
import type { PageAdapter, StreamRange } from './page-frame';

export interface Painted extends StreamRange {
  readonly kind: Look;
}

/** In longhands: WebKit drops the shorthand where it has a style, a colour and a thickness together. */
const underline = (style: string, thickness: number, colour: string): string =>
  `text-decoration-line:underline;text-decoration-style:${style};text-decoration-thickness:${thickness}px;text-decoration-color:${colour}`;

/** The tones of a pigment: its wash, its line, and the ink on top. */
type Draw = (wash: string, line: string, ink: string) => string;

/**
 * How each line is drawn. A highlight pseudo-element takes backgrounds and text decorations only (CSS Pseudo-Elements 4);
 * every kind has a decoration of its own, for where colours are forced and backgrounds are not drawn.
 */
const STYLE: Readonly<Record<Line, Draw>> = {
  solid: (wash, line, ink) => `background-color:${wash};color:${ink};${underline('solid', 1, line)}`,
  dashed: (wash, line, ink) => `background-color:${wash};color:${ink};${underline('dashed', 2, line)}`,
  wavy: (_, line) => `color:inherit;${underline('wavy', 1.5, line)}`,
  dotted: (_, line) => `color:inherit;${underline('dotted', 3, line)}`,
  double: (_, line) => `color:inherit;${underline('double', 1.5, line)}`,
  thick: (wash, line) => `color:inherit;${underline('solid', 5, `color-mix(in srgb, ${line} 70%, ${wash})`)}`,
  hairline: (_, line) => `color:inherit;${underline('solid', 1, line)}`,
};

const NAMES = LOOKS.map(lookName);
const name = (what: string): string => `avrelle-${what}`;

/** Paints marks on a document without touching it: one CSS custom highlight a look, in a sheet of our own. */
export class Painter {
  private readonly sheet: CSSStyleSheet;
  /** What is painted by now, by its look and place: a new mark costs as much as itself. */
  private readonly painted = new Map<string, Map<string, AbstractRange>>();

  /** What stands around a passage that is shown steps back. */
  private readonly around: CSSStyleSheet;
  private aroundRule = '';

  constructor(private readonly page: PageAdapter) {
    const { CSSStyleSheet } = page.window;
    this.sheet = new CSSStyleSheet();
    this.around = new CSSStyleSheet();
    page.document.adoptedStyleSheets = [...page.document.adoptedStyleSheets, this.sheet, this.around];
  }

  /**
   * Takes the colours from the tokens in force; call again when the theme changes. `overPicture` where the letters one
   * sees are those of a picture below, and the text itself is clear.
   */
  dress(tokens: CSSStyleDeclaration, overPicture = false): void {
    const ink = overPicture ? 'transparent' : tokens.getPropertyValue('--ink');
    const tide = tokens.getPropertyValue('--tide');
    const found = overPicture
      ? `background-color:color-mix(in srgb,${tide} 38%,transparent);color:transparent`
      : `background-color:${tide};color:${tokens.getPropertyValue('--paper')}`;
    const rules = LOOKS.map(
      (look) =>
        `::highlight(${name(lookName(look))}){${STYLE[look.line](tokens.getPropertyValue(`--${look.pigment}`), tokens.getPropertyValue(`--${look.pigment}-line`), ink)}}`,
    );
    rules.push(
      `::highlight(${name('open')}){${underline('solid', 2, tide)}}`,
      `::highlight(${name('grown')}){background-color:color-mix(in srgb,${tide} 26%,transparent)}`,
      `::highlight(${name('found')}){${found}}`,
      `::highlight(${name('cue')}){background-color:${tokens.getPropertyValue('--tide-wash')};${underline('solid', 1, tide)}}`,
    );
    rules.push(`::highlight(${name('shown')}){color:${ink}}`);
    this.sheet.replaceSync(rules.join('\n'));
    this.aroundRule = overPicture ? '' : `body{color:${tokens.getPropertyValue('--ink-faint')}!important}`;
  }

  paint(marks: readonly Painted[]): void {
    const wanted = new Map<string, Map<string, Painted>>();
    for (const mark of marks) {
      const look = lookName(mark.kind);
      const of = wanted.get(look) ?? new Map<string, Painted>();
      wanted.set(look, of.set(`${mark.start} ${mark.end}`, mark));
    }
    for (const look of NAMES) this.paintLook(look, wanted.get(look) ?? new Map());
  }

  /** One more, at once: before anything else hears of it. The next painting of all keeps it, or takes it away. */
  add(mark: Painted): void {
    const look = lookName(mark.kind);
    const place = `${mark.start} ${mark.end}`;
    const now = this.painted.get(look) ?? new Map<string, AbstractRange>();
    const range = now.has(place) ? null : this.page.domRange(mark);
    if (!range) return;
    this.highlightOf(look).add(range);
    this.painted.set(look, now.set(place, range));
  }

  private highlightOf(look: string): Highlight {
    const { CSS, Highlight } = this.page.window;
    const known = CSS.highlights.get(name(look));
    if (known) return known;
    const made = new Highlight();
    made.priority = 1;
    CSS.highlights.set(name(look), made);
    return made;
  }

  private paintLook(look: string, wanted: ReadonlyMap<string, Painted>): void {
    const now = this.painted.get(look) ?? new Map<string, AbstractRange>();
    const come = [...wanted].filter(([place]) => !now.has(place));
    const gone = [...now].filter(([place]) => !wanted.has(place));
    if (come.length === 0 && gone.length === 0) return;
    const highlight = this.highlightOf(look);
    for (const [place, range] of gone) {
      highlight.delete(range);
      now.delete(place);
    }
    for (const [place, mark] of come) {
      const range = this.page.domRange(mark);
      if (range) {
        highlight.add(range);
        now.set(place, range);
      }
    }
    this.painted.set(look, now);
  }

  /** The passage whose note is open. */
  open(ranges: readonly StreamRange[]): void {
    this.set(
      name('open'),
      ranges.flatMap((r) => this.page.domRange(r) ?? []),
      2,
    );
  }

  /** A passage whose ends are being moved, as it would be. */
  grown(range: StreamRange | undefined): void {
    const made = range && this.page.domRange(range);
    this.set(name('grown'), made ? [made] : [], 3);
  }

  /** The passage a search or a link led to. */
  found(range: StreamRange | undefined): void {
    const made = range && this.page.domRange(range);
    this.set(name('found'), made ? [made] : [], 3);
  }

  /** A passage that is shown to others: what stands around it is fainter. */
  shown(range: StreamRange | undefined): void {
    const made = range && this.page.domRange(range);
    this.set(name('shown'), made ? [made] : [], 4);
    this.around.replaceSync(made ? this.aroundRule : '');
  }

  /** The words that are being spoken. */
  cue(range: StreamRange | undefined): void {
    const made = range && this.page.domRange(range);
    this.set(name('cue'), made ? [made] : [], 0);
  }

  /** What is nothing and was nothing is not touched. */
  private set(highlight: string, ranges: readonly AbstractRange[], priority: number): void {
    const { CSS, Highlight } = this.page.window;
    if (ranges.length === 0 && !CSS.highlights.get(highlight)?.size) return;
    const made = new Highlight(...ranges);
    made.priority = priority;
    CSS.highlights.set(highlight, made);
  }
}
