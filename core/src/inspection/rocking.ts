/** Where the tip of the indicator stood while the wheel was rocked. Only square on the hub does it show end play. */
export const tipPlaces = {
  hub: 'Square on the end of the hub',
  'drum-edge': 'On the edge of the drum or rotor',
  rim: 'On the rim',
} as const;
export type TipPlace = keyof typeof tipPlaces;

/** How much more one wheel tilts than the other before it is said. Rule of this product, no source. */
const TILTS_MORE = 1.5;

/** The tilt that a movement at a radius is, mm per metre: what lets two rockings be compared. */
export function tiltMmPerM({ movementMm, radiusMm }: { movementMm: number; radiusMm: number }): number {
  return (movementMm / radiusMm) * 1000;
}

/**
 * Holds a rocking against another one: the other side, or the same wheel before. A rocking is never held against an
 * end-play band: at the rim or the drum's edge a dial shows how far the wheel tilts.
 * @param here tilt, mm per metre
 */
export function compareRocking(here: number, there: number): 'more' | 'alike' | 'less' {
  if (here > there * TILTS_MORE) return 'more';
  return there > here * TILTS_MORE ? 'less' : 'alike';
}
