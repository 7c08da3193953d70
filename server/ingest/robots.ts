import robotsParser from 'robots-parser';
import { AppError } from '../errors';
import type { Loader } from './loader';

const LIMITS = { bytes: 512 * 1024, milliseconds: 6_000, redirects: 5 };
const KNOWN_FOR = 10 * 60_000;
/** Our name, as a site may address it (RFC 9309, 2.2.1). */
const ROBOT = 'Avrelle';

const known = new Map<string, { readonly text: Promise<string>; readonly at: number }>();

/** Rejects with `robots_refuse` where a site asks programs to stay out of an address. A site without such a file asks nothing (RFC 9309, 2.3.1.3). */
export async function checkRobots(address: string, web: Loader): Promise<void> {
  const url = new URL(address);
  const place = new URL('/robots.txt', url).href;
  const now = Date.now();
  let entry = known.get(place);
  if (!entry || now - entry.at > KNOWN_FOR) {
    entry = {
      at: now,
      text: web.fetch(place, LIMITS, 'text/plain').then(
        ({ bytes }) => Buffer.from(bytes).toString('utf8'),
        () => '',
      ),
    };
    for (const [other, { at }] of known) if (now - at > KNOWN_FOR) known.delete(other);
    known.set(place, entry);
  }
  if (robotsParser(place, await entry.text).isDisallowed(address, ROBOT))
    throw new AppError('robots_refuse', { host: url.host, address });
}
