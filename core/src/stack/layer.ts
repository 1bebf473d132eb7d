import { z } from 'zod';
import { chambers, chamberStrokes } from '../brake/index.ts';
import { alsoUndoneIds } from './also-undone.ts';
import type { LayerId } from './layer-id.ts';

/** How the bearing nut is held, by the constructions of the sheet. */
export const nutKinds = ['A', 'B', 'C', 'D', 'E', 'H', 'N'] as const;
export type NutKind = (typeof nutKinds)[number];

/** Threads of wheel studs. @source common practice, no source */
export const wheelThreads = [
  ...(['M12 × 1.25', 'M12 × 1.5', 'M14 × 1.5', 'M16 × 1.5', 'M18 × 1.5', 'M20 × 1.5', 'M22 × 1.5'] as const),
  ...(['M24 × 1.5', '1/2-20', '9/16-18', '5/8-18', '3/4-16', '1 1/8-16'] as const),
] as const;
/** Property classes and grades of wheel studs. @source ISO 898-1 and SAE J429, values from memory */
export const studClasses = ['8.8', '10.9', '12.9', 'grade 5', 'grade 8'] as const;

/** Most nuts and bolts that one ring of them has. */
const fasteners = z.int().min(1).max(32);

/** What is undone with the layer besides, and done again with it. */
const also = { alsoUndone: z.array(z.enum(alsoUndoneIds)).max(alsoUndoneIds.length).default([]) };

/** One layer as it is built on this wheel end. */
export const layerSchema = z.discriminatedUnion('layer', [
  z.object({
    layer: z.literal('wheel'),
    ...also,
    kind: z.enum(['single', 'dual', 'sprocket']),
    /** stud-piloted duals have inner nuts of their own. */
    pilot: z.enum(['hub', 'stud']).default('hub'),
    /** Thread and class of the studs, and what the nuts seat on; where they are not said, the steps do not name them. */
    thread: z.enum(wheelThreads).optional(),
    class: z.enum(studClasses).optional(),
    seat: z.enum(['flange', 'ball', 'cone']).optional(),
    /** Tapered nuts that centre the wheel and go first. */
    centringNuts: z.int().min(0).max(12).default(0),
    /** Nuts on the left of the unit have a left-hand thread. */
    leftHand: z.boolean().default(false),
  }),
  z.object({
    layer: z.literal('cap'),
    ...also,
    /** A carrier closes a hub with reduction: cover, planets and sun shaft come out as one layer. */
    kind: z.enum(['oil-cap', 'grease-cap', 'flange', 'hub-lock', 'carrier']),
    /** Cone washers under the flange nuts. */
    cones: z.boolean().default(false),
    fasteners: fasteners.nullable().default(null),
  }),
  z.object({
    layer: z.literal('brake-outer'),
    ...also,
    kind: z.enum(['disc', 'drum']),
    by: z.enum(['air', 'hydraulic']),
    /** Of an air brake; where the sheet does not say, it is asked at the caging. */
    chamber: z.enum(['spring', 'service']).optional(),
    /** Type and stroke of that chamber; where they are not said, they are read at the brake. */
    chamberSize: z.literal(chambers).optional(),
    chamberStroke: z.enum(chamberStrokes).optional(),
    adjuster: z.boolean().default(true),
    adjusting: z.enum(['manual', 'automatic']).optional(),
  }),
  z.object({
    layer: z.literal('nut'),
    ...also,
    kind: z.enum(nutKinds),
    /** A second nut jams the first where the kind does not have one by itself. */
    jammed: z.boolean().default(false),
    /** What sets a preloaded pair. */
    setBy: z.enum(['nut', 'shims']).default('nut'),
  }),
  z.object({
    layer: z.literal('hub'),
    ...also,
    fill: z.enum(['oil', 'grease']),
    studs: z.enum(['pressed', 'swaged']).default('pressed'),
    carries: z.enum(['drum', 'rotor', 'nothing']).default('nothing'),
    toneRing: z.boolean().default(false),
    /** A lip on a journal, or two metal faces on rubber rings. */
    seal: z.enum(['lip', 'face']).default('lip'),
  }),
  z.object({
    layer: z.literal('unit-hub'),
    ...also,
    /** Bolted to the knuckle; slid on to a spindle as one heavy unit; or drum and sealed bearing as one. */
    kind: z.enum(['bolted', 'compact', 'drum']).default('bolted'),
    sensor: z.boolean().default(true),
  }),
  z.object({ layer: z.literal('seal-hub'), ...also }),
  z.object({
    layer: z.literal('brake-inner'),
    ...also,
    kind: z.enum(['shoes', 'electric']),
    by: z.enum(['air', 'hydraulic', 'electric', 'overrun']),
  }),
  z.object({ layer: z.literal('spindle'), ...also, kind: z.enum(['bolted', 'stub']) }),
  z.object({ layer: z.literal('shaft'), ...also, kind: z.enum(['c-clip', 'driven']) }),
  z.object({ layer: z.literal('axle'), ...also }),
  z.object({
    layer: z.literal('knuckle'),
    ...also,
    splitSeal: z.boolean().default(false),
    /** The joint of a shaft that drives through it, where it is bared with the knuckle. */
    joint: z.enum(['none', 'universal', 'constant-velocity']).default('none'),
  }),
]);
export type Layer = z.output<typeof layerSchema>;
export type LayerOf<K extends LayerId> = Extract<Layer, { layer: K }>;
