/** Something that takes a part on a day. */
export interface PartDemand {
  /** yyyy-mm-dd; a day that is past counts as today. */
  date: string;
  quantity: number;
  /** What for, in words. */
  what: string;
}
export interface PartArrival {
  date: string;
  quantity: number;
}

export interface StockForecast {
  /** The first day on which there is not enough; null where there always is. */
  shortOn: string | null;
  /** How many are missing at the worst moment. */
  missing: number;
  /** What is short on that first day, in words. */
  first: string | null;
  /** The last day to order so that the part comes in time; null where nothing is short or the lead time is not known. */
  orderBy: string | null;
  /** It comes too late, ordered today. */
  late: boolean;
}

const DAY_MS = 86_400_000;
const daysBefore = (date: string, days: number) =>
  new Date(Date.parse(date) - days * DAY_MS).toISOString().slice(0, 10);

/**
 * Whether the stock of a part lasts, day by day: what arrives on a day is on the shelf before what is wanted on it.
 * @param onHand what lies on the shelves
 * @param demands what is planned or due, in any order
 * @param leadDays from order to shelf; null where nobody knows
 * @source arithmetic
 */
export function forecastStock({
  today,
  onHand,
  demands,
  arrivals,
  leadDays,
}: {
  today: string;
  onHand: number;
  demands: readonly PartDemand[];
  arrivals: readonly PartArrival[];
  leadDays: number | null;
}): StockForecast {
  const day = (date: string) => (date < today ? today : date);
  const changes = [
    ...arrivals.map((a) => ({ date: day(a.date), change: a.quantity, what: '' })),
    ...demands.map((d) => ({ date: day(d.date), change: -d.quantity, what: d.what })),
  ].sort((a, b) => (a.date === b.date ? b.change - a.change : a.date < b.date ? -1 : 1));
  let [left, lowest] = [onHand, 0];
  let short: { date: string; what: string } | null = null;
  for (const { date, change, what } of changes) {
    left += change;
    lowest = Math.min(lowest, left);
    if (left < 0) short ??= { date, what };
  }
  const orderBy = short && leadDays !== null ? daysBefore(short.date, leadDays) : null;
  return {
    shortOn: short?.date ?? null,
    first: short?.what ?? null,
    missing: -lowest || 0,
    orderBy,
    late: orderBy !== null && orderBy < today,
  };
}
