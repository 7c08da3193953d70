import type { WebSocket } from '@fastify/websocket';
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
  /** Answers, or, as a WebSocket, goes on by `hold`: with whom, and from where, is checked before it opens. */
  socket<N extends keyof Api>(
    name: N,
    handle: Handler<Api[N], AnswerOf<Api[N]>>,
    hold: (asked: Asked<Api[N]>, socket: WebSocket) => void,
  ): void;
}

export function serving(app: FastifyInstance, context: Context): Serve {
  const route = (endpoint: Endpoint, handle: (asked: Asked<Endpoint>) => unknown, more: object = {}): void => {
    const { method, path, who, limit } = endpoint;
    const names = namesIn(endpoint);
    app.route({
      method,
      url: path,
      ...(limit === null ? {} : { bodyLimit: limit }),
      config: { open: who === 'public', browserOnly: who === 'browser' || who === 'administrator' },
      handler: async (request, reply) => handle(read({ context, endpoint, names }, request, reply)),
      ...more,
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
  const socket: Serve['socket'] = (name, handle, hold) => {
    const endpoint = endpointNamed(name) as Endpoint;
    const opening = new WeakMap<FastifyRequest, Asked<Endpoint>>();
    route(endpoint, (asked) => handle(asked as never), {
      preValidation: async (request: FastifyRequest, reply: FastifyReply): Promise<void> => {
        if (!request.ws) return;
        // A browser says where from; a page of somebody else's gets no socket under one's cookie (RFC 6455, 10.2).
        checkOrigin(request.headers.origin ?? 'none', request.host);
        opening.set(request, read({ context, endpoint, names: namesIn(endpoint) }, request, reply));
      },
      wsHandler: (open: WebSocket, request: FastifyRequest) => hold(opening.get(request) as never, open),
    });
  };
  return Object.assign(serve, { file, socket });
}

const namesIn = ({ path }: Endpoint): readonly string[] => [...path.matchAll(/:(\w+)/g)].map(([, name]) => name!);

/** A browser names the page a change comes from; programs that are none do not, and carry no cookie of a person. */
export function checkOrigin(origin: string | undefined, host: string): void {
  if (origin === undefined) return;
  if (!URL.canParse(origin) || new URL(origin).host !== host) throw new AppError('foreign_origin', { origin });
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
