import { savedFrom } from './saved-pages';
import { readThread } from './thread';
import { hashOf } from '../../db/blobs';
import type { Got } from '../got';
import type { RawPage, Reader } from '../made';
import { htmlEncoding, parseHtml } from '../parse-html';
import { NOWHERE } from '../loader';

/** A web page; where it is a thread of short posts, those alone and in their order. */
export const readHtml: Reader = (got, { web }) => {
  const address = got.address ?? NOWHERE;
  const sent = /html|xml/i.test(got.contentType) ? got.contentType : 'text/html';
  const contentType = got.encoding ? `text/html; charset=${got.encoding}` : sent;
  const encoding = htmlEncoding(got.bytes, contentType);
  // Only a page that has such entries is parsed for them.
  const thread = Buffer.from(got.bytes).includes('h-entry')
    ? readThread(parseHtml(got.bytes, address, contentType), address)
    : undefined;
  const loader = got.address === null ? undefined : web;
  const from = got.address === null ? savedFrom(got.bytes) : {};
  return thread
    ? { form: 'raw', kind: 'thread', ...thread, loader }
    : { form: 'raw', kind: 'page', html: got.bytes, contentType, loader, ...from, ...keptAs(got, encoding) };
};

/** In Unicode there is nothing to be mistaken in; else a file's bytes stay, so that it can be read again in another encoding. */
function keptAs(
  { address, bytes, encoding: said }: Got,
  encoding: string,
): Pick<RawPage, 'file' | 'facts' | 'identity'> {
  if (encoding === 'UTF-8' && !said) return {};
  const kept = address === null ? { file: { bytes, mediaType: 'text/html' }, identity: `sha256:${hashOf(bytes)}` } : {};
  return { facts: { encoding }, ...kept };
}
