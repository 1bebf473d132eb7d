import { billTotals, type Bill } from './bill.ts';

/** A job that was billed: what stands on its bill, and the wheel ends it was about. */
export interface BilledJob {
  bill: Bill;
  positions: readonly string[];
}

/** What a wheel end has cost so far. */
export interface RunningCost {
  position: string;
  jobs: number;
  /** Without taxes, in the smallest coin. */
  minor: number;
  /** In the smallest coin; null where the distance says nothing yet. */
  minorPer10000Km: number | null;
}

/** Over less than this, km, a cost by distance says more about the day of the last bill than about the wheel end. */
const LEAST_KM = 5_000;

/**
 * What each wheel end costs, and by distance: the bills of its jobs without taxes, each shared evenly by the wheel ends
 * of its job, over the distance that is on record. Bills in another currency are left out, and counted.
 * @param km the distance over which the jobs are known, km; null where nobody knows it
 * @source common practice, no source
 */
export function runningCosts(
  jobs: readonly BilledJob[],
  currency: string,
  km: number | null,
): { wheelEnds: RunningCost[]; otherCurrency: number } {
  const own = jobs.filter((j) => j.bill.currency === currency);
  const sums = new Map<string, { jobs: number; minor: number }>();
  for (const { bill, positions } of own) {
    const share = billTotals(bill).netMinor / positions.length;
    for (const position of positions) {
      const { jobs: n = 0, minor = 0 } = sums.get(position) ?? {};
      sums.set(position, { jobs: n + 1, minor: minor + share });
    }
  }
  const wheelEnds = [...sums].map(([position, { jobs: n, minor }]) => ({
    ...{ position, jobs: n, minor: Math.round(minor) },
    minorPer10000Km: km !== null && km >= LEAST_KM ? Math.round((minor / km) * 10_000) : null,
  }));
  return { wheelEnds, otherCurrency: jobs.length - own.length };
}
