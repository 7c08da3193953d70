import { isUtf8, likelyEncoding } from './decode-text';
import { checkDepth, checkMarkup } from './markup-limits';
import sniffEncoding from 'html-encoding-sniffer';
import { JSDOM, VirtualConsole } from 'jsdom';
import { decode } from 'whatwg-encoding';

/** Parses by the HTML standard, running nothing and loading nothing. Throws `too_complex`. */
export function parseHtml(html: Uint8Array | string, address: string, contentType = 'text/html'): Document {
  const text = typeof html === 'string' ? html : decodeHtml(html, contentType);
  checkMarkup(text, address);
  const { document } = new JSDOM(text, { url: address, contentType: 'text/html', virtualConsole: new VirtualConsole() })
    .window;
  checkDepth(document.documentElement, address);
  return document;
}

/** What stands before the root, so that a page is laid out by the rules it was written for. */
export const doctypeOf = (document: Document): string =>
  document.compatMode === 'BackCompat' ? '' : '<!doctype html>';

/** By byte order mark, header or meta; without any of them as UTF-8 where it is that, else as what it is most like (HTML Standard, 13.2.3.2). */
export const decodeHtml = (bytes: Uint8Array, contentType: string): string =>
  decode(bytes, htmlEncoding(bytes, contentType));
// Not TextDecoder above: Node 20 reads windows-1252 as latin1.

/** By its name in the Encoding Standard. */
export function htmlEncoding(bytes: Uint8Array, contentType: string): string {
  const label = /charset=["']?([^"';\s]+)/i.exec(contentType)?.[1];
  return sniffEncoding(bytes, {
    ...(label ? { transportLayerEncodingLabel: label } : {}),
    defaultEncoding: isUtf8(bytes) ? 'UTF-8' : (likelyEncoding(bytes) ?? 'windows-1252'),
  });
}

/** Parses XML; undefined where it is not well-formed. */
export function parseXml(
  xml: Uint8Array | string,
  contentType: 'application/xml' | 'application/xhtml+xml' = 'application/xml',
  address = 'https://file.invalid/',
): Document | undefined {
  try {
    return new JSDOM(typeof xml === 'string' ? xml : Buffer.from(xml), {
      url: address,
      contentType,
      virtualConsole: new VirtualConsole(),
    }).window.document;
  } catch {
    return undefined;
  }
}
