import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import {
  endpointNamed,
  type AnswerOf,
  type Api,
  type BodyOf,
  type Endpoint,
  type ParamsOf,
  type QueryOf,
} from '@avrelle/core/api';
import type { Me } from '@avrelle/core/wire';
import { mustBe } from './access/access';
import { personOf } from './accounts/session';
import type { Context } from './context';
import { AppError } from './errors';
import { parse, parseQuery } from './parse';
import { readHash, readId } from './read-id';

/** What a handler is given: checked already, as the endpoint says. */
export interface Asked<E extends Endpoint> {
  readonly me: Me;
  readonly params: ParamsOf<E>;
  readonly body: BodyOf<E>;
  readonly query: QueryOf<E>;
  readonly request: FastifyRequest;
  readonly reply: FastifyReply;
}

type Handler<E extends Endpoint, Answer> = (asked: Asked<E>) => Answer | Promise<Answer>;

/** What answers endpoints by method and path. Who may ask, ids, query and body are checked before. */
export interface Serve {
  /** Without an answer it is 204. */
  <N extends keyof Api>(name: N, handle: Handler<Api[N], AnswerOf<Api[N]>>): void;
  /** An answer that is not JSON, as Fastify sends it. */
  file<N extends keyof Api>(name: N, handle: Handler<Api[N], unknown>): void;
}

export function serving(app: FastifyInstance, context: Context): Serve {
  const route = (endpoint: Endpoint, handle: (asked: Asked<Endpoint>) => unknown): void => {
    const { method, path, who, limit } = endpoint;
    const names = [...path.matchAll(/:(\w+)/g)].map(([, name]) => name!);
    app.route({
      method,
      url: path,
      ...(limit === null ? {} : { bodyLimit: limit }),
      config: { open: who === 'public', browserOnly: who === 'browser' || who === 'administrator' },
      handler: async (request, reply) => handle(read({ context, endpoint, names }, request, reply)),
    });
  };
  const serve = <N extends keyof Api>(name: N, handle: Handler<Api[N], AnswerOf<Api[N]>>): void => {
    const endpoint = endpointNamed(name) as Endpoint;
    route(endpoint, async (asked) => {
      const answer = await handle(asked as unknown as Asked<Api[N]>);
      return endpoint.answer ? answer : asked.reply.code(204).send();
    });
  };
  const file = <N extends keyof Api>(name: N, handle: Handler<Api[N], unknown>): void =>
    route(endpointNamed(name), (asked) => handle(asked as unknown as Asked<Api[N]>));
  return Object.assign(serve, { file });
}

interface Route {
  readonly context: Context;
  readonly endpoint: Endpoint;
  /** Of what stands in its path. */
  readonly names: readonly string[];
}

function read({ context, endpoint, names }: Route, request: FastifyRequest, reply: FastifyReply): Asked<Endpoint> {
  const { who, may, body, query } = endpoint;
  const me = who === 'public' ? (request.person ?? NOBODY) : personOf(request);
  if (who === 'administrator' && me.role !== 'administrator') throw new AppError('administrators_only');
  const params: Record<string, string> = {};
  for (const name of names) params[name] = name === 'hash' ? readHash(request) : readId(request, name);
  if (may) mustBe(context.db, me.id, may, params.id!);
  return {
    me,
    params,
    body: body ? parse(body, request.body) : undefined,
    query: query ? parseQuery(query, request.query) : undefined,
    request,
    reply,
  };
}

const NOBODY: Me = { id: '', name: '', email: '', role: 'member' };
