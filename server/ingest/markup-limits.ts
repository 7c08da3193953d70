import { AppError } from '../errors';
import { rootOf, type PageNode, type PageTree } from './page-tree';

/** What one page may hold: more is no page that anybody reads, and takes a parser minutes. */
const MOST_ELEMENTS = 400_000;
const MOST_ATTRIBUTES = 1_000;
/** Open elements at once as they are written; those whose end may be left out are not counted. */
const MOST_OPEN = 2_000;
/** As deep as browsers nest elements; what lies deeper they put beside each other. */
export const DEEPEST = 512;

const VOID = new Set('area base br col embed hr img input link meta param source track wbr'.split(' '));
/** Elements whose end tag may be left out (HTML Standard, 13.1.2.4). */
const MAY_STAY_OPEN = new Set(
  'html head body p li dt dd option optgroup tr td th tbody thead tfoot colgroup caption rp rt'.split(' '),
);
/** Elements that end the drawing they stand in (HTML Standard, 13.2.6.5). */
const BREAKS_OUT = new Set(
  'b big blockquote body br center code dd div dl dt em embed h1 h2 h3 h4 h5 h6 head hr i img li listing menu meta nobr ol p pre ruby s small span strong strike sub sup table tt u ul var'.split(
    ' ',
  ),
);
/** Elements whose text is no markup (HTML Standard, 13.2.5.1). */
const RAW = new Set(['script', 'style', 'textarea', 'title', 'xmp', 'iframe', 'noembed', 'noframes', 'plaintext']);

/** Looks a page through once, before anything is built of it. Throws `too_complex` with what there is too much of. */
export function checkMarkup(html: string, address: string): void {
  const reason = new MarkupCount(html).tooMuch();
  if (reason !== undefined) throw new AppError('too_complex', { address, reason });
}

/** Goes through the tags of a page, and counts. */
class MarkupCount {
  private elements = 0;
  private open = 0;
  private readonly drawing = new DrawingState();

  constructor(private readonly html: string) {}

  /** What there is too much of, in words. */
  tooMuch(): string | undefined {
    const { html } = this;
    for (let at = html.indexOf('<'); at >= 0; at = html.indexOf('<', at)) {
      if (html.startsWith('<!--', at)) {
        at = after(html, '-->', at + 4);
        continue;
      }
      const closes = html[at + 1] === '/';
      const nameAt = at + (closes ? 2 : 1);
      if (!isLetter(html.charCodeAt(nameAt))) {
        at = nameAt;
        continue;
      }
      const tag = readTag(html, nameAt);
      if (tag.attributes > MOST_ATTRIBUTES)
        return `one element has more than ${MOST_ATTRIBUTES.toLocaleString('en')} attributes`;
      at = closes ? this.close(tag) : this.begin(tag);
      if (this.open > MOST_OPEN) return `more than ${MOST_OPEN.toLocaleString('en')} elements stand in one another`;
    }
    return this.elements > MOST_ELEMENTS
      ? `it has ${this.elements.toLocaleString('en')} elements; ${MOST_ELEMENTS.toLocaleString('en')} can be read`
      : undefined;
  }

  /** Where to go on. */
  private close({ name, end }: Tag): number {
    this.drawing.close(name);
    if (!MAY_STAY_OPEN.has(name) && this.open > 0) this.open--;
    return end;
  }

  /** Where to go on: after its text, where that is no markup. */
  private begin(tag: Tag): number {
    this.elements++;
    const isRaw = RAW.has(tag.name) && !this.drawing.draws;
    const closed = this.drawing.open(tag);
    if (isRaw) return after(this.html, `</${tag.name}`, tag.end);
    if (!closed && !VOID.has(tag.name) && !MAY_STAY_OPEN.has(tag.name)) this.open++;
    return tag.end;
  }
}

/** Where a drawing holds HTML again (HTML Standard, 13.2.6.5, integration points). */
const HOLDS_HTML = /^(title|desc|foreignobject)$/;

/** Within a drawing an element may end with its own tag, `<path/>`; in HTML that ends nothing (HTML Standard, 13.2.6.5). */
class DrawingState {
  private readonly outer: string[] = [];

  get draws(): boolean {
    return this.outer.at(-1) === 'svg';
  }
  /** Whether the tag ends itself. */
  open({ name, selfClosing }: Tag): boolean {
    if (name === 'svg' || this.draws) {
      if (BREAKS_OUT.has(name)) this.outer.length = 0;
      else if (selfClosing) return true;
      else if (name === 'svg' || HOLDS_HTML.test(name)) this.outer.push(name);
    }
    return false;
  }
  close(name: string): void {
    if (this.outer.at(-1) === name) this.outer.pop();
  }
}

/** How deep a tree is, without calling itself. */
export function checkDepth(tree: PageTree, address: string): void {
  let depth = 0;
  for (let node: PageNode | null = rootOf(tree); node;) {
    if ('firstChild' in node && node.firstChild) {
      node = node.firstChild;
      if (++depth > DEEPEST)
        throw new AppError('too_complex', {
          address,
          reason: `its elements are nested more than ${DEEPEST} deep, deeper than browsers show`,
        });
      continue;
    }
    while (node && depth > 0 && !node.nextSibling) {
      node = node.parent;
      depth--;
    }
    node = depth === 0 ? null : (node?.nextSibling ?? null);
  }
}

const isLetter = (code: number): boolean => (code >= 65 && code <= 90) || (code >= 97 && code <= 122);
const isSpace = (code: number): boolean => code === 32 || (code >= 9 && code <= 13);

function after(html: string, words: string, from: number): number {
  const at = indexOfFolded(html, words, from);
  return at < 0 ? html.length : at + words.length;
}

/** In a text of any case; only the first letters are looked for one by one. */
function indexOfFolded(html: string, words: string, from: number): number {
  for (let at = html.indexOf(words[0]!, from); at >= 0; at = html.indexOf(words[0]!, at + 1)) {
    if (html.slice(at, at + words.length).toLowerCase() === words) return at;
  }
  return -1;
}

interface Tag {
  readonly name: string;
  readonly attributes: number;
  readonly selfClosing: boolean;
  readonly end: number;
}

/** From its name to behind its `>`; quoted values may hold one. */
function readTag(html: string, nameAt: number): Tag {
  let at = nameAt;
  while (at < html.length && !isSpace(html.charCodeAt(at)) && html[at] !== '>' && html[at] !== '/') at++;
  const name = html.slice(nameAt, at).toLowerCase();
  let attributes = 0;
  let inName = false;
  for (; at < html.length; at++) {
    const code = html.charCodeAt(at);
    if (code === 62) return { name, attributes, selfClosing: html[at - 1] === '/', end: at + 1 };
    if (isSpace(code) || code === 47) inName = false;
    else if (code === 61) {
      at = valueEnd(html, at + 1) - 1;
      inName = false;
    } else if (!inName) {
      inName = true;
      attributes++;
    }
  }
  return { name, attributes, selfClosing: false, end: html.length };
}

/** Behind the value of an attribute that begins after its `=`. */
function valueEnd(html: string, from: number): number {
  let at = from;
  while (at < html.length && isSpace(html.charCodeAt(at))) at++;
  const quote = html[at];
  if (quote === '"' || quote === "'") {
    const end = html.indexOf(quote, at + 1);
    return end < 0 ? html.length : end + 1;
  }
  while (at < html.length && !isSpace(html.charCodeAt(at)) && html[at] !== '>') at++;
  return at;
}
