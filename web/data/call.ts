import type { AnswerOf, Api, Endpoint, ParamsOf, SentBodyOf, SentQueryOf } from '@avrelle/core/api';
import { answered, request, saveResponse } from './api';

type Part<Name extends string, Value> = [keyof Value] extends [never]
  ? unknown
  : Value extends undefined
    ? unknown
    : Partial<Value> extends Value
      ? { readonly [K in Name]?: Value }
      : { readonly [K in Name]: Value };

/** What an endpoint has to be given: ids, query and body, where it has any; a file or form where it takes one. */
type Given<E extends Endpoint> = Part<'params', ParamsOf<E>> &
  Part<'query', SentQueryOf<E>> &
  Part<'body', SentBodyOf<E>> & { readonly file?: Blob | FormData };
/** Nothing at all where there is nothing to give. */
export type Arguments<E extends Endpoint> = Partial<Given<E>> extends Given<E> ? [given?: Given<E>] : [given: Given<E>];

interface Anything {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
  readonly file?: Blob | FormData;
}

/**
 * Asks an endpoint by its method and path, which are checked with all that is given and answered; nothing of the
 * contract but types comes into the browser. Rejects with a ProblemError.
 */
export function call<N extends keyof Api>(name: N, ...[given]: Arguments<Api[N]>): Promise<AnswerOf<Api[N]>> {
  const { method, url, body } = asked(name, given);
  return request<AnswerOf<Api[N]>>(method, url, body);
}

/** The address of an endpoint that is asked with GET, for a link. */
export const hrefOf = <N extends keyof Api & `GET ${string}`>(name: N, ...[given]: Arguments<Api[N]>): string =>
  asked(name, given).url;

/** Asks for a text. */
export const callForText = <N extends keyof Api>(name: N, ...[given]: Arguments<Api[N]>): Promise<string> => {
  const { method, url, body } = asked(name, given);
  return request<string>(method, url, body);
};

/** Asks for a file and hands it over to be saved under a name. */
export async function save<N extends keyof Api>(
  fileName: string,
  name: N,
  ...[given]: Arguments<Api[N]>
): Promise<void> {
  const { method, url, body } = asked(name, given);
  await saveResponse(await answered(method, url, body), fileName);
}

function asked(name: string, given: Anything = {}) {
  const { params = {}, query = {}, body, file } = given;
  const [method, path] = name.split(' ') as [Endpoint['method'], string];
  const search = new URLSearchParams(
    Object.entries(query).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]])),
  ).toString();
  const filled = path.replace(/:(\w+)/g, (_whole, key: string) => encodeURIComponent(params[key]!));
  return { method, url: search ? `${filled}?${search}` : filled, body: file ?? body };
}
