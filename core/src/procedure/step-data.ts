import { z } from 'zod';
import { brakeKinds, chambers, chamberStrokes } from '../brake/index.ts';
import { dispositionSchema, tipPlaces, type TipPlace } from '../inspection/index.ts';
import {
  amountSchema,
  dimensionSchema,
  forceSchema,
  placeSchema,
  readingSchema,
  sizeSchema,
  temperatureSchema,
  torqueSchema,
  voltageSchema,
} from '../quantity/index.ts';
import { toolSchema } from '../tool/index.ts';
import { torqueViaSchema } from '../torque/index.ts';

const note = z.string().trim().max(500).optional();
const name = z.string().trim().min(1).max(80);

/** In what a new part is held against the old one. */
export const compared = {
  bore: 'Bore',
  outside: 'Outside diameter',
  width: 'Width',
  studs: 'Studs',
  sensor: 'Sensor',
  number: 'Number',
} as const;
export type Compared = keyof typeof compared;
const comparedKeys = Object.keys(compared) as [Compared, ...Compared[]];

const seatSchema = z.object({
  journalStart: placeSchema,
  journalEnd: placeSchema,
  grooveStart: placeSchema.optional(),
  grooveEnd: placeSchema.optional(),
  lip: placeSchema,
  dustLip: placeSchema.optional(),
  /** How deep the bore lets it go. */
  deepest: placeSchema,
});
export type MeasuredSeat = z.output<typeof seatSchema>;

const touchedSchema = z.object({
  /** Hub off: from its seal face to the face of the inner bearing. */
  faceToBearing: placeSchema,
  /** On the spindle, from the shoulder of the inner bearing, inboard. */
  journalFrom: placeSchema,
  journalTo: placeSchema,
  grooveFrom: placeSchema.optional(),
  grooveTo: placeSchema.optional(),
});
/** What of a seal's seat can be touched while the hub is off. */
export type TouchedPlaces = z.output<typeof touchedSchema>;

/** What is recorded when a step is done, by its kind. */
export const stepDataSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('instruct'), note }),
  z.object({
    kind: z.literal('torque'),
    torque: torqueSchema,
    tool: name,
    /** The tool as the shop's list had it that day; left out for one that is not on the list. */
    listed: toolSchema.optional(),
    /** Adapter and multiplier between wrench and nut. */
    via: torqueViaSchema.optional(),
    /** What the maker's sheet asks for, where the shop's has no figure. */
    asked: torqueSchema.optional(),
    /** Rounds in one record; since each round is a step of its own, always 1. */
    rounds: z.int().min(1).max(6).default(1),
    note,
  }),
  z.object({ kind: z.literal('rotate'), note }),
  z.object({
    kind: z.literal('turn'),
    /** As it was turned, positive tightens. */
    turns: z.number().min(-5).max(5),
    /** As it was planned; left out in jobs of the first build, which recorded the plan as made. */
    planned: z.number().min(-5).max(5).optional(),
    note,
  }),
  z.object({ kind: z.literal('inspect'), ok: z.boolean(), note }),
  z.object({
    kind: z.literal('joint'),
    felt: z.enum(['nothing', 'twelve-six', 'three-nine', 'both']),
    /** Base on the axle, tip on the knuckle: the kingpin alone. */
    axleToKnuckle: readingSchema.optional(),
    /** Base on the knuckle, tip on the hub: the bearing alone. */
    knuckleToHub: readingSchema.optional(),
    /** What the maker allows at the kingpin. */
    kingpinLimit: readingSchema.optional(),
    /** What the sheet allows at the bearing; only where the tip stood square on the hub. */
    bearingLimit: readingSchema.optional(),
    /** Where the tip stood, and how far from the middle of the axle; left out in earlier jobs, which meant the hub. */
    tipAt: z.enum(Object.keys(tipPlaces) as [TipPlace, ...TipPlace[]]).optional(),
    radius: placeSchema.optional(),
    note,
  }),
  z.object({
    kind: z.literal('ready'),
    lines: z
      .array(
        z.object({
          what: z.string().trim().min(1).max(120),
          state: z.enum(['have', 'missing', 'ordered', 'owner']),
          by: z.iso.date().optional(),
        }),
      )
      .max(60),
    note,
  }),
  z.object({
    kind: z.literal('judge'),
    /** The unit has run far and cannot stand still: a doubtful bearing is replaced. */
    hardWorked: z.boolean(),
    findings: z
      .array(z.object({ component: name, seen: name, disposition: dispositionSchema, note }))
      .max(40),
    note,
  }),
  z.object({
    kind: z.literal('linings'),
    brake: z.enum(brakeKinds),
    inner: readingSchema.optional(),
    outer: readingSchema.optional(),
    /** Slides or shoes free, adjuster set, pedal pumped firm. */
    set: z.boolean(),
    note,
  }),
  z.object({
    kind: z.literal('wear'),
    /** Diameters of the drum, or thicknesses of the rotor, at several places. */
    measured: z.array(dimensionSchema).min(1).max(12),
    /** The figure cast into it. */
    discard: dimensionSchema,
    runout: readingSchema.optional(),
    runoutLimit: readingSchema.optional(),
    note,
  }),
  z.object({
    kind: z.literal('stroke'),
    /** From the face of the chamber to the clevis pin, brake released, and applied at 90 to 100 psi. */
    released: dimensionSchema,
    applied: dimensionSchema,
    chamber: z.literal(chambers).optional(),
    stroke: z.enum(chamberStrokes).optional(),
    /** Marked on a chamber that is not listed. */
    marked: dimensionSchema.optional(),
    note,
  }),
  z.object({
    kind: z.literal('heat'),
    here: temperatureSchema,
    other: temperatureSchema,
    /** Of the air; left out in jobs of the first build. */
    air: temperatureSchema.optional(),
    note,
  }),
  z.object({ kind: z.literal('choose'), option: name, note }),
  z.object({
    kind: z.literal('measure'),
    by: z.enum(['dial', 'feel', 'drag']),
    /** Dial or pull scale as the shop's list had it that day. */
    listed: toolSchema.optional(),
    /** Pull at the stud or, for a swivel, at the steering arm, with `drag`. */
    pull: forceSchema.optional(),
    /** What the maker's sheet asks for, where the shop's has no figure. */
    asked: z.object({ least: forceSchema, most: forceSchema }).optional(),
    note,
  }),
  z.object({ kind: z.literal('lock'), method: name, checkedBy: name.optional(), note }),
  z.object({
    kind: z.literal('fill'),
    lubricant: name,
    amount: amountSchema.optional(),
    joint: z.enum(['gasket', 'sealant', 'none']).optional(),
    note,
  }),
  z.object({ kind: z.literal('found'), signs: z.array(name).max(20), note }),
  z.object({
    kind: z.literal('compare'),
    /** Each new part beside its old one; what differs, empty where nothing does. */
    parts: z.array(z.object({ part: name, differs: z.array(z.enum(comparedKeys)).max(6) })).max(40),
    note,
  }),
  z.object({
    kind: z.literal('seal'),
    outside: z.enum(['dry', 'oiled']),
    /** Driven to its own stop, or to a measured depth below the hub face. */
    depth: placeSchema.optional(),
    /** The journal as it was measured from the hub face, inward positive, and the seal's lips from its face. */
    seat: seatSchema.optional(),
    /** What was measured, from which the seat was reckoned; left out in earlier jobs. */
    touched: touchedSchema.optional(),
    note,
  }),
  z.object({
    kind: z.literal('pack'),
    lubricant: name,
    by: z.enum(['hand', 'packer', 'oiled']),
    amount: amountSchema.optional(),
    note,
  }),
  z.object({
    kind: z.literal('dimension'),
    value: sizeSchema,
    /** What the maker's sheet or the part itself asks for, where the shop's sheet has no figure. */
    asked: z.object({ least: sizeSchema, most: sizeSchema }).optional(),
    note,
  }),
  z.object({
    kind: z.literal('cure'),
    /** Hours the sealant's own sheet asks for, since the cover was tightened. */
    hours: z.number().positive().max(72),
    /** Of the air while it cured: cold air takes longer. Left out in earlier jobs. */
    air: temperatureSchema.optional(),
    note,
  }),
  z
    .object({
      kind: z.literal('rolling'),
      /** New bearings turn heavier than run-in ones: each has a figure of its own. */
      bearings: z.enum(['new', 'run-in']),
      /** As a gauge read it; or, by a cord round the hub, the pull while it turns and the cord's radius. */
      torque: torqueSchema.optional(),
      pull: forceSchema.optional(),
      radius: dimensionSchema.optional(),
      /** What the seal drags by itself, taken off. */
      sealDrag: torqueSchema.optional(),
      listed: toolSchema.optional(),
      /** What the maker's sheet asks for, where the shop's has no figure. */
      asked: z.object({ least: torqueSchema, most: torqueSchema }).optional(),
      note,
    })
    .refine((d) => d.torque !== undefined || (d.pull !== undefined && d.radius !== undefined), {
      message: 'needs the torque, or a pull and its radius',
      path: ['torque'],
    }),
  z.object({
    kind: z.literal('sensor'),
    /** Pushed up until it stops, set to a gap, or fixed by its maker. */
    set: z.enum(['to-stop', 'gap', 'fixed']),
    gap: sizeSchema.optional(),
    /** Of the tone ring, over a whole turn. */
    runout: readingSchema.optional(),
    /** Of a passive sensor, alternating, while the wheel is turned by hand; of the other side as well. */
    here: voltageSchema.optional(),
    other: voltageSchema.optional(),
    note,
  }),
  z.object({
    kind: z.literal('shims'),
    /** The stack that is in, and the end play over zero that it leaves. */
    current: dimensionSchema,
    play: readingSchema,
    /** Whether a thicker stack loosens the bearings or draws them together. */
    thicker: z.enum(['looser', 'tighter']),
    /** What the maker asks for, as the preload in length. */
    preload: z.object({ least: sizeSchema, most: sizeSchema }),
    /** The stack that goes in. */
    chosen: dimensionSchema,
    note,
  }),
]);
export type StepData = z.output<typeof stepDataSchema>;
