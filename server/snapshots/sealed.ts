import type { FastifyReply, FastifyRequest } from 'fastify';
import { UAParser } from 'ua-parser-js';

const SEALED = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'cross-origin-resource-policy': 'same-origin',
  'x-frame-options': 'SAMEORIGIN',
  'cache-control': 'private, max-age=31536000, immutable',
} as const;

/**
 * A captured page under a policy of its own: no script, no form, no request but for its own pictures and fonts. `sandbox`
 * holds when the address is opened by itself, too.
 */
export function sealed(request: FastifyRequest, reply: FastifyReply, html: Uint8Array): FastifyReply {
  return reply
    .type('text/html; charset=utf-8')
    .headers({ ...SEALED, vary: 'user-agent', 'content-security-policy': policy(request) })
    .send(html);
}

export function sealedAsset(
  reply: FastifyReply,
  { bytes, mediaType }: { readonly bytes: Uint8Array; readonly mediaType: string },
): FastifyReply {
  return reply
    .type(mediaType)
    .headers({ ...SEALED, 'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox" })
    .send(bytes);
}

function policy(request: FastifyRequest): string {
  const own = `${request.protocol}://${request.host}${request.url.split('/').slice(0, 2).join('/')}/`;
  return [
    "default-src 'none'",
    `img-src ${own} data:`,
    `font-src ${own} data:`,
    "style-src 'unsafe-inline'",
    "form-action 'none'",
    "base-uri 'none'",
    "frame-ancestors 'self'",
    "script-src 'none'",
    `sandbox allow-same-origin${callsListeners(request) ? '' : ' allow-scripts'}`,
  ].join('; ');
}

/**
 * WebKit calls no listener in a frame without scripting, not even those of the page around it: nothing could be marked
 * there. In that engine alone `script-src 'none'` keeps the page's own scripts away, and the frame's attribute decides.
 */
const callsListeners = ({ headers }: FastifyRequest): boolean =>
  new UAParser(headers['user-agent'] ?? '').getEngine().name !== 'WebKit';
