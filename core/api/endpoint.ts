import type { AnyObjectSchema, InferType, ObjectSchema, Schema } from 'yup';
import type { Permission } from './permission';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/**
 * Who may ask. `signed-in`: also a program that has a person's token; `browser`: only somebody who signed in with their
 * password, for what a token must not do; `administrator`: as `browser`, and an administrator.
 */
export type Asker = 'public' | 'signed-in' | 'browser' | 'administrator';

type Shape = Schema | null;
type Fields = AnyObjectSchema | null;

/** One endpoint of the interface: used by the server, by its clients, by the tests and by its description. */
export interface Endpoint<
  M extends Method = Method,
  Path extends string = string,
  Body extends Fields = Fields,
  Query extends Fields = Fields,
  Answer extends Shape = Shape,
> {
  readonly method: M;
  readonly path: Path;
  readonly who: Asker;
  /** What the asker has to be to the thing that `:id` names; null where that does not decide. */
  readonly may: Permission | null;
  /** Null where nothing is sent, or a file is. */
  readonly body: Body;
  readonly query: Query;
  /** Null where there is none (204), or a file is given. */
  readonly answer: Answer;
  /** Media types of a body that is not JSON. */
  readonly takes: readonly string[];
  /** Media types of an answer that is not JSON. */
  readonly gives: readonly string[];
  /** Bytes of the longest body; the server's own limit where nothing is said. */
  readonly limit: number | null;
}

interface Given<Body, Query, Answer> {
  readonly who?: Asker;
  readonly may?: Permission;
  readonly body?: Body;
  readonly query?: Query;
  readonly answer?: Answer;
  readonly takes?: readonly string[];
  readonly gives?: readonly string[];
  readonly limit?: number;
}

/** Whoever asks has to be signed in unless it is said otherwise. */
export function endpoint<
  const M extends Method,
  const Path extends string,
  Body extends Fields = null,
  Query extends Fields = null,
  Answer extends Shape = null,
>(
  method: M,
  path: Path,
  { who = 'signed-in', may, body, query, answer, takes = [], gives = [], limit }: Given<Body, Query, Answer> = {},
): Endpoint<M, Path, Body, Query, Answer> {
  return {
    method,
    path,
    who,
    may: may ?? null,
    body: (body ?? null) as Body,
    query: (query ?? null) as Query,
    answer: (answer ?? null) as Answer,
    takes,
    gives,
    limit: limit ?? null,
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
type ReadOnly<T> = T extends object ? { readonly [K in keyof T]: ReadOnly<T[K]> } : T;
type MayBeLeftOut<T, Defaults> = {
  [K in keyof T]: undefined extends T[K]
    ? K
    : K extends keyof Defaults
      ? undefined extends Defaults[K]
        ? never
        : K
      : never;
}[keyof T];
/** What has a default may be left out. */
type Sent<S> =
  S extends ObjectSchema<infer T, infer _Context, infer Defaults, infer _Flags>
    ? ReadOnly<Omit<T, MayBeLeftOut<T, Defaults>> & Partial<Pick<T, MayBeLeftOut<T, Defaults>>>>
    : undefined;

/** As the server reads it: with its defaults. */
export type BodyOf<E extends Endpoint> = Inferred<E['body'], undefined>;
/** As it is sent. */
export type SentBodyOf<E extends Endpoint> = Sent<E['body']>;
export type QueryOf<E extends Endpoint> = Inferred<E['query'], undefined>;
export type SentQueryOf<E extends Endpoint> = Sent<E['query']>;
export type AnswerOf<E extends Endpoint> = Inferred<E['answer'], void>;

/** Method and path, by which an endpoint is called. */
export type NameOf<E extends Endpoint> = `${E['method']} ${E['path']}`;
