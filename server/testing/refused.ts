import { expect } from '@jest/globals';
import type { FastifyInstance } from 'fastify';
import type { Problem } from '@avrelle/core/wire';
import { AppError } from '../errors';

/** The code of the error that ends some work, or “nothing”. */
export const refused = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'nothing',
    (e: unknown) => (e instanceof AppError ? e.code : String(e)),
  );

/** The code of an answer that refuses, which is checked against RFC 9457, 3: type, title, status and detail. */
export const answered = async (
  answer: Promise<{ status: number; body: unknown; headers: Readonly<Record<string, unknown>> }>,
): Promise<string> => {
  const { status, body, headers } = await answer;
  const problem = body as Problem;
  expect(headers['content-type']).toContain('application/problem+json');
  expect(problem).toMatchObject({
    status,
    type: expect.stringMatching(/^urn:/),
    title: expect.any(String),
    detail: expect.not.stringContaining('{'),
  });
  return problem.code;
};

/** The same, of what only bare HTTP asks. */
export const injected = (app: FastifyInstance, options: object): Promise<string> =>
  answered(app.inject(options).then((a) => ({ status: a.statusCode, body: a.json(), headers: a.headers })));
