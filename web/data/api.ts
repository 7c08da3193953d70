import type { Problem } from '@avrelle/core/wire';

/** What went wrong with a request, in words for the person who made it. */
export class ProblemError extends Error {
  override readonly name = 'ProblemError';
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

const OFFLINE: Problem = { type: 'urn:avrelle:error:offline', code: 'offline', status: 0, title: 'No connection', detail: 'The server cannot be reached. What you wrote is kept on this page and sent as soon as it answers.' };

export const isOffline = (error: unknown): boolean => error instanceof ProblemError && error.problem.code === 'offline';

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** Sends JSON, gives JSON. Rejects with a ProblemError, also when there is no connection. */
export async function request<T>(method: Method, url: string, body?: unknown): Promise<T> {
  const isForm = body instanceof FormData || body instanceof Blob;
  const response = await fetch(url, {
    method, credentials: 'same-origin',
    ...(body === undefined ? {} : { body: isForm ? body : JSON.stringify(body) }),
    ...(body === undefined || isForm ? {} : { headers: { 'content-type': 'application/json' } }),
  }).catch(() => { throw new ProblemError(OFFLINE); });
  if (response.status === 204) return undefined as T;
  const isJson = (response.headers.get('content-type') ?? '').includes('json');
  if (!response.ok) throw new ProblemError(isJson ? ((await response.json()) as Problem) : { ...OFFLINE, code: 'broken', title: 'The server answered oddly', detail: `The server answered ${response.status}. Reload the page and try again.` });
  return (isJson ? await response.json() : await response.text()) as T;
}

/** Sends one file as it is, under its own type. */
export const sendFile = <T>(url: string, file: Blob, method: 'POST' | 'PUT' = 'POST'): Promise<T> => request<T>(method, url, file);

/** The words to show for any error. */
export const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
