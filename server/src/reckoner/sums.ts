import type { Asked, WorkPool } from '../pool/pool.ts';
import type { SumAnswer } from '../pool/worker.ts';
import type { ClaimedSum, VerifiedSum } from './verify-sum.ts';

/** Sums that can take long. */
const long = new Set(['shop-plan', 'setting-life', 'weibull-fit', 'wear-trend', 'due']);
const takes = (name: string) => (long.has(name) ? 'long' : 'short');

/** Runs sums in the pool, each in its person's turn. @throws HttpProblem 429 or 503 when too much waits or it takes too long */
export function sumsService(pool: WorkPool) {
  return {
    /**
     * @param name of the calculation
     * @param json its input, as it came from outside
     */
    run: (name: string, json: string, asked: Omit<Asked, 'takes'>): Promise<SumAnswer> =>
      pool.run('sum', { name, json }, { ...asked, takes: takes(name) }),

    /** Reckons again what is to go into a record. */
    verify: (sum: ClaimedSum, person: string): Promise<VerifiedSum> =>
      pool.run('verify-sum', sum, { person, takes: takes(sum.name) }),
  };
}
export type SumsService = ReturnType<typeof sumsService>;
