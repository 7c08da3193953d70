import dns from 'node:dns';
import net from 'node:net';
import { Agent, buildConnector, fetch, type Dispatcher, type Response } from 'undici';
import { AppError } from '../errors';
import type { Fetched, FetchLimits, Loader } from './loader';
import { checkAddress, mappedPlace, parseAddress, type NetworkPolicy } from './network-policy';

export const PAGE_LIMITS: FetchLimits = {
  bytes: 20 * 1024 * 1024,
  milliseconds: 20_000,
  redirects: 8,
  file: { bytes: 100 * 1024 * 1024, milliseconds: 80_000 },
};
export const ASSET_LIMITS: FetchLimits = { bytes: 10 * 1024 * 1024, milliseconds: 15_000, redirects: 5 };

const AGENT_NAME = 'Avrelle/0.1 (keeps pages for one reader at a time)';

/** Fetches over http and https for a person. Every connection's address is checked when it is made, after DNS, so that
 *  neither a redirect nor a name that changes its mind leads into a private network. */
export class SafeFetcher implements Loader {
  private readonly agent: Dispatcher;

  constructor(private readonly policy: NetworkPolicy) {
    this.agent = new Agent({
      connect: guardedConnector(policy),
      connections: 6,
      headersTimeout: 15_000,
      bodyTimeout: 15_000,
    });
  }

  /** Rejects with an AppError that says what to do; anything else is a bug. */
  async fetch(
    address: string,
    limits: FetchLimits,
    accept = 'text/html,application/xhtml+xml,text/plain;q=0.8,*/*;q=0.5',
  ): Promise<Fetched> {
    const first = parseAddress(address);
    const stop = new AbortController();
    let held = limits;
    let timer = setTimeout(() => stop.abort(), limits.milliseconds);
    try {
      const { response, url } = await this.follow(first, limits, accept, stop.signal);
      checkStatus(response, url.href);
      const contentType = response.headers.get('content-type') ?? '';
      if (limits.file && contentType && !/^(text\/|application\/xhtml)/i.test(contentType)) {
        held = { ...limits, ...limits.file };
        clearTimeout(timer);
        timer = setTimeout(() => stop.abort(), held.milliseconds);
      }
      return { address: url.href, contentType, bytes: await readBody(response, url.href, held) };
    } catch (cause) {
      throw explain(cause, first, held, stop.signal);
    } finally {
      clearTimeout(timer);
    }
  }

  close(): Promise<void> {
    return this.agent.destroy();
  }

  private async follow(
    first: URL,
    limits: FetchLimits,
    accept: string,
    signal: AbortSignal,
  ): Promise<{ response: Response; url: URL }> {
    let url = first;
    for (let hop = 0; hop <= limits.redirects; hop++) {
      const response = await fetch(url, {
        dispatcher: this.agent,
        redirect: 'manual',
        signal,
        headers: { accept, 'user-agent': AGENT_NAME },
      });
      const location = response.headers.get('location');
      if (response.status < 300 || response.status > 399 || !location) return { response, url };
      await response.body?.cancel();
      url = parseAddress(new URL(location, url).href);
    }
    throw new AppError('redirect_loop', { address: first.href, limit: limits.redirects });
  }
}

function guardedConnector(policy: NetworkPolicy): buildConnector.connector {
  const make = (hostname: string, port: string): buildConnector.connector =>
    buildConnector({
      timeout: 8_000,
      lookup: (name, options, done) => {
        dns.lookup(name, { ...options, all: true }, (error, found) => {
          if (error) return done(error, '', 4);
          try {
            for (const { address } of found) checkAddress(policy, hostname, port, address);
          } catch (refused) {
            return done(refused as Error, '', 4);
          }
          if (options.all) return done(null, found as never, 4);
          done(null, found[0]!.address, found[0]!.family);
        });
      },
    });
  return (options, done) => {
    const port = options.port || (options.protocol === 'https:' ? '443' : '80');
    const mapped = mappedPlace(policy, options.hostname);
    if (mapped)
      return buildConnector({ timeout: 8_000 })({ ...options, hostname: mapped.host, port: String(mapped.port) }, done);
    const bare = options.hostname.replace(/^\[|\]$/g, '');
    try {
      if (net.isIP(bare)) checkAddress(policy, bare, port, bare);
    } catch (refused) {
      return done(refused as Error, null);
    }
    make(options.hostname, port)(options, done);
  };
}

function checkStatus(response: Response, address: string): void {
  const { status } = response;
  if (status < 400) return;
  void response.body?.cancel();
  if (status === 404 || status === 410) throw new AppError('page_missing', { address, status });
  throw new AppError(
    status === 401 || status === 403 || status === 451 || status === 429 ? 'refused_by_site' : 'site_failed',
    { address, status },
  );
}

async function readBody(response: Response, address: string, limits: FetchLimits): Promise<Uint8Array> {
  const tooLarge = (): never => {
    throw new AppError('too_large', { address, limit: Math.round(limits.bytes / 1024 / 1024) });
  };
  if (Number(response.headers.get('content-length') ?? 0) > limits.bytes) {
    await response.body?.cancel();
    tooLarge();
  }
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of response.body ?? []) {
    size += part.byteLength;
    if (size > limits.bytes) tooLarge();
    parts.push(part);
  }
  return Buffer.concat(parts);
}

/** Turns whatever the network threw into one of our errors. */
function explain(cause: unknown, url: URL, limits: FetchLimits, signal: AbortSignal): AppError {
  for (
    let error = cause as NodeJS.ErrnoException | undefined;
    error;
    error = error.cause as NodeJS.ErrnoException | undefined
  ) {
    if (error instanceof AppError) return error;
    const code = error.code ?? '';
    if (code === 'ENOTFOUND' || code === 'EAI_AGAIN')
      return new AppError('unknown_host', { host: url.hostname }, { field: 'address' });
    if (signal.aborted || /TIMEOUT/.test(code))
      return new AppError('too_slow', { address: url.href, seconds: Math.round(limits.milliseconds / 1000) });
    if (code) return new AppError('unreachable', { host: url.host, reason: code });
  }
  return new AppError('unreachable', { host: url.host, reason: String((cause as Error)?.message ?? cause) });
}
