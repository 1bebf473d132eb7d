import { greaseFill } from '../lubricant/index.ts';
import { formatFor, quantity, type Quantity, type Reader } from '../quantity/index.ts';
import type { Sheet } from './sheet.ts';

/** Usual density of a wheel-bearing grease, g/ml (value from memory). */
const GREASE_G_PER_ML = 0.9;

/**
 * What a hub takes: grease by mass, oil by volume. Grease fills the bearings and the sheet's part of the
 * cavity; oil fills that part of bearings and cavity alike, and the mark on the cap decides in the end.
 * @returns null where the sheet does not say what the hub holds
 * @source free volume of a bearing: bearing handbooks, general formula; oil to a level: geometry
 */
export function hubFill({ hub, lubricant }: Pick<Sheet, 'hub' | 'lubricant'>): Quantity | null {
  if (!hub) return null;
  const { bearings, cavityMl, cavityFillPercent } = hub;
  const filled = (percent: number) =>
    greaseFill({ bearings, cavityMl, cavityFillPercent: percent, densityGPerMl: GREASE_G_PER_ML });
  return lubricant.kind === 'grease'
    ? quantity(Math.round(filled(cavityFillPercent).massG), 'g')
    : quantity(Math.round((filled(100).totalMl * cavityFillPercent) / 100), 'mL');
}

/** What a hub takes, in words; empty where it is not known. */
export function formatHubFill(sheet: Pick<Sheet, 'hub' | 'lubricant'>, reader: Reader): string {
  const fill = hubFill(sheet);
  return fill ? `about ${formatFor(fill, reader)}` : '';
}
