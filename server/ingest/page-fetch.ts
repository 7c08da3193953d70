import pLimit from 'p-limit';
import { AppError } from '../errors';
import { AT_ONCE, MOST_BYTES } from './assets';
import type { Loader, FetchLimits, Fetched } from './loader';
import type { NetworkPolicy } from './network-policy';
import { ASSET_LIMITS, SafeFetcher } from './safe-fetch';

/** Something a page shows with, and as what it is asked for. */
export interface WantedPart {
  readonly address: string;
  readonly accept: string;
}

export interface PartAtHand {
  readonly address: string;
  /** Null where it could not be loaded. */
  readonly got: Fetched | null;
}

/** What was fetched of a page; it notes what else the page asks for. */
export class PartsAtHand implements Loader {
  private readonly parts: ReadonlyMap<string, Fetched | null>;
  private readonly asked = new Map<string, string>();

  constructor(parts: readonly PartAtHand[]) {
    this.parts = new Map(parts.map(({ address, got }) => [address, got]));
  }

  get wanted(): readonly WantedPart[] {
    return [...this.asked].map(([address, accept]) => ({ address, accept }));
  }

  fetch(address: string, _limits: FetchLimits, accept = '*/*'): Promise<Fetched> {
    const got = this.parts.get(address);
    if (got) return Promise.resolve(got);
    if (got === undefined) this.asked.set(address, accept);
    return Promise.reject(new AppError('page_missing', { address, status: 404 }));
  }
}

const MOST_PARTS = 500;
/** After so long, what is not there yet is left out, in milliseconds. */
const LONGEST = 45_000;
/** Style sheets name others, which name pictures and fonts. */
const MOST_ROUNDS = 7;
const NAMES_OTHERS = /css|svg/i;

/** Fetches what a page shows with, round by round, as `wanted` says by what is at hand; never rejects for a part that cannot be had. */
export async function fetchParts(
  policy: NetworkPolicy,
  wanted: (known: readonly PartAtHand[]) => Promise<readonly WantedPart[]>,
): Promise<readonly PartAtHand[]> {
  const web = new SafeFetcher(policy);
  const limit = pLimit(AT_ONCE);
  const known: PartAtHand[] = [];
  const end = performance.now() + LONGEST;
  let room = MOST_BYTES;
  const fetchOne = async ({ address, accept }: WantedPart): Promise<PartAtHand> => {
    const left = Math.min(ASSET_LIMITS.milliseconds, end - performance.now());
    if (left <= 0 || room <= 0) return { address, got: null };
    const got = await web.fetch(address, { ...ASSET_LIMITS, milliseconds: left }, accept).catch(() => null);
    room -= got?.bytes.byteLength ?? 0;
    return { address, got };
  };
  try {
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const asked = (await wanted(known.map(withoutPicture))).slice(0, MOST_PARTS - known.length);
      const found = await Promise.all(asked.map((part) => limit(fetchOne, part)));
      known.push(...found);
      if (!found.some(({ got }) => got && NAMES_OTHERS.test(got.contentType))) break;
    }
    return known;
  } finally {
    await web.close();
  }
}

/** To tell what else a page asks for, no picture has to be looked at. */
function withoutPicture({ address, got }: PartAtHand): PartAtHand {
  return got && !NAMES_OTHERS.test(got.contentType)
    ? { address, got: { ...got, bytes: new Uint8Array() } }
    : { address, got };
}
