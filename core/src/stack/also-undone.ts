/** Small things that are undone with a layer on some wheel ends, and done again with it. */
export const alsoUndone = {
  'hose-bracket': 'Hose bracket',
  'speed-cable-clip': 'Speed-cable clip',
  'ball-joint-nut': 'Ball-joint nut',
  circlips: 'Circlips',
  'baffle-screws': 'Baffle screws',
} as const;
export type AlsoUndone = keyof typeof alsoUndone;
export const alsoUndoneIds = Object.keys(alsoUndone) as [AlsoUndone, ...AlsoUndone[]];
