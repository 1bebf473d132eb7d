/** What comes off a wheel end together, as one layer, and what it is called. */
export const layerTitles = {
  wheel: 'Wheel',
  cap: 'Cap, flange or hub lock',
  'brake-outer': 'Brake, outer',
  nut: 'Bearing nut',
  hub: 'Hub',
  'unit-hub': 'Unit hub',
  'seal-hub': 'Shaft seal hub',
  'brake-inner': 'Brake, inner',
  spindle: 'Spindle',
  shaft: 'Shaft',
  axle: 'Axle',
  knuckle: 'Knuckle',
} as const;

export type LayerId = keyof typeof layerTitles;
export const layerIds = Object.keys(layerTitles) as [LayerId, ...LayerId[]];
