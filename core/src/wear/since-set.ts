import type { Band } from '../calculation/index.ts';
import { median } from '../statistics/index.ts';

/** A measured state of one wheel end: end play in mm, the odometer where it has one. */
export interface PlayAt {
  jobId: string;
  /** 0 for the reading as found, before anything is loosened. */
  round: number;
  endPlayMm: number;
  km: number | null;
  /** What the wheel end left its job with. */
  final: boolean;
}

/** What became of a setting between the job that made it and the visit that found it. */
export interface SinceSet {
  setMm: number;
  foundMm: number;
  growthMm: number;
  /** Distance between the two; null where an odometer was not read. */
  km: number | null;
  mmPer10000Km: number | null;
  /** The middle of the growth of earlier settings of this wheel end, mm per 10,000 km; null without any. */
  usualMmPer10000Km: number | null;
  /** walked: set in band and found loose, or growing over three times as fast as it used to. */
  finding: 'held' | 'walked';
}

/** Growth under the repeatability of a dial is no finding, mm (0.001 in, common practice, no source). */
const REPEATS_MM = 0.0254;
const MUCH_FASTER = 3;
const PER_KM = 10_000;

function rate(from: PlayAt, to: PlayAt): number | null {
  const km = from.km === null || to.km === null ? 0 : to.km - from.km;
  return km > 0 ? ((to.endPlayMm - from.endPlayMm) / km) * PER_KM : null;
}

/** Every setting with the reading that first found it at a later visit. */
const settingsFound = (readings: readonly PlayAt[]): { set: PlayAt; found: PlayAt }[] =>
  readings.flatMap((reading, i) => {
    const set = readings.slice(0, i).findLast((r) => r.final);
    return reading.round === 0 && set && set.jobId !== reading.jobId ? [{ set, found: reading }] : [];
  });

/**
 * How fast the settings of a wheel end grow: the middle of them.
 * @param readings in the order taken
 * @returns mm per 10,000 km and of how many settings; null where no distance lies between a setting and its next visit
 * @source common practice, no single source
 */
export function usualGrowth(readings: readonly PlayAt[]): { mmPer10000Km: number; settings: number } | null {
  const rates = settingsFound(readings).flatMap((s) => rate(s.set, s.found) ?? []);
  return rates.length === 0 ? null : { mmPer10000Km: median(rates), settings: rates.length };
}

/**
 * How the last setting of a wheel end held, and how earlier ones did.
 * @param before its readings from earlier jobs, in the order taken
 * @param found the reading as found at this visit
 * @returns null when it was never set before
 * @source common practice, no single source
 */
export function sinceSet(before: readonly PlayAt[], found: PlayAt, band: Band): SinceSet | null {
  const spans = settingsFound([...before, found]);
  const last = spans.at(-1);
  if (last?.found !== found) return null;
  const { set } = last;
  const earlier = spans.slice(0, -1).flatMap((s) => rate(s.set, s.found) ?? []);
  const usual = earlier.length === 0 ? null : median(earlier);
  const growthMm = found.endPlayMm - set.endPlayMm;
  const mmPer10000Km = rate(set, found);
  const leftBand = set.endPlayMm <= band.maxMm && found.endPlayMm > band.maxMm;
  const faster = usual !== null && usual > 0 && mmPer10000Km !== null && mmPer10000Km > MUCH_FASTER * usual;
  return {
    setMm: set.endPlayMm,
    foundMm: found.endPlayMm,
    growthMm,
    km: set.km === null || found.km === null ? null : found.km - set.km,
    mmPer10000Km,
    usualMmPer10000Km: usual,
    finding: growthMm > REPEATS_MM && (leftBand || faster) ? 'walked' : 'held',
  };
}
