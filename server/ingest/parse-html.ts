import { isUtf8, likelyEncoding } from './decode-text';
import { checkDepth, checkMarkup } from './markup-limits';
import sniffEncoding from 'html-encoding-sniffer';
import { parseTree, within, type PageTree } from './page-tree';
import { decode } from 'whatwg-encoding';

/** Parses by the HTML standard, running nothing and loading nothing. Throws `too_complex`. */
export function parseHtml(html: Uint8Array | string, address: string, contentType = 'text/html'): PageTree {
  const text = typeof html === 'string' ? html : decodeHtml(html, contentType);
  checkMarkup(text, address);
  const tree = parseTree(text);
  checkDepth(tree, address);
  return tree;
}

/** What the relative addresses of a page are relative to (HTML Standard, 4.2.3): its first `base`, else its own address. */
export function baseOf(tree: PageTree, address: string): string {
  const [base] = within(tree, ({ name, attribs }) => name === 'base' && attribs.href !== undefined);
  const href = base?.attribs.href ?? '';
  return base && URL.canParse(href, address) ? new URL(href, address).href : address;
}

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
