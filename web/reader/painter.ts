import { KEY, PLAIN_NOTE, type KindCode } from '@avrelle/core/key';
import type { PageAdapter, StreamRange } from './page-frame';

export interface Painted extends StreamRange {
  readonly kind: KindCode;
}

const COLOURS = ['weld', 'verdigris', 'woad', 'orchil', 'madder', 'ochre', 'plain'] as const;
type Palette = Readonly<Record<string, string>>;

/** Style of each kind. A highlight pseudo-element takes backgrounds and text decorations only (CSS Pseudo-Elements 4). */
const STYLE: Readonly<Record<KindCode, (p: Palette) => string>> = {
  claim: (p) => `background-color:${p.weld}`,
  evidence: (p) => `background-color:${p.verdigris};text-decoration:underline dashed 2px ${p['verdigris-line']}`,
  question: (p) => `text-decoration:underline wavy 1.5px ${p['woad-line']}`,
  term: (p) => `text-decoration:underline dotted 3px ${p['orchil-line']}`,
  doubt: (p) => `text-decoration:underline double 1.5px ${p['madder-line']}`,
  keep: (p) => `text-decoration:underline solid 6px ${p.ochre}`,
  note: (p) => `text-decoration:underline solid 1px ${p['plain-line']}`,
};

const name = (kind: KindCode | 'open' | 'found'): string => `avrelle-${kind}`;

/** Paints marks on a document without touching it: one CSS custom highlight a kind, in a sheet of our own. */
export class Painter {
  private readonly sheet: CSSStyleSheet;

  constructor(private readonly page: PageAdapter) {
    this.sheet = new page.window.CSSStyleSheet();
    page.document.adoptedStyleSheets = [...page.document.adoptedStyleSheets, this.sheet];
  }

  /** Takes the colours from the tokens in force; call again when the theme changes. */
  dress(tokens: CSSStyleDeclaration): void {
    const palette: Record<string, string> = {};
    for (const colour of COLOURS) {
      palette[colour] = tokens.getPropertyValue(`--${colour}`);
      palette[`${colour}-line`] = tokens.getPropertyValue(`--${colour}-line`);
    }
    const ink = tokens.getPropertyValue('--ink'), tide = tokens.getPropertyValue('--tide');
    const rules = [...KEY, PLAIN_NOTE].map(({ code }) => `::highlight(${name(code)}){${STYLE[code](palette)};color:${code === 'claim' || code === 'evidence' ? ink : 'inherit'}}`);
    rules.push(`::highlight(${name('open')}){text-decoration:underline solid 2px ${tide}}`, `::highlight(${name('found')}){background-color:${tokens.getPropertyValue('--tide')};color:${tokens.getPropertyValue('--paper')}}`);
    this.sheet.replaceSync(rules.join('\n'));
  }

  paint(marks: readonly Painted[]): void {
    const byKind = new Map<KindCode, AbstractRange[]>();
    for (const mark of marks) {
      const range = this.page.domRange(mark);
      if (!range) continue;
      const ranges = byKind.get(mark.kind);
      if (ranges) ranges.push(range);
      else byKind.set(mark.kind, [range]);
    }
    for (const { code } of [...KEY, PLAIN_NOTE]) this.set(name(code), byKind.get(code) ?? [], 1);
  }

  /** The passage whose note is open. */
  open(ranges: readonly StreamRange[]): void {
    this.set(name('open'), ranges.flatMap((r) => this.page.domRange(r) ?? []), 2);
  }

  /** The passage a search or a link led to. */
  found(range: StreamRange | undefined): void {
    const made = range && this.page.domRange(range);
    this.set(name('found'), made ? [made] : [], 3);
  }

  private set(highlight: string, ranges: readonly AbstractRange[], priority: number): void {
    const made = new this.page.window.Highlight(...ranges);
    made.priority = priority;
    this.page.window.CSS.highlights.set(highlight, made);
  }
}
