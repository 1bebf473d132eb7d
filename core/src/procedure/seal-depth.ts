import { sealSeat } from '../seal/index.ts';
import type { Quantity } from '../quantity/index.ts';
import type { MeasuredSeat } from './step-data.ts';

/** Distance a lip keeps from the groove and from the end of the journal, mm (common practice, no source). */
const LIP_MARGIN_MM = 1;

const mm = (q: Quantity) => q.si * 1000;

/** Why measured places cannot be a journal, or null. */
export function whyNoSeat(seat: MeasuredSeat): string | null {
  const { journalStart, journalEnd, grooveStart, grooveEnd, deepest } = seat;
  if (journalEnd.si <= journalStart.si) return 'The journal ends before it begins';
  if (Boolean(grooveStart) !== Boolean(grooveEnd)) return 'A groove has two edges';
  if (grooveStart && grooveEnd && grooveEnd.si <= grooveStart.si) return 'The groove ends before it begins';
  return deepest.si < 0 ? 'The bore has a depth' : null;
}

/**
 * Depths below the hub face, mm, at which every lip of a seal runs on sound journal, for the places measured.
 * @see sealSeat
 * @throws RangeError for places that cannot be a journal
 */
export function sealDepths(seat: MeasuredSeat) {
  const wrong = whyNoSeat(seat);
  if (wrong) throw new RangeError(wrong);
  const lips = [seat.lip, ...(seat.dustLip ? [seat.dustLip] : [])];
  return sealSeat({
    journal: { startMm: mm(seat.journalStart), endMm: mm(seat.journalEnd) },
    ...(seat.grooveStart && seat.grooveEnd
      ? { groove: { startMm: mm(seat.grooveStart), endMm: mm(seat.grooveEnd) } }
      : {}),
    lips: lips.map((lip) => ({ offsetMm: mm(lip), marginMm: LIP_MARGIN_MM })),
    depth: { minMm: 0, maxMm: mm(seat.deepest) },
  });
}
