import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';
import { AppError } from '../errors';

/** Within five minutes; common practice is some ten wrong passwords for an account, and far more for an address that a whole class shares. */
const SECONDS = 300;
const OF_ACCOUNT_HERE = 12;
const OF_ACCOUNT = 50;
const OF_ADDRESS = 100;
const SIGN_UPS = 60;

/**
 * Counts what failed, by whom it was for and from where; what succeeds is not counted, so that a classroom behind one
 * address can sign in. Kept in memory: a restart forgives.
 */
export class Tries {
  private readonly limits = [
    {
      of: (account: string, address: string) => `${account} ${address}`,
      limiter: new RateLimiterMemory({ points: OF_ACCOUNT_HERE, duration: SECONDS }),
    },
    { of: (account: string) => account, limiter: new RateLimiterMemory({ points: OF_ACCOUNT, duration: SECONDS }) },
    {
      of: (_account: string, address: string) => address,
      limiter: new RateLimiterMemory({ points: OF_ADDRESS, duration: SECONDS }),
    },
  ];

  private readonly signUps = new RateLimiterMemory({ points: SIGN_UPS, duration: SECONDS });

  /** Counts an account being made from an address. Throws `too_fast`. */
  async signUp(address: string): Promise<void> {
    await this.signUps.consume(address).catch((known: RateLimiterRes) => {
      throw new AppError('too_fast', { wait: wait(known) });
    });
  }

  /** Does work unless there were too many failures before; counts it where it throws one of `codes`. Throws `too_fast`. */
  async guard<T>(account: string, address: string, codes: readonly string[], work: () => T | Promise<T>): Promise<T> {
    const name = account.trim().toLowerCase().slice(0, 254);
    for (const { of, limiter } of this.limits) {
      const known = await limiter.get(of(name, address));
      if (known && known.consumedPoints >= limiter.points) throw new AppError('too_fast', { wait: wait(known) });
    }
    try {
      return await work();
    } catch (error) {
      if (error instanceof AppError && codes.includes(error.code))
        for (const { of, limiter } of this.limits) await limiter.consume(of(name, address)).catch(() => undefined);
      throw error;
    }
  }
}

function wait({ msBeforeNext }: RateLimiterRes): string {
  const minutes = Math.ceil(msBeforeNext / 60_000);
  return minutes <= 1 ? 'a minute' : `${minutes} minutes`;
}
