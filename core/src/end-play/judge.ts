import { TOLERANCE_MM, type Band } from '../calculation/index.ts';

/** Where a single value lies against a band whose limits are inside it. */
export type BandSide = 'tight' | 'in-band' | 'loose';

/**
 * Compares an end play with its band. A value at a limit is in band, whatever rounding did to it.
 * @param endPlayMm end play in mm
 * @source TMC RP 618 (default band 0.001 to 0.005 in); limits inside: trade practice
 * @example sideOfBand(0.127, { minMm: 0.0254, maxMm: 0.127 }) // 'in-band'
 */
export function sideOfBand(endPlayMm: number, band: Band): BandSide {
  if (endPlayMm < band.minMm - TOLERANCE_MM) return 'tight';
  if (endPlayMm > band.maxMm + TOLERANCE_MM) return 'loose';
  return 'in-band';
}

/** How far outside the band, in mm; 0 inside. */
export function distanceOutside(endPlayMm: number, band: Band): number {
  const side = sideOfBand(endPlayMm, band);
  if (side === 'tight') return band.minMm - endPlayMm;
  if (side === 'loose') return endPlayMm - band.maxMm;
  return 0;
}
