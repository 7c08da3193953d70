import type { FastifyReply } from 'fastify';

/** RFC 6266: an ASCII name for old programs, the real one beside it. */
export const attachment = (name: string): string =>
  `attachment; filename="${name.replace(/[^\x20-\x7e]|"/g, '_')}"; filename*=UTF-8''${encodeURIComponent(name)}`;

/** Text in UTF-8, as a file to be downloaded. */
export const sendFile = (
  reply: FastifyReply,
  { type, name }: { readonly type: string; readonly name: string },
  body: string,
): FastifyReply => reply.type(`${type}; charset=utf-8`).header('content-disposition', attachment(name)).send(body);
