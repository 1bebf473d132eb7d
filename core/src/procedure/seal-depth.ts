import { sealSeat } from '../seal/index.ts';
import { quantity, type Quantity } from '../quantity/index.ts';
import type { MeasuredSeat, TouchedPlaces } from './step-data.ts';

/** Distance a lip keeps from the groove and from the end of the journal, mm (common practice, no source). */
const LIP_MARGIN_MM = 1;

const mm = (q: Quantity) => q.si * 1000;

/**
 * The seat as it lies once the hub is on, in mm from the hub's seal face, from what can be touched with the hub off:
 * the inner bearing then stands at the spindle's shoulder, so that a place so far inboard of the shoulder lies that
 * much nearer to the face. Geometry.
 */
export function seatFromTouched(
  { faceToBearing, journalFrom, journalTo, grooveFrom, grooveTo }: TouchedPlaces,
  seal: Pick<MeasuredSeat, 'lip' | 'dustLip' | 'deepest'>,
): MeasuredSeat {
  const below = (place: Quantity) => quantity(Math.round((mm(faceToBearing) - mm(place)) * 1e6) / 1e6, 'mm');
  return {
    journalStart: below(journalTo),
    journalEnd: below(journalFrom),
    ...(grooveFrom && grooveTo ? { grooveStart: below(grooveTo), grooveEnd: below(grooveFrom) } : {}),
    ...seal,
  };
}

/** What places of a seal's seat can have against them, in words. */
export const seatFaults = {
  'bearing-above-face': 'The bearing lies below the hub’s seal face',
  'journal-outboard': 'The seal’s journal lies inboard of the bearing’s shoulder',
  'journal-backwards': 'The journal ends before it begins',
  'groove-one-edge': 'A groove has two edges',
  'groove-backwards': 'The groove ends before it begins',
  'no-depth': 'The bore has a depth',
} as const;
export type SeatFault = keyof typeof seatFaults;

/** Why places that were touched cannot be, or null. */
export function whyNotTouched({
  faceToBearing,
  journalFrom,
  journalTo,
  grooveFrom,
  grooveTo,
}: TouchedPlaces): SeatFault | null {
  if (faceToBearing.si <= 0) return 'bearing-above-face';
  if (journalFrom.si < 0) return 'journal-outboard';
  if (journalTo.si <= journalFrom.si) return 'journal-backwards';
  if (Boolean(grooveFrom) !== Boolean(grooveTo)) return 'groove-one-edge';
  return grooveFrom && grooveTo && grooveTo.si <= grooveFrom.si ? 'groove-backwards' : null;
}

/** Why measured places cannot be a journal, or null. */
export function whyNoSeat(seat: MeasuredSeat): SeatFault | null {
  const { journalStart, journalEnd, grooveStart, grooveEnd, deepest } = seat;
  if (journalEnd.si <= journalStart.si) return 'journal-backwards';
  if (Boolean(grooveStart) !== Boolean(grooveEnd)) return 'groove-one-edge';
  if (grooveStart && grooveEnd && grooveEnd.si <= grooveStart.si) return 'groove-backwards';
  return deepest.si < 0 ? 'no-depth' : null;
}

/**
 * Depths below the hub face, mm, at which every lip of a seal runs on sound journal, for the places measured.
 * @see sealSeat
 * @throws RangeError for places that cannot be a journal
 */
export function sealDepths(seat: MeasuredSeat) {
  const wrong = whyNoSeat(seat);
  if (wrong) throw new RangeError(seatFaults[wrong]);
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
