import { workedIn, type TimeSpan } from './hours.ts';

/**
 * When a booking ends that is moved to another beginning: it keeps its minutes of work, over nights and breaks.
 * One that lies outside all hours keeps its length.
 * @param hours when the shop works, long enough after the new beginning
 */
export function endOfMoved(hours: readonly TimeSpan[], booking: TimeSpan, from: number): number {
  let left = workedIn(hours, booking);
  const length = booking.until - booking.from;
  if (left === 0) return from + length;
  for (const h of hours) {
    const begin = Math.max(h.from, from);
    if (begin >= h.until) continue;
    if (begin + left <= h.until) return begin + left;
    left -= h.until - begin;
  }
  return from + length;
}
