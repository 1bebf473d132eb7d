import type pg from 'pg';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { HttpProblem } from '../http/problem.ts';

const ADDRESS_SECONDS = 5 * 60;
const NAME_SECONDS = 15 * 60;
/** A PIN is short: few wrong ones, then the password. */
const PIN = { points: 6, duration: 3_600 };

/**
 * Tries to sign in, counted in PostgreSQL for every server: by the address they come from, and by the name they are
 * for, wherever they come from. On a device on which that name signed in before they are counted by themselves: what
 * strangers try locks nobody out of it.
 * @param limit from one address in five minutes; of one name three times that in a quarter of an hour
 */
export function triesService(pool: pg.Pool, limit: number) {
  const common = { storeClient: pool, storeType: 'pool', tableName: 'try_counter', tableCreated: true };
  /** The address a try comes from, or a device that is known. */
  const byPlace = new RateLimiterPostgres({
    ...common,
    keyPrefix: 'address',
    points: limit,
    duration: ADDRESS_SECONDS,
  });
  const byName = new RateLimiterPostgres({
    ...common,
    keyPrefix: 'name',
    points: 3 * limit,
    duration: NAME_SECONDS,
  });
  const byPin = new RateLimiterPostgres({ ...common, ...PIN, keyPrefix: 'pin' });

  async function spend(limiter: RateLimiterPostgres, key: string, wait: string): Promise<void> {
    try {
      await limiter.consume(key);
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      throw new HttpProblem(429, 'Too many tries', `Too many tries to sign in. Wait ${wait}.`);
    }
  }

  return {
    /**
     * Counts a try before it is made, and gives it back where it succeeds.
     * @param device on which that name signed in before
     * @throws HttpProblem 429 when there were too many
     */
    async one<T>(
      address: string,
      name: string,
      attempt: () => Promise<T>,
      device: string | null = null,
    ): Promise<T> {
      const counted: [RateLimiterPostgres, string, string][] =
        device === null
          ? [
              [byPlace, address, 'five minutes'],
              [byName, name, 'a quarter of an hour'],
            ]
          : [[byPlace, `${device} ${name}`, 'five minutes']];
      for (const [limiter, key, wait] of counted) await spend(limiter, key, wait);
      const done = await attempt();
      await Promise.all(counted.map(([limiter, key]) => limiter.reward(key)));
      return done;
    },

    /** The same for a PIN: six wrong ones in an hour. */
    async pin<T>(personId: string, attempt: () => Promise<T>): Promise<T> {
      await spend(byPin, personId, 'an hour, or sign in with your password');
      const done = await attempt();
      await byPin.delete(personId);
      return done;
    },
  };
}
export type TriesService = ReturnType<typeof triesService>;
