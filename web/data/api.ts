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

/** Sends JSON, gives JSON. Rejects with a ProblemError, also when there is no connection. */
export async function request<T>(method: Method, url: string, body?: unknown): Promise<T> {
  const isForm = body instanceof FormData || body instanceof Blob;
  const response = await answered(url, {
    method,
    ...(body === undefined ? {} : { body: isForm ? body : JSON.stringify(body) }),
    ...(body === undefined || isForm ? {} : { headers: { 'content-type': 'application/json' } }),
  });
  // A page that a network shows before it lets anybody through is no answer of ours.
  if (isPage(response)) throw new ProblemError(OFFLINE);
  if (response.status === 204) return undefined as T;
  return (isJson(response) ? await response.json() : await response.text()) as T;
}

const isPage = (response: Response): boolean => (response.headers.get('content-type') ?? '').includes('text/html');
const isJson = (response: Response): boolean => (response.headers.get('content-type') ?? '').includes('json');

async function answered(url: string, asked: RequestInit): Promise<Response> {
  const response = await fetch(url, { ...asked, credentials: 'same-origin' }).catch(() => {
    throw new ProblemError(OFFLINE);
  });
  if (!response.ok)
    throw new ProblemError(
      isJson(response)
        ? ((await response.json()) as Problem)
        : {
            ...OFFLINE,
            code: 'broken',
            title: 'The server answered oddly',
            detail: `The server answered ${response.status}. Reload the page and try again.`,
          },
    );
  return response;
}

/** Sends one file as it is, under its own type. */
export const sendFile = <T>(url: string, file: Blob, method: 'POST' | 'PUT' = 'POST'): Promise<T> =>
  request<T>(method, url, file);

/** Asks for a file and hands it over to be saved. */
export async function saveFile(url: string, body: unknown, name: string): Promise<void> {
  const response = await answered(url, {
    method: 'POST',
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json' },
  });
  const address = URL.createObjectURL(await response.blob());
  Object.assign(document.createElement('a'), { href: address, download: name }).click();
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}

/** The words to show for any error. */
export const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
