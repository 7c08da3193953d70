import { savedFrom } from './saved-pages';
import { readThread } from './thread';
import type { Reader } from '../made';
import { parseHtml } from '../parse-html';
import { NOWHERE } from '../loader';

/** A web page; where it is a thread of short posts, those alone and in their order. */
export const readHtml: Reader = (got, { web }) => {
  const address = got.address ?? NOWHERE;
  const contentType = /html|xml/i.test(got.contentType) ? got.contentType : 'text/html';
  // Only a page that has such entries is parsed for them.
  const thread = Buffer.from(got.bytes).includes('h-entry') ? readThread(parseHtml(got.bytes, address, contentType), address) : undefined;
  const loader = got.address === null ? undefined : web, from = got.address === null ? savedFrom(got.bytes) : {};
  return thread ? { form: 'raw', kind: 'thread', ...thread, loader } : { form: 'raw', kind: 'page', html: got.bytes, contentType, loader, ...from };
};
