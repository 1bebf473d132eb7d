import { z } from 'zod';
import type { Band } from '../calculation/index.ts';
import { stackSchema } from '../stack/index.ts';
import {
  bandFigureSchema,
  forceFigureSchema,
  heatFigureSchema,
  hubSchema,
  intervalFigureSchema,
  lockSchema,
  lubricantSchema,
  marksSchema,
  retorqueFigureSchema,
  threadSchema,
  torqueFigureSchema,
  turnFigureSchema,
  type BandFigure,
} from './figure.ts';
import { schoolsSchema } from './schools.ts';

/** Constructions of a wheel end; each is a procedure family. */
export const constructions = {
  A: 'Two nuts and a locking washer',
  B: 'One-piece nut with a lock ring',
  C: 'Pre-set hub with a bearing spacer',
  D: 'Castellated nut and cotter',
  E: 'Staked nut with a keyed washer',
  F: 'Unitised bolt-on hub',
  G: 'Semi-floating axle shaft with C-clip',
  H: 'Two round lock nuts or a lock plate',
  J: 'Shaft seal behind a snap ring and shim',
  K: 'Spindle needle bearing with thrust washer',
  L: 'Kingpin or swivel bearings',
  M: 'Drum and hub joined by swaged studs',
  N: 'Hub with reduction, bearings preloaded',
} as const;

export type Family = keyof typeof constructions;
export const familySchema = z.enum(Object.keys(constructions) as [Family, ...Family[]]);

/**
 * Everything that holds for one kind of wheel end. It is copied into the axle and, when a job
 * opens, into the job, so that finished work keeps the figures it was done by.
 */
export const sheetSchema = z.object({
  /** Family sheet it was taken from, and that sheet's revision. */
  sheetId: z.string().regex(/^[a-z0-9-]{1,60}$/),
  revision: z.int().min(1).max(10_000),
  title: z.string().trim().min(1).max(120),
  family: familySchema,
  /** Procedure the traveller walks; null while there is none for this construction. */
  procedureId: z
    .string()
    .regex(/^[a-z0-9-]{1,60}$/)
    .nullable(),
  thread: threadSchema.nullable(),
  lock: lockSchema.nullable(),
  nut: z.string().trim().max(120),
  band: bandFigureSchema.nullable(),
  /**
   * dial: a dial reading is required. dial-or-feel: no movement felt may be recorded as feel.
   * drag: preload by pull scale or by hand. none: this construction has nothing to measure.
   */
  verifyBy: z.enum(['dial', 'dial-or-feel', 'drag', 'none']),
  /** Pull at a wheel stud that turns the hub, with `drag`. */
  drag: forceFigureSchema.nullable().default(null),
  seatTorque: torqueFigureSchema.nullable(),
  setTorque: torqueFigureSchema.nullable(),
  backOff: turnFigureSchema.nullable(),
  /** Which way a pre-set nut goes to its next lock place: makers differ; null where nobody has said. */
  nextPlace: z.enum(['on', 'back']).nullable().default(null),
  jamTorque: torqueFigureSchema.nullable(),
  wheelTorque: torqueFigureSchema.nullable(),
  /** Nuts of wheels that their studs centre: a figure of its own. */
  studPilotedTorque: torqueFigureSchema.nullable().default(null),
  /** Axle nut or pin bolt of constructions that are bolted on. */
  nutTorque: torqueFigureSchema.nullable().default(null),
  /** The construction's own bolts: hub, cover, swivel cap or grub screws. */
  boltTorque: torqueFigureSchema.nullable().default(null),
  /** Nuts of the shaft flange, or bolts of the hub lock or cap. */
  flangeTorque: torqueFigureSchema.nullable().default(null),
  caliperTorque: torqueFigureSchema.nullable().default(null),
  bracketTorque: torqueFigureSchema.nullable().default(null),
  /** Nuts that hold the spindle to the knuckle. */
  spindleTorque: torqueFigureSchema.nullable().default(null),
  /** Caps or arms over the swivel bearings. */
  capTorque: torqueFigureSchema.nullable().default(null),
  /** Track rod, drag link and ball joints. */
  jointTorque: torqueFigureSchema.nullable().default(null),
  /** Cover of the axle. */
  coverTorque: torqueFigureSchema.nullable().default(null),
  /** Torque at which a preloaded pair turns steadily: new bearings, and run-in ones. */
  rollingNew: torqueFigureSchema.nullable().default(null),
  rollingRunIn: torqueFigureSchema.nullable().default(null),
  /** Pull at the steering arm that turns the knuckle, links off. */
  swivelPull: forceFigureSchema.nullable().default(null),
  /** End movement of a shaft held by a C-clip; never an end-play band. */
  shaftMovement: bandFigureSchema.nullable().default(null),
  /** How the wheel end is built, outside in; null for what this construction usually has. */
  stack: stackSchema.nullable().default(null),
  /** Wheel studs, to light them in order. */
  studs: z.int().min(3).max(24).nullable().default(null),
  lubricant: lubricantSchema,
  /** What the hub holds; null where nobody has measured it. */
  hub: hubSchema.nullable().default(null),
  /** What this shop does where practitioners differ. */
  schools: schoolsSchema.prefault({}),
  /** When the wheel nuts are torqued again; null for the product's own rule. */
  retorque: retorqueFigureSchema.nullable().default(null),
  /** How often each work is wanted; null for what is usual for such a wheel end. */
  intervals: z.array(intervalFigureSchema).max(20).nullable().default(null),
  /** Hub heat after the road; null for the product's own rule. */
  heat: heatFigureSchema.nullable().default(null),
  /** How well thread, lock places, studs and lubricant are known; what is not named here waits to be confirmed. */
  marks: marksSchema.default({}),
});
export type Sheet = z.output<typeof sheetSchema>;

/** Figures a step can ask of the sheet. */
export const torqueKeys = [
  'seatTorque',
  'setTorque',
  'jamTorque',
  'wheelTorque',
  'studPilotedTorque',
  'nutTorque',
  'boltTorque',
  'flangeTorque',
  'caliperTorque',
  'bracketTorque',
  'spindleTorque',
  'capTorque',
  'jointTorque',
  'coverTorque',
] as const;
export type TorqueKey = (typeof torqueKeys)[number];

/** A band figure as the calculations take it, in mm. */
export function bandInMm(band: BandFigure): Band {
  return { minMm: band.min.si * 1000, maxMm: band.max.si * 1000 };
}
