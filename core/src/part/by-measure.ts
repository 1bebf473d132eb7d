import type { Part } from './part.ts';
import { measuredIds, type LipFacing, type Measured } from './kinds.ts';

/** An old part as it was measured, mm; what could not be measured is left out. */
export interface OldPart {
  dims: Partial<Record<Measured, number>>;
  lips?: { count: number; facing: LipFacing } | undefined;
}

export interface MeasuredFit {
  /** By how much the part is larger than the old one, mm, of each dimension that both have. */
  off: Partial<Record<Measured, number>>;
  /** Dimensions of the old one that the list does not have of this part. */
  unknown: Measured[];
  /** Every dimension asked for is known and inside the tolerance, and the lips are as many and look the same way. */
  fits: boolean;
  lips: 'same' | 'other' | 'unknown' | 'not-asked';
  /** Sum of the differences in tolerances: what is nearest comes first. */
  far: number;
}

/**
 * Holds a part against an old one.
 * @param toleranceMm by how much a dimension may differ and still be the same part as a caliper reads it
 * @source common practice, no source: parts are held beside the old one before they go in
 */
export function compareByMeasure(
  old: OldPart,
  part: Pick<Part, 'dims' | 'lips'>,
  toleranceMm: number,
): MeasuredFit {
  const off: MeasuredFit['off'] = {};
  const unknown: Measured[] = [];
  for (const what of measuredIds) {
    const asked = old.dims[what];
    if (asked === undefined) continue;
    const has = part.dims[what];
    if (has) off[what] = has.si * 1000 - asked;
    else unknown.push(what);
  }
  const differences = Object.values(off).map(Math.abs);
  const lips = lipsAgainst(old, part);
  return {
    off,
    unknown,
    lips,
    fits: unknown.length === 0 && lips !== 'other' && differences.every((mm) => mm <= toleranceMm + 1e-9),
    far:
      differences.reduce((sum, mm) => sum + mm / toleranceMm, 0) +
      unknown.length +
      (lips === 'other' ? 2 : 0),
  };
}

function lipsAgainst(old: OldPart, { lips }: Pick<Part, 'lips'>): MeasuredFit['lips'] {
  if (!old.lips) return 'not-asked';
  if (!lips) return 'unknown';
  return lips.count === old.lips.count && lips.facing === old.lips.facing ? 'same' : 'other';
}

/** What can be done with a seal that is near and does not fit. */
export interface SealAdvice {
  text: string;
  /** The calculation that settles it. */
  sum?: 'seal-seat';
}

/**
 * What is to be done where no seal fits exactly: one of another width goes by its depth, one of another bore by the
 * journal, one of another outside not at all.
 * @source common practice, no source; the depth: ISO 6194-1 and geometry, as `seal-seat` reckons it
 */
export function sealAdvice({ off, lips }: MeasuredFit, toleranceMm: number): SealAdvice | null {
  const wrong = (what: Measured) => Math.abs(off[what] ?? 0) > toleranceMm + 1e-9;
  if (wrong('outside')) return { text: 'It does not hold in this hub: the outside must be the same.' };
  if ((off.bore ?? 0) < 0 && wrong('bore'))
    return { text: 'Its lip is too small for this journal: it would burn.' };
  if (wrong('bore'))
    return {
      text: 'Its lip is too large for this journal as it is: a wear sleeve of that outside would carry it.',
    };
  if (wrong('width'))
    return {
      text: 'Another width: reckon how deep it may sit, so that its lips run on sound journal.',
      sum: 'seal-seat',
    };
  if (lips === 'other')
    return { text: 'Its lips are others: it holds lubricant only where the main lip looks at it.' };
  return null;
}
