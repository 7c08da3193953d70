import { pathOf, type AnswerOf, type BodyOf, type Endpoint, type ParamsOf, type QueryOf } from '@avrelle/core/api';
import { request } from './api';

type Part<Name extends string, Value> = [keyof Value] extends [never]
  ? unknown
  : Value extends undefined
    ? unknown
    : { readonly [K in Name]: Value };

/** What an endpoint has to be given: ids, query and body, where it has any. */
export type Given<E extends Endpoint> = Part<'params', ParamsOf<E>> &
  Part<'query', Partial<QueryOf<E>>> &
  Part<'body', BodyOf<E>>;

interface Anything {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
}

/** Asks an endpoint. Rejects with a ProblemError. */
export function call<E extends Endpoint>(endpoint: E, given: Given<E>): Promise<AnswerOf<E>> {
  const { params = {}, query, body } = given as Anything;
  const search = new URLSearchParams(
    Object.entries(query ?? {}).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
  ).toString();
  const path = pathOf(endpoint, params as ParamsOf<E>);
  return request<AnswerOf<E>>(endpoint.method, search ? `${path}?${search}` : path, body);
}
