import { JSDOM, VirtualConsole } from 'jsdom';

/** Parses by the HTML standard, running nothing and loading nothing. Bytes are decoded by header, meta or sniffing. */
export function parseHtml(html: Uint8Array | string, address: string, contentType = 'text/html'): Document {
  const type = /^(text\/html|application\/xhtml\+xml)/i.test(contentType) ? contentType.replace(/^application\/xhtml\+xml/i, 'text/html') : 'text/html';
  const data = typeof html === 'string' ? html : Buffer.from(html.buffer, html.byteOffset, html.byteLength);
  return new JSDOM(data, { url: address, contentType: type, virtualConsole: new VirtualConsole() }).window.document;
}
