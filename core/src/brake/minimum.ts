const cfr = '49 CFR 393.47, recalled: confirm against the rule';

/**
 * Least lining thickness by brake, mm; at or under it the lining is replaced across the axle.
 * @source 49 CFR 393.47, recalled; the towed electric brake is common practice
 */
export const liningMinimums = {
  'air-drum-steer': { title: 'Air drum, steer axle', mm: 4.8, source: cfr },
  'air-drum-steer-two-pads': { title: 'Air drum, steer axle, two pads a shoe', mm: 6.4, source: cfr },
  'air-drum': { title: 'Air drum, other axles', mm: 6.4, source: cfr },
  'air-disc': { title: 'Air disc', mm: 3.2, source: cfr },
  hydraulic: { title: 'Hydraulic or electric', mm: 1.6, source: cfr },
  none: { title: 'No brake on this wheel end', mm: 0, source: 'Nothing to measure' },
} as const;

export type BrakeKind = keyof typeof liningMinimums;
export const brakeKinds = Object.keys(liningMinimums) as [BrakeKind, ...BrakeKind[]];
