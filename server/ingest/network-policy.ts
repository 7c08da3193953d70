import ipaddr from 'ipaddr.js';
import { AppError } from '../errors';

export interface NetworkPolicy {
  /** Hosts whose name is or ends with `.suffix` are reached at a fixed place instead of where DNS leads. */
  readonly names: readonly { readonly suffix: string; readonly host: string; readonly port: number }[];
  /** `host` or `host:port` as written in an address: these may lie in a private network. */
  readonly privateHosts: readonly string[];
}

const GLOBAL = ipaddr.parseCIDR('2000::/3');

/** True for addresses of the public internet only; everything reserved, local or embedded in another form is not. */
export function isPublicAddress(ip: string): boolean {
  if (!ipaddr.isValid(ip)) return false;
  const address = ipaddr.process(ip);
  // Of IPv6 only what is given out for the internet (RFC 4291, 2.4): others may hold an IPv4 address in themselves.
  return address.range() === 'unicast' && (address.kind() === 'ipv4' || address.match(GLOBAL as never));
}

/** Parses an address a person pasted. A missing scheme is refused with the whole rule in the message. */
export function parseAddress(text: string): URL {
  const address = text.trim();
  if (!URL.canParse(address)) throw new AppError('bad_address', { address: clip(address) }, { field: 'address' });
  const url = new URL(address);
  if (url.protocol !== 'http:' && url.protocol !== 'https:')
    throw new AppError('bad_address', { address: clip(address) }, { field: 'address' });
  url.username = '';
  url.password = '';
  return url;
}

const clip = (text: string): string => (text.length > 200 ? `${text.slice(0, 200)}…` : text);

export function mappedPlace(policy: NetworkPolicy, hostname: string): { host: string; port: number } | undefined {
  return policy.names.find(({ suffix }) => hostname === suffix || hostname.endsWith(`.${suffix}`));
}

/** Throws unless `ip`, to which `hostname` leads, may be connected to. */
export function checkAddress(policy: NetworkPolicy, hostname: string, port: string, ip: string): void {
  const exempt = policy.privateHosts.includes(hostname) || policy.privateHosts.includes(`${hostname}:${port}`);
  if (!exempt && !isPublicAddress(ip)) throw new AppError('private_address', { host: hostname });
}
