import type { FastifyReply, FastifyRequest } from 'fastify';
import { AppError, toProblem } from './errors';

/** Every error leaves as RFC 9457 problem details; what nobody foresaw is logged under a name and told as `broken`. */
export function sendProblem(error: unknown, _request: FastifyRequest, reply: FastifyReply): FastifyReply {
  const problem = toProblem(known(error));
  return reply.code(problem.status).type('application/problem+json; charset=utf-8').send(JSON.stringify(problem));
}

function known(error: unknown): AppError {
  if (error instanceof AppError) return error;
  const { statusCode, message, code } = error as { statusCode?: number; message?: string; code?: string };
  if (code?.startsWith('SQLITE_BUSY') || code?.startsWith('SQLITE_LOCKED')) return new AppError('busy');
  if (statusCode === 413) return new AppError('file_too_large', { limit: 4 });
  if (statusCode !== undefined && statusCode >= 400 && statusCode < 500)
    return new AppError('invalid', { message: `${message ?? 'The request'}. Reload the page and try again.` });
  const reference = Math.random().toString(36).slice(2, 8);
  console.error(`error ${reference}:`, error);
  return new AppError('broken', { reference });
}
