import type { AnyObjectSchema, InferType, Schema } from 'yup';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/**
 * Who may ask. `signed-in`: also a program that has a person's token; `browser`: only somebody who signed in with their
 * password, for what a token must not do; `administrator`: as `browser`, and an administrator. What depends on the thing
 * asked for (its owner, a class's teachers) is checked where it is known.
 */
export type Asker = 'public' | 'signed-in' | 'browser' | 'administrator';

/** One endpoint of the interface: used by the server, by its clients and by the tests. `answer` is null where there is none (204). */
export interface Endpoint<
  Path extends string = string,
  Body extends AnyObjectSchema | null = AnyObjectSchema | null,
  Query extends AnyObjectSchema | null = AnyObjectSchema | null,
  Answer extends Schema | null = Schema | null,
> {
  readonly method: Method;
  readonly path: Path;
  readonly who: Asker;
  readonly body: Body;
  readonly query: Query;
  readonly answer: Answer;
}

interface Given<Body, Query, Answer> {
  readonly who: Asker;
  readonly body?: Body;
  readonly query?: Query;
  readonly answer?: Answer;
}

export function endpoint<
  const Path extends string,
  Body extends AnyObjectSchema | null = null,
  Query extends AnyObjectSchema | null = null,
  Answer extends Schema | null = null,
>(
  method: Method,
  path: Path,
  { who, body, query, answer }: Given<Body, Query, Answer>,
): Endpoint<Path, Body, Query, Answer> {
  return {
    method,
    path,
    who,
    body: (body ?? null) as Body,
    query: (query ?? null) as Query,
    answer: (answer ?? null) as Answer,
  };
}

type NamesIn<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | NamesIn<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

/** The ids that stand in the path. */
export type ParamsOf<E extends Endpoint> = Readonly<Record<NamesIn<E['path']>, string>>;
type Inferred<S, Otherwise> = S extends Schema ? InferType<S> : Otherwise;
export type BodyOf<E extends Endpoint> = Inferred<E['body'], undefined>;
export type QueryOf<E extends Endpoint> = Inferred<E['query'], undefined>;
export type AnswerOf<E extends Endpoint> = Inferred<E['answer'], void>;

/** The path with its ids in it. */
export const pathOf = <E extends Endpoint>({ path }: E, params: ParamsOf<E>): string =>
  path.replace(/:(\w+)/g, (_whole, name: string) =>
    encodeURIComponent((params as Readonly<Record<string, string>>)[name]!),
  );

/** Whether a request is one of an endpoint's: method and path without its query. */
export function isFor({ method, path }: Endpoint, asked: Method, url: string): boolean {
  const pattern = new RegExp(`^${path.replace(/:\w+/g, '[^/]+')}$`);
  return method === asked && pattern.test(url.split('?')[0]!);
}
