import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { AnswerOf, BodyOf, Endpoint, ParamsOf, QueryOf } from '@avrelle/core/api';
import type { Me } from '@avrelle/core/wire';
import { personOf } from './accounts/session';
import { AppError } from './errors';
import { parse, parseQuery } from './parse';
import { readId } from './read-id';

/** What a handler is given: checked already, as the endpoint says. */
export interface Asked<E extends Endpoint> {
  readonly me: Me;
  readonly params: ParamsOf<E>;
  readonly body: BodyOf<E>;
  readonly query: QueryOf<E>;
  readonly request: FastifyRequest;
  readonly reply: FastifyReply;
}

/** Answers an endpoint. Who may ask, the ids in the path, query and body are checked before; without an answer it is 204. */
export function serve<E extends Endpoint>(
  app: FastifyInstance,
  endpoint: E,
  handle: (asked: Asked<E>) => AnswerOf<E> | Promise<AnswerOf<E>>,
): void {
  const { method, path, who } = endpoint;
  app.route({
    method,
    url: path,
    config: { open: who === 'public', browserOnly: who === 'browser' || who === 'administrator' },
    handler: async (request, reply): Promise<unknown> => {
      const me = personOf(request);
      if (who === 'administrator' && me.role !== 'administrator') throw new AppError('administrators_only');
      const names = [...path.matchAll(/:(\w+)/g)].map(([, name]) => name!);
      const answer = await handle({
        me,
        params: Object.fromEntries(names.map((name) => [name, readId(request, name)])) as ParamsOf<E>,
        body: (endpoint.body ? parse(endpoint.body, request.body) : undefined) as BodyOf<E>,
        query: (endpoint.query ? parseQuery(endpoint.query, request.query) : undefined) as QueryOf<E>,
        request,
        reply,
      });
      return endpoint.answer ? answer : reply.code(204).send();
    },
  });
}
