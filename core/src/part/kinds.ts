/** Kinds of parts a store holds for wheel ends, and what of each is measured. */
export const partKinds = {
  'bearing-set': { title: 'Bearing set', measured: ['bore', 'outside', 'width'] },
  cone: { title: 'Bearing cone', measured: ['bore', 'width'] },
  cup: { title: 'Bearing cup', measured: ['outside', 'width'] },
  seal: { title: 'Seal', measured: ['bore', 'outside', 'width'] },
  'wear-sleeve': { title: 'Wear sleeve', measured: ['bore', 'outside', 'width'] },
  nut: { title: 'Nut', measured: ['bore'] },
  washer: { title: 'Washer', measured: ['bore', 'outside', 'width'] },
  cotter: { title: 'Cotter', measured: ['outside', 'width'] },
  gasket: { title: 'Gasket', measured: ['bore', 'outside'] },
  cap: { title: 'Hub cap', measured: ['outside'] },
  stud: { title: 'Wheel stud', measured: ['outside', 'width'] },
  lining: { title: 'Brake lining', measured: ['width'] },
  'hub-unit': { title: 'Hub unit', measured: ['bore', 'outside'] },
  lubricant: { title: 'Lubricant', measured: [] },
  other: { title: 'Other part', measured: ['bore', 'outside', 'width'] },
} as const satisfies Record<string, { title: string; measured: readonly Measured[] }>;
export type PartKind = keyof typeof partKinds;
export const partKindIds = Object.keys(partKinds) as [PartKind, ...PartKind[]];

/** What a caliper reads of a round part: the hole, across it, and along its axis. */
export const measures = { bore: 'Bore', outside: 'Outside', width: 'Width' } as const;
export type Measured = keyof typeof measures;
export const measuredIds = Object.keys(measures) as [Measured, ...Measured[]];

/** Which way the main lip of a seal looks: towards what it holds in. */
export const lipFacings = {
  inward: 'Inward, holding lubricant',
  outward: 'Outward, holding dirt',
  both: 'Both ways',
} as const;
export type LipFacing = keyof typeof lipFacings;
export const lipFacingIds = Object.keys(lipFacings) as [LipFacing, ...LipFacing[]];
