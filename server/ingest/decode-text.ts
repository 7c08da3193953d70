import { AppError } from '../errors';

/** Control characters that no text file holds (all of C0 but tab, newlines and form feed). */
// eslint-disable-next-line no-control-regex -- looking for exactly these
const BINARY = /[\u0000-\u0008\u000E-\u001A\u001C-\u001F]/;

/** Decodes a text file: by its byte order mark, else as UTF-8. Anything else is refused with the first bad byte. */
export function decodeText(bytes: Uint8Array, name: string): string {
  const encoding = bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
  let text: string;
  try {
    text = new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    if (looksBinary(bytes)) throw new AppError('not_text', { name }, { field: 'file' });
    throw new AppError('wrong_encoding', { name, encoding: encoding.toUpperCase(), at: firstBadByte(bytes) }, { field: 'file' });
  }
  if (BINARY.test(text)) throw new AppError('not_text', { name }, { field: 'file' });
  return text;
}

export const looksBinary = (bytes: Uint8Array): boolean => BINARY.test(Buffer.from(bytes.subarray(0, 4096)).toString('latin1'));

/** Offset of the first byte that is not UTF-8: everything before the first replacement character was. */
function firstBadByte(bytes: Uint8Array): number {
  const text = new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes);
  return Buffer.byteLength(text.slice(0, text.indexOf('\uFFFD')), 'utf8');
}
