import type { Shortage } from '@lanternwright/contract/stores';
import { formatDate } from '../shell/words.ts';

/** Until when to order, and whether that is past. */
export function orderWords({ orderBy, late, leadDays, shortOn }: Shortage): string {
  if (orderBy === null)
    return `Nobody has told how long it takes to come: ask before ${formatDate(shortOn!)}`;
  const days = `${leadDays} ${leadDays === 1 ? 'day' : 'days'} to come`;
  return late ? `Ordered today it is late: ${days}` : `Order by ${formatDate(orderBy)}: ${days}`;
}
