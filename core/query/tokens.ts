import type { Spanned } from './query';

export type Token = Spanned &
  (
    | { readonly type: 'open' | 'close' | 'or' | 'and' | 'not' }
    | { readonly type: 'words'; readonly text: string; readonly phrase: boolean; readonly closed: boolean }
    /** `sign` is what stands between the name and its value: a colon or a comparison. */
    | {
        readonly type: 'field';
        readonly name: string;
        readonly sign: string;
        readonly value: string;
        readonly quoted: boolean;
        readonly closed: boolean;
        readonly valueStart: number;
      }
  );

const NAME = /([a-z]+)(:(?!\/\/)|<=|>=|<|>|=)/iy;
const DATED = /(?:(?:last|next)\s+(?:\d{1,4}\s+)?(?:days?|weeks?|months?))(?![^\s()])/iy;

/** Takes what was typed apart. Every character that is no space lies in one token. */
export function tokensIn(typed: string): readonly Token[] {
  const tokens: Token[] = [];
  for (let at = 0; at < typed.length;) {
    if (/\s/.test(typed[at]!)) {
      at++;
      continue;
    }
    const token = tokenAt(typed, at);
    tokens.push(token);
    at = token.end;
  }
  return tokens;
}

function tokenAt(typed: string, start: number): Token {
  const sign = typed[start]!;
  if (sign === '(' || sign === ')') return { type: sign === '(' ? 'open' : 'close', start, end: start + 1 };
  if (sign === '-' && !/[\s-]/.test(typed[start + 1] ?? ' ')) return { type: 'not', start, end: start + 1 };
  const field = match(NAME, typed, start);
  if (field) return fieldAt(typed, start, field[1]!, field[2]!);
  if (sign === '"') {
    const { text, end, closed } = quoted(typed, start);
    return { type: 'words', text, phrase: true, closed, start, end };
  }
  const end = wordEnd(typed, start);
  const text = typed.slice(start, end);
  if (text === 'OR' || text === 'AND' || text === 'NOT')
    return { type: text.toLowerCase() as 'or' | 'and' | 'not', start, end };
  return { type: 'words', text, phrase: false, closed: true, start, end };
}

function fieldAt(typed: string, start: number, name: string, sign: string): Token {
  const valueStart = start + name.length + sign.length;
  const common = { type: 'field' as const, name, sign, start, valueStart };
  if (typed[valueStart] === '"') {
    const { text, end, closed } = quoted(typed, valueStart);
    return { ...common, value: text, quoted: true, closed, end };
  }
  const dated = match(DATED, typed, valueStart);
  const end = dated ? valueStart + dated[0].length : wordEnd(typed, valueStart);
  return { ...common, value: typed.slice(valueStart, end), quoted: false, closed: true, end };
}

function match(pattern: RegExp, typed: string, at: number): RegExpExecArray | null {
  pattern.lastIndex = at;
  return pattern.exec(typed);
}

function quoted(typed: string, start: number): { text: string; end: number; closed: boolean } {
  const close = typed.indexOf('"', start + 1);
  const closed = close >= 0;
  return { text: typed.slice(start + 1, closed ? close : undefined), end: closed ? close + 1 : typed.length, closed };
}

function wordEnd(typed: string, start: number): number {
  let end = start;
  while (end < typed.length && !/[\s()"]/.test(typed[end]!)) end++;
  return end;
}
