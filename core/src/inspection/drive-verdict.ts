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
  'oil-hub-open': 'Cap, plug or window of an oil hub missing or open',
  'grease-cap-missing': 'Grease cap missing',
  'hub-warmer': 'One hub warmer than the other',
  cracked: 'Hub or wheel cracked',
  'nuts-missing': 'Wheel nuts missing or loose',
  'dry-stain': 'Dry stain at the hub',
  'weep-at-cap': 'Grease weep at a cap',
} as const;
export type Symptom = keyof typeof symptoms;
export const symptomSchema = z.enum(Object.keys(symptoms) as [Symptom, ...Symptom[]]);

export const driveVerdicts = {
  drive: 'May be driven',
  'to-shop': 'To the shop only, slowly and empty',
  'do-not-move': 'Do not move it: recover it',
} as const;
export type DriveVerdict = keyof typeof driveVerdicts;

/** What was done with a unit that has a verdict. */
export const driveActs = {
  'driven-in': 'Was driven in',
  recovered: 'Recovered to the shop',
  'looked-at': 'Looked at where it stood',
} as const;
export type DriveAct = keyof typeof driveActs;

const toShop: readonly Symptom[] = [
  'cap-missing',
  'grease-cap-missing',
  'movement',
  'noise',
  'pulls',
  'shimmy',
  'metal-in-cap',
  'hub-warmer',
  'oil-on-tyre',
];

/** What alone keeps a unit where it stands. */
const standing: readonly Symptom[] = ['smoke', 'oil-hub-open', 'oil-on-lining', 'cracked', 'nuts-missing'];

const list = (found: readonly Symptom[]) => found.map((s) => symptoms[s].toLowerCase()).join(', ');

/**
 * Whether a unit with these symptoms may move, and why. A person who sees the unit decides, never this list alone, and
 * local rules decide over both.
 * @source roadside out-of-service practice in North America, value from memory
 */
export function driveVerdict(noticed: readonly Symptom[]): { verdict: DriveVerdict; reason: string } {
  const has = (s: Symptom) => noticed.includes(s);
  const together = (...some: Symptom[]) => (some.every(has) ? some : []);
  const grave = [
    ...noticed.filter((s) => standing.includes(s)),
    ...together('movement', 'noise'),
    ...together('movement', 'hub-warmer'),
    ...together('movement', 'metal-in-cap'),
    ...together('pulls', 'lamp', 'noise'),
  ];
  if (grave.length > 0) return { verdict: 'do-not-move', reason: `Because of ${list([...new Set(grave)])}` };
  const slow = noticed.filter((s) => toShop.includes(s));
  if (slow.length > 0)
    return { verdict: 'to-shop', reason: `Slowly, empty, watched, because of ${list(slow)}` };
  return {
    verdict: 'drive',
    reason: noticed.length === 0 ? 'Nothing was noticed' : `Booked because of ${list(noticed)}`,
  };
}
