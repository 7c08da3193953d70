import type { Problem } from '@avrelle/core/wire';

/** What went wrong with a request, in words for the person who made it. */
export class ProblemError extends Error {
  override readonly name = 'ProblemError';
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

const OFFLINE: Problem = {
  type: 'urn:avrelle:error:offline',
  code: 'offline',
  status: 0,
  title: 'No connection',
  detail: 'The server cannot be reached. Check the connection and try again.',
};

export const isOffline = (error: unknown): boolean => error instanceof ProblemError && error.problem.code === 'offline';

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** Sends JSON or a file, gives JSON or text. Rejects with a ProblemError, also when there is no connection. */
export async function request<T>(method: Method, url: string, body?: unknown): Promise<T> {
  const response = await answered(method, url, body);
  // A page that a network shows before it lets anybody through is no answer of ours.
  if (isPage(response)) throw new ProblemError(OFFLINE);
  if (response.status === 204) return undefined as T;
  return (isJson(response) ? await response.json() : await response.text()) as T;
}

const isPage = (response: Response): boolean => (response.headers.get('content-type') ?? '').includes('text/html');
const isJson = (response: Response): boolean => (response.headers.get('content-type') ?? '').includes('json');

/** Rejects with a ProblemError where the server refuses, and where there is no connection. */
export async function answered(method: Method, url: string, body?: unknown): Promise<Response> {
  const isFile = body instanceof FormData || body instanceof Blob;
  const response = await fetch(url, {
    method,
    credentials: 'same-origin',
    ...(body === undefined ? {} : { body: isFile ? body : JSON.stringify(body) }),
    ...(body === undefined || isFile ? {} : { headers: { 'content-type': 'application/json' } }),
  }).catch(() => {
    throw new ProblemError(OFFLINE);
  });
  if (response.ok) return response;
  if (isJson(response)) throw new ProblemError((await response.json()) as Problem);
  throw new ProblemError({
    ...OFFLINE,
    code: 'broken',
    title: 'The server gave an unexpected answer',
    detail: `The server answered ${response.status}. Reload the page and try again.`,
  });
}

/** Hands a file that was asked for over to be saved. */
export async function saveResponse(response: Response, name: string): Promise<void> {
  const address = URL.createObjectURL(await response.blob());
  Object.assign(document.createElement('a'), { href: address, download: name }).click();
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}

/** The words to show for any error. */
export const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
