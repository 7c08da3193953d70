import { BLOCKS, PRESERVING, SILENT, SILENT_IN_SVG, headingLevel, roleOf, type BlockRole } from './elements';
import { inlineOf, MOST_INLINES, type Inline, type InlineStyle } from './inline';
import { readLocator } from './locator';
import type { Block, Locator, Run, TextStream } from './stream';
import { ELEMENT_NODE, TEXT_NODE, type TextNodeLike } from './tree';

/** Set by the server on what lies outside the main text; part of the snapshot, so both sides read it alike. */
export const ASIDE_ATTRIBUTE = 'data-avrelle-aside';

/** Set by the server on what a page's own styles hide. */
export const HIDDEN_ATTRIBUTE = 'data-avrelle-hidden';

/**
 * By which rules a snapshot is read, on its root: the offsets of a version hold for those it was read by.
 * Without it pictures in SVG are silent; by 2 what is written in them is text, and what styles hide is not.
 */
export const RULES_ATTRIBUTE = 'data-avrelle-rules';
export const NEWEST_RULES = '2';

/** HTML white space, and the characters that show nothing: soft hyphen, zero-width space, byte order mark. */
const PIECES = /[ \t\n\f\r]+|[\u00AD\u200B\uFEFF]+|[^ \t\n\f\r\u00AD\u200B\uFEFF]+/g;
/** Words parted by single spaces: nothing of it folds, so that it is one run at once. */
const PLAIN = /^[^ \t\n\f\r\u00AD\u200B\uFEFF]+(?: [^ \t\n\f\r\u00AD\u200B\uFEFF]+)*$/;
const isSpace = (unit: number): boolean => unit === 32 || (unit >= 9 && unit <= 13 && unit !== 11);
const isInvisible = (unit: number): boolean => unit === 0xad || unit === 0x200b || unit === 0xfeff;

/** The way from the root, last step first, so that a step further costs the same at any depth. */
interface Path {
  readonly index: number;
  readonly before: Path | undefined;
}

function written(path: Path | undefined): string {
  if (!path) return '';
  return path.before ? `${written(path.before)}/${path.index}` : String(path.index);
}

interface Frame {
  readonly role: BlockRole;
  readonly level: number | undefined;
  /** Of the block's element. */
  readonly path: Path | undefined;
  readonly aside: boolean;
  readonly preserve: boolean;
  readonly locator: Locator | undefined;
  /** Within a drawing in SVG. */
  readonly svg: boolean;
}

const ROOT: Frame = {
  role: 'paragraph',
  level: undefined,
  path: undefined,
  aside: false,
  preserve: false,
  locator: undefined,
  svg: false,
};

/**
 * Reads a tree as one stream. Blocks stand on lines of their own, cells of one row are parted by a tab, white space
 * folds to one space, and nothing begins or ends with it. The tree is not changed.
 */
export function readTree(root: TextNodeLike): TextStream {
  const reader = new Reader(root.getAttribute?.(RULES_ATTRIBUTE) === NEWEST_RULES);
  reader.visit(root, ROOT);
  return reader.finish();
}

class Reader {
  private readonly parts: string[] = [];
  private readonly runs: Growing<Run>[] = [];
  private readonly outline: Block[] = [];
  private readonly inlines: Inline[] = [];
  /** Inline elements of which no word was read yet: they begin with the next. */
  private waiting: { start: number }[] = [];
  private length = 0;
  /** What must be written before the next visible character: white space, a tab between cells, a newline between blocks. */
  private gap = '';
  private spaceRun: { node: TextNodeLike; from: number; to: number } | undefined;
  /** True from a row's edge until something is written in it. */
  private rowIsNew = false;
  private inSvgText = false;
  private open: { frame: Frame; start: number } | undefined;

  constructor(private readonly readsDrawings: boolean) {}

  visit(node: TextNodeLike, frame: Frame, path?: Path): void {
    if (node.nodeType === TEXT_NODE) return frame.svg && !this.inSvgText ? undefined : this.text(node, frame);
    const name = node.nodeName.toLowerCase();
    if (node.nodeType !== ELEMENT_NODE) return this.children(node, frame, path);
    if (this.isSilent(node, name, frame)) return;
    if (name === 'br') return this.lineBreak();
    if (name === 'img') return this.picture(node);
    const inline = inlineOf(node, name);
    const mark = inline && this.inlines.length < MOST_INLINES ? this.beginInline() : undefined;
    this.element(node, name, frame, path);
    if (mark) this.endInline(mark, inline!);
  }

  private element(node: TextNodeLike, name: string, frame: Frame, path: Path | undefined): void {
    const writing = frame.svg && name === 'text';
    const before = this.inSvgText;
    if (writing) {
      this.breakBlock(name);
      this.inSvgText = true;
    }
    this.children(node, this.enter(node, name, frame, path), path);
    if (writing) this.inSvgText = before;
    if (BLOCKS.has(name) || writing) this.breakBlock(name);
  }

  private isSilent(node: TextNodeLike, name: string, frame: Frame): boolean {
    if (node.getAttribute?.('hidden') != null) return true;
    if (!this.readsDrawings) return SILENT.has(name);
    if (node.getAttribute?.(HIDDEN_ATTRIBUTE) != null) return true;
    return frame.svg ? SILENT_IN_SVG.has(name) : SILENT.has(name) && name !== 'svg';
  }

  private beginInline(): { start: number } {
    const mark = { start: -1 };
    this.waiting.push(mark);
    return mark;
  }

  private endInline(mark: { readonly start: number }, inline: InlineStyle): void {
    if (mark.start >= 0) this.inlines.push({ start: mark.start, end: this.length, ...inline });
    else this.waiting = this.waiting.filter((other) => other !== mark);
  }

  private picture(node: TextNodeLike): void {
    const inline = inlineOf(node, 'img');
    if (inline && this.inlines.length < MOST_INLINES)
      this.inlines.push({ start: this.length, end: this.length, ...inline });
  }

  finish(): TextStream {
    this.closeBlock();
    const inlines = this.inlines.sort((a, b) => a.start - b.start || b.end - a.end);
    return { text: this.parts.join(''), outline: this.outline, inlines, runs: this.runs };
  }

  private children(node: TextNodeLike, frame: Frame, path: Path | undefined): void {
    let index = 0;
    for (let child = node.firstChild; child; child = child.nextSibling) {
      if (child.nodeType === ELEMENT_NODE) this.visit(child, frame, { index: index++, before: path });
      else this.visit(child, frame);
    }
  }

  private enter(node: TextNodeLike, name: string, frame: Frame, path: Path | undefined): Frame {
    const aside = frame.aside || node.getAttribute?.(ASIDE_ATTRIBUTE) != null;
    const svg = frame.svg || name === 'svg';
    if (!BLOCKS.has(name)) return aside === frame.aside && svg === frame.svg ? frame : { ...frame, aside, svg };
    this.breakBlock(name);
    const locator = readLocator(node) ?? frame.locator;
    const role = roleOf(name) ?? roleWithin(frame, name, locator);
    const level = headingLevel(name) ?? (role === 'heading' ? frame.level : undefined);
    return { role, level, path, aside, preserve: frame.preserve || PRESERVING.has(name), locator, svg };
  }

  /** Between cells of one row stands a tab, also around the paragraphs inside them; elsewhere a newline. */
  private breakBlock(name: string): void {
    this.closeBlock();
    this.dropSpace();
    if (this.length === 0) return;
    if (name === 'tr') this.rowIsNew = true;
    const betweenCells = (name === 'td' || name === 'th') && !this.rowIsNew;
    if (betweenCells) this.gap = '\t';
    else if (this.gap !== '\t' || name === 'tr') this.gap = '\n';
  }

  private lineBreak(): void {
    this.dropSpace();
    if (this.length > 0) this.gap = '\n';
  }

  private text(node: TextNodeLike, frame: Frame): void {
    const data = node.nodeValue ?? '';
    if (PLAIN.test(data)) {
      this.begin(frame);
      return this.addRun(node, 0, data.length, data);
    }
    for (const piece of data.matchAll(PIECES)) {
      const from = piece.index;
      const to = from + piece[0].length;
      const unit = data.charCodeAt(from);
      if (isSpace(unit)) this.space(node, from, to, frame.preserve ? piece[0] : ' ');
      else if (!isInvisible(unit)) {
        this.begin(frame);
        this.addRun(node, from, to, piece[0]);
      }
    }
  }

  /** White space waits until something visible follows it; where it is preserved, none of it folds. */
  private space(node: TextNodeLike, from: number, to: number, written: string): void {
    if (!this.open) return;
    if (this.gap && written === ' ') return;
    this.writeGap();
    this.gap = written;
    this.spaceRun = { node, from, to };
  }

  private dropSpace(): void {
    if (this.spaceRun) this.gap = '';
    this.spaceRun = undefined;
  }

  /** Words are about to stand in a block. */
  private begin(frame: Frame): void {
    this.writeGap();
    this.open ??= { frame, start: this.length };
    if (this.waiting.length > 0) this.beginWaiting();
  }

  private beginWaiting(): void {
    for (const mark of this.waiting) mark.start = this.length;
    this.waiting = [];
  }

  private writeGap(): void {
    if (!this.gap) return;
    const run = this.spaceRun;
    if (run) this.addRun(run.node, run.from, run.to, this.gap);
    else this.write(this.gap);
    this.gap = '';
    this.spaceRun = undefined;
    this.rowIsNew = false;
  }

  private write(piece: string): void {
    this.parts.push(piece);
    this.length += piece.length;
  }

  /**
   * Writes what stands at `[nodeStart, nodeEnd)` of a node. Neighbouring runs of one node that match one to one become
   * one, so that a paragraph costs one run.
   */
  private addRun(node: TextNodeLike, nodeStart: number, nodeEnd: number, piece: string): void {
    const start = this.length;
    this.write(piece);
    const run = { node, nodeStart, nodeEnd, start, end: this.length };
    const last = this.runs.at(-1);
    if (last && follows(last, run) && linear(last) && linear(run)) {
      last.nodeEnd = nodeEnd;
      last.end = run.end;
    } else this.runs.push(run);
  }

  private closeBlock(): void {
    if (!this.open) return;
    const { frame, start } = this.open;
    this.outline.push({
      start,
      end: this.length,
      role: frame.role,
      path: written(frame.path),
      ...(frame.level === undefined ? {} : { level: frame.level }),
      ...(frame.aside ? { aside: true } : {}),
      ...(frame.locator ? { locator: frame.locator } : {}),
    });
    this.open = undefined;
  }
}

type Growing<T> = { -readonly [Key in keyof T]: T[Key] };
const follows = (last: Run, { node, nodeStart, start }: Run): boolean =>
  last.node === node && last.nodeEnd === nodeStart && last.end === start;
const linear = (run: Run): boolean => run.end - run.start === run.nodeEnd - run.nodeStart;
/** The role of what has none by its name: a cue's where it says when it is spoken, else that of what it stands in. */
function roleWithin(frame: Frame, name: string, locator: Locator | undefined): BlockRole {
  if (locator && 'from' in locator) return 'cue';
  return name === 'p' ? inherited(frame.role) : frame.role;
}
/** A paragraph inside an item, cell, caption or quotation is still that; inside a heading there is none. */
const inherited = (role: BlockRole): BlockRole => (role === 'heading' ? 'paragraph' : role);
