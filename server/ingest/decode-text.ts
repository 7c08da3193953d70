import chardet from 'chardet';
import { decode, labelToName } from 'whatwg-encoding';
import { AppError } from '../errors';
import type { Got } from './got';

/** Control characters that no text file holds (all of C0 but tab, newlines and form feed). */
// eslint-disable-next-line no-control-regex -- looking for exactly these
const BINARY = /[\u0000-\u0008\u000E-\u001A\u001C-\u001F]/;

/** Byte order marks (The Unicode Standard, 2.13); the longer first, since one begins like another. */
const MARKS: readonly (readonly [bytes: readonly number[], encoding: Mark])[] = [
  [[0xff, 0xfe, 0, 0], 'utf-32le'],
  [[0, 0, 0xfe, 0xff], 'utf-32be'],
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
  [[0xef, 0xbb, 0xbf], 'utf-8'],
];
type Mark = 'utf-32le' | 'utf-32be' | 'utf-16le' | 'utf-16be' | 'utf-8';

const markOf = (bytes: Uint8Array): readonly [length: number, encoding: Mark] | undefined => {
  const found = MARKS.find(([mark]) => mark.every((byte, n) => bytes[n] === byte));
  return found && [found[0].length, found[1]];
};

/** Most megabytes of a text: ten novels. */
const MOST_TEXT = 20;
/** Under this a guess is no better than another (the library's own scale, 0 to 100). */
const LEAST_SURE = 10;
/** Fewer bytes beyond ASCII say nothing of a language: then what most of the web was in (HTML Standard, 13.2.3.2). */
const LEAST_BYTES = 6;

/** As `readText`, for files of a format that says its encoding itself. */
export const decodeText = (bytes: Uint8Array, name: string, contentType = ''): string =>
  readText({ bytes, name, contentType }).text;

/**
 * Decodes a text file: by what its reader says, by its byte order mark, by what it was sent as, as UTF-8 where it is that,
 * else by what its bytes are most like. Gives the name of that (Encoding Standard) with it. Throws `not_text`,
 * `wrong_encoding` with the first bad byte.
 */
export function readText({
  bytes,
  name,
  contentType,
  encoding: said,
}: Pick<Got, 'bytes' | 'name' | 'contentType' | 'encoding'>): { readonly text: string; readonly encoding: string } {
  if (bytes.byteLength > MOST_TEXT * 1024 * 1024)
    throw new AppError('too_large', { address: name, limit: MOST_TEXT }, { field: 'file' });
  const mark = markOf(bytes);
  const found = said ?? mark?.[1] ?? encodingOf(bytes, contentType);
  const read = (encoding: string): string | undefined =>
    mark && !said ? withMark(bytes.subarray(mark[0]), mark[1]) : decode(bytes, encoding);
  const text = found && read(found);
  if (text === undefined || found === undefined) {
    if (looksBinary(bytes)) throw new AppError('not_text', { name }, { field: 'file' });
    throw new AppError('wrong_encoding', { name, encoding: 'UTF-8', at: firstBadByte(bytes) }, { field: 'file' });
  }
  if (BINARY.test(text)) throw new AppError('not_text', { name }, { field: 'file' });
  return { text, encoding: labelToName(found) ?? found };
}

/** What bytes without a mark are most like, as a name of the Encoding Standard; undefined where nothing is likely. */
export function likelyEncoding(bytes: Uint8Array): string | undefined {
  const wide = wideEncoding(bytes);
  if (wide) return wide;
  const head = bytes.subarray(0, 200_000);
  if (head.reduce((count, byte) => count + (byte > 127 ? 1 : 0), 0) < LEAST_BYTES) return 'windows-1252';
  for (const { name, confidence } of chardet.analyse(head)) {
    const known = confidence >= LEAST_SURE ? labelToName(name) : null;
    // What leaves holes is not what it was written in.
    if (known && !decode(head.subarray(0, 60_000), known).slice(0, -2).includes('\uFFFD')) return known;
  }
  return undefined;
}

export const isUtf8 = (bytes: Uint8Array): boolean => strict('utf-8', bytes) !== undefined;

export const charsetOf = (contentType: string): string | undefined =>
  labelToName(/charset=["']?([\w.:-]+)/i.exec(contentType)?.[1] ?? '') ?? undefined;

/** No text of any encoding: control characters, where every second byte is not zero as in UTF-16. */
export function looksBinary(bytes: Uint8Array): boolean {
  const head = bytes.subarray(0, 4096);
  if (markOf(head)) {
    const [length, encoding] = markOf(head)!;
    const text = withMark(head.subarray(length, 4092), encoding, true);
    return text === undefined
      ? encoding !== 'utf-8' || BINARY.test(Buffer.from(head).toString('latin1'))
      : BINARY.test(text);
  }
  return wideEncoding(head) === undefined && BINARY.test(Buffer.from(head).toString('latin1'));
}

/** Begins with a byte order mark, and goes on as text: `FF FE` also begins a frame of sound. */
export const isMarkedText = (bytes: Uint8Array): boolean => markOf(bytes) !== undefined && !looksBinary(bytes);

/** Of a text without a mark. */
function encodingOf(bytes: Uint8Array, contentType: string): string | undefined {
  const sent = charsetOf(contentType);
  if (sent && sent !== 'UTF-8') return sent;
  if (isUtf8(bytes)) return 'UTF-8';
  return looksBinary(bytes) ? undefined : likelyEncoding(bytes);
}

/** `begun` is the beginning of a text, which may end within a character. */
function withMark(bytes: Uint8Array, encoding: Mark, begun = false): string | undefined {
  // The Encoding Standard has no UTF-32.
  return encoding === 'utf-32le' || encoding === 'utf-32be'
    ? fromUtf32(bytes, encoding === 'utf-32le')
    : strict(encoding, bytes, begun);
}

function strict(encoding: string, bytes: Uint8Array, begun = false): string | undefined {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes, { stream: begun });
  } catch {
    return undefined;
  }
}

function fromUtf32(bytes: Uint8Array, little: boolean): string | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const parts: string[] = [];
  for (let at = 0; at + 4 <= bytes.byteLength; at += 4) {
    const code = view.getUint32(at, little);
    if (code > 0x10ffff || (code >= 0xd800 && code <= 0xdfff)) return undefined;
    parts.push(String.fromCodePoint(code));
  }
  return parts.join('');
}

/** UTF-16 without a mark: of Latin letters, every second byte is zero. */
function wideEncoding(bytes: Uint8Array): 'UTF-16LE' | 'UTF-16BE' | undefined {
  const length = Math.min(bytes.byteLength, 4096) & ~1;
  if (length < 8) return undefined;
  const zeros = [0, 0];
  for (let at = 0; at < length; at++) if (bytes[at] === 0) zeros[at % 2]!++;
  const many = (n: number): boolean => zeros[n]! > length * 0.35 && zeros[1 - n] === 0;
  if (many(1)) return 'UTF-16LE';
  return many(0) ? 'UTF-16BE' : undefined;
}

/** Offset of the first byte that is not UTF-8: everything before the first replacement character was. */
function firstBadByte(bytes: Uint8Array): number {
  const text = new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes);
  return Buffer.byteLength(text.slice(0, text.indexOf('\uFFFD')), 'utf8');
}
