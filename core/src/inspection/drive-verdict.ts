import { z } from 'zod';

/** What a driver can have noticed, in words for the intake. */
export const symptoms = {
  pulls: 'Pulls or follows grooves',
  lamp: 'Wheel-speed-sensor lamp',
  smoke: 'Smoke or a hot hub',
  noise: 'Noise from the wheel',
  shimmy: 'Shimmy under load',
  movement: 'Movement felt by hand',
  'oil-on-tyre': 'Oil or grease on the inside of the tyre',
  'oil-on-lining': 'Oil or grease on the lining',
  'cap-missing': 'Cap missing or loose',
  'metal-in-cap': 'Metal in the cap',
} as const;
export type Symptom = keyof typeof symptoms;
export const symptomSchema = z.enum(Object.keys(symptoms) as [Symptom, ...Symptom[]]);

export const driveVerdicts = {
  drive: 'May be driven',
  'to-shop': 'To the shop only, slowly and empty',
  'do-not-move': 'Do not move it: recover it',
} as const;
export type DriveVerdict = keyof typeof driveVerdicts;

const toShop: readonly Symptom[] = [
  'smoke',
  'noise',
  'movement',
  'oil-on-lining',
  'cap-missing',
  'metal-in-cap',
];

const list = (found: readonly Symptom[]) => found.map((s) => symptoms[s].toLowerCase()).join(', ');

/**
 * Whether a unit with these symptoms may move, and why. Smoke, lamp and pull together are a suspected bearing
 * failure; so are smoke and movement or metal. A person who sees the unit decides, never this list alone.
 * @source common practice, no single source
 */
export function driveVerdict(noticed: readonly Symptom[]): { verdict: DriveVerdict; reason: string } {
  const has = (s: Symptom) => noticed.includes(s);
  if (has('smoke') && has('lamp') && has('pulls'))
    return { verdict: 'do-not-move', reason: 'Smoke, lamp and pull together: a bearing is failing' };
  if (has('smoke') && (has('movement') || has('metal-in-cap')))
    return { verdict: 'do-not-move', reason: 'Heat with movement or metal: a bearing has failed' };
  const grave = noticed.filter((s) => toShop.includes(s));
  if (grave.length > 0) return { verdict: 'to-shop', reason: `Because of ${list(grave)}` };
  return {
    verdict: 'drive',
    reason: noticed.length === 0 ? 'Nothing was noticed' : `Look soon because of ${list(noticed)}`,
  };
}
