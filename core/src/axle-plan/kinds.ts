/** Kinds of unit, as the shop calls them. */
export const unitKinds = {
  rigid: 'Rigid truck',
  tractor: 'Tractor unit',
  'semi-trailer': 'Semi-trailer',
  bus: 'Bus',
  van: 'Van or light truck',
  motorhome: 'Motorhome',
  caravan: 'Towed caravan or fifth wheel',
  flatbed: 'Flatbed trailer',
  'farm-tractor': 'Farm tractor',
  implement: 'Implement',
  'work-machine': 'Work machine',
  crawler: 'Small crawler',
} as const;
export type UnitKind = keyof typeof unitKinds;

/** What an axle does. */
export const axleRoles = {
  steer: 'Steer',
  drive: 'Drive',
  trailer: 'Trailer',
  fixed: 'Fixed',
  pivot: 'Pivot',
} as const;
export type AxleRole = keyof typeof axleRoles;
