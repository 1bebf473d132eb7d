import type { z } from 'zod';
import { layerSchema, type NutKind } from './layer.ts';
import type { Stack } from './stack.ts';

/** What an axle tells of how its wheel ends are built. */
export interface BuiltAxle {
  role: 'steer' | 'drive' | 'trailer' | 'fixed' | 'pivot';
  wheels: 'single' | 'dual';
  brake: 'drum' | 'disc' | 'none';
}

type Short = z.input<typeof layerSchema>;
type Build = (axle: BuiltAxle) => (Short | null)[];

const steers = ({ role }: BuiltAxle) => role === 'steer' || role === 'pivot';
const wheel = ({ wheels }: BuiltAxle): Short => ({ layer: 'wheel', kind: wheels });
const outerBrake = ({ brake }: BuiltAxle, by: 'air' | 'hydraulic'): Short | null =>
  brake === 'none' ? null : { layer: 'brake-outer', kind: brake, by };
const withBrake = <T extends string>({ brake }: BuiltAxle, carried: T) =>
  brake === 'none' ? ('nothing' as const) : carried;
/** The stub axle that turns about a kingpin, where the axle steers. */
const stub = (axle: BuiltAxle): Short | null => (steers(axle) ? { layer: 'spindle', kind: 'stub' } : null);
const greaseCap: Short = { layer: 'cap', kind: 'grease-cap' };

/** Heavy wheel end in oil; a drive axle closes with its shaft flange. */
const heavy =
  (kind: NutKind): Build =>
  (axle) => [
    wheel(axle),
    axle.role === 'drive'
      ? { layer: 'cap', kind: 'flange', cones: true, fasteners: 8 }
      : { layer: 'cap', kind: 'oil-cap', fasteners: 6 },
    outerBrake(axle, 'air'),
    { layer: 'nut', kind },
    { layer: 'hub', fill: 'oil', toneRing: true },
    stub(axle),
  ];

const towed: Build = (axle) => [
  wheel(axle),
  greaseCap,
  { layer: 'nut', kind: 'D' },
  { layer: 'hub', fill: 'grease', carries: withBrake(axle, 'drum') },
  axle.brake === 'none' ? null : { layer: 'brake-inner', kind: 'electric', by: 'electric' },
];

const farmFront: Build = (axle) => [
  wheel(axle),
  greaseCap,
  { layer: 'nut', kind: 'D' },
  { layer: 'hub', fill: 'grease' },
  stub(axle),
];

const staked: Build = (axle) => [
  wheel(axle),
  greaseCap,
  outerBrake(axle, 'hydraulic'),
  { layer: 'nut', kind: 'E' },
  { layer: 'hub', fill: 'grease', carries: axle.brake === 'disc' ? 'rotor' : 'nothing', toneRing: true },
];

/** A medium-duty front axle: a staked nut before a stub with its kingpin. */
const stakedOnStub: Build = (axle) => [...staked(axle), stub(axle)];

const unitHub: Build = (axle) => [wheel(axle), outerBrake(axle, 'hydraulic'), { layer: 'unit-hub' }];

const compactHub: Build = (axle) => [
  wheel(axle),
  { layer: 'cap', kind: 'oil-cap', fasteners: 6 },
  outerBrake(axle, 'air'),
  { layer: 'unit-hub', kind: 'compact' },
];

/** A caravan's rubber axle: the drum carries its own bearing, and comes off the shoes. */
const drumHub: Build = (axle) => [
  wheel(axle),
  greaseCap,
  { layer: 'unit-hub', kind: 'drum', sensor: false },
  axle.brake === 'none' ? null : { layer: 'brake-inner', kind: 'shoes', by: 'overrun' },
];

const clippedShaft: Build = (axle) => [
  wheel(axle),
  outerBrake(axle, 'hydraulic'),
  { layer: 'shaft', kind: 'c-clip' },
  { layer: 'axle' },
];

const fourByFourFront: Build = (axle) => [
  wheel(axle),
  { layer: 'cap', kind: 'hub-lock', fasteners: 6, alsoUndone: ['circlips'] },
  outerBrake(axle, 'hydraulic'),
  { layer: 'nut', kind: 'H' },
  { layer: 'hub', fill: 'grease', carries: axle.brake === 'disc' ? 'rotor' : 'nothing' },
  { layer: 'spindle', kind: 'bolted' },
  { layer: 'shaft', kind: 'driven' },
  { layer: 'knuckle' },
];

const crawler: Build = (axle) => [
  axle.role === 'drive' ? { layer: 'wheel', kind: 'sprocket' } : wheel(axle),
  { layer: 'seal-hub' },
];

const oldDrum: Build = (axle) => [
  wheel(axle),
  greaseCap,
  { layer: 'nut', kind: 'D', jammed: true },
  { layer: 'hub', fill: 'grease', studs: 'swaged', carries: withBrake(axle, 'drum') },
  axle.brake === 'none' ? null : { layer: 'brake-inner', kind: 'shoes', by: 'hydraulic' },
  // Steered, it is the front of an old 4×4: the backing plate stands on the studs of the spindle.
  ...(steers(axle)
    ? [
        { layer: 'spindle', kind: 'bolted' } as const,
        { layer: 'shaft', kind: 'driven' } as const,
        { layer: 'knuckle' } as const,
      ]
    : []),
];

/** A hub with reduction: of a driven steered axle, the knuckle and the joint of its shaft lie behind it. */
const reduction =
  (setBy: 'nut' | 'shims'): Build =>
  (axle) => [
    wheel(axle),
    { layer: 'cap', kind: 'carrier', fasteners: 12 },
    { layer: 'nut', kind: 'N', setBy },
    { layer: 'hub', fill: 'oil', seal: 'face' },
    steers(axle) ? { layer: 'knuckle', joint: 'universal' } : null,
  ];

const byProcedure: Record<string, Build> = {
  'a-two-nuts': heavy('A'),
  'b-lock-ring': heavy('B'),
  'c-preset': heavy('C'),
  'd-steer-single-nut': heavy('D'),
  'd-towed': towed,
  'd-farm-front': farmFront,
  'e-keyed-washer': staked,
  'e-torque': stakedOnStub,
  'f-unitised': unitHub,
  'f-compact': compactHub,
  'f-drum': drumHub,
  'g-c-clip': clippedShaft,
  'h-lock-nuts': fourByFourFront,
  'j-shaft-seal': crawler,
  'k-spindle-needle': fourByFourFront,
  'l-swivel': fourByFourFront,
  'm-swaged-studs': oldDrum,
  'n-planetary': reduction('nut'),
  'n-shims': reduction('shims'),
};

/**
 * The stack that a construction usually has on such an axle, where the sheet does not hold one of its own.
 * @param procedureId of the sheet
 * @returns null for a construction that has none
 * @source common practice, no single source
 */
export function usualStack(procedureId: string | null, axle: BuiltAxle): Stack | null {
  const build = procedureId === null ? undefined : byProcedure[procedureId];
  if (!build) return null;
  return build(axle)
    .filter((l) => l !== null)
    .map((l) => layerSchema.parse(l));
}
