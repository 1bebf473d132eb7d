import { z } from 'zod';
import { brakeKinds } from '../brake/index.ts';
import { dispositionSchema } from '../inspection/index.ts';
import { forceSchema, readingSchema, temperatureSchema, torqueSchema } from '../quantity/index.ts';
import type { Mark } from './figure.ts';
import type { Family, TorqueKey } from './sheet.ts';

/** The order of work: rows of the traveller. */
export const stages = [
  { id: 'intake', title: 'Intake' },
  { id: 'diagnose', title: 'Diagnose' },
  { id: 'ready', title: 'Ready' },
  { id: 'tear-down', title: 'Tear down' },
  { id: 'inspect', title: 'Inspect' },
  { id: 'clean-and-seat', title: 'Clean and seat' },
  { id: 'assemble', title: 'Assemble' },
  { id: 'adjust', title: 'Adjust' },
  { id: 'verify', title: 'Verify' },
  { id: 'lock-and-fill', title: 'Lock and fill' },
  { id: 'wheel-on', title: 'Wheel on' },
  { id: 'release', title: 'Release' },
] as const;

export type Stage = (typeof stages)[number]['id'];
export const stageSchema = z.enum(stages.map((s) => s.id) as [Stage, ...Stage[]]);

/** Place of a stage in the order of work, from 0. */
export function stageOrder(stage: Stage): number {
  return stages.findIndex((s) => s.id === stage);
}

interface StepBase {
  id: string;
  stage: Stage;
  title: string;
  /** What to do, as a person in a workshop would say it. */
  text: string;
  mark: Mark;
  source: string;
  caution?: string;
  /** May be skipped, with a reason, without standing against the release. */
  optional?: true;
  /** Only where an earlier choice was this one. */
  when?: { step: string; option: string };
}

export interface Option {
  id: string;
  label: string;
}

/** A typed step of a procedure: data, so that a shop can copy and revise it. */
export type Step = StepBase &
  (
    | { kind: 'instruct' }
    | { kind: 'torque'; figure: TorqueKey; makers?: true }
    | { kind: 'rotate'; turns: number }
    | { kind: 'turn'; turns: number | 'back-off' | 'planned' }
    | { kind: 'inspect'; question: string }
    | { kind: 'joint' }
    | { kind: 'ready' }
    | { kind: 'judge' }
    | { kind: 'linings' }
    | { kind: 'heat' }
    | { kind: 'choose'; options: readonly Option[] }
    | { kind: 'measure' }
    | { kind: 'lock'; methods: readonly Option[] }
    | { kind: 'fill' }
  );

export type StepKind = Step['kind'];

/** An ordered, versioned procedure of one family. */
export interface Procedure {
  id: string;
  family: Family;
  version: number;
  title: string;
  /** Steps of this family; those around them are the same for all. */
  steps: readonly Step[];
  /** Steps that every family shares and this one does without, by id. */
  without?: readonly string[];
  /** Tools to have at hand besides stands, dolly and the usual spanners. */
  tools: readonly string[];
  /** Parts that are not used twice. */
  singleUse: readonly string[];
  /** Adjust steps for a small change of the setting, without starting the procedure again. */
  readjust: readonly Step[];
}

const note = z.string().trim().max(500).optional();
const name = z.string().trim().min(1).max(80);

/** What is recorded when a step is done, by its kind. */
export const stepDataSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('instruct'), note }),
  z.object({
    kind: z.literal('torque'),
    torque: torqueSchema,
    tool: name,
    /** What the maker's sheet asks for, where the shop's has no figure. */
    asked: torqueSchema.optional(),
    /** Rounds in one record; since each round is a step of its own, always 1. */
    rounds: z.int().min(1).max(6).default(1),
    note,
  }),
  z.object({ kind: z.literal('rotate'), note }),
  z.object({ kind: z.literal('turn'), turns: z.number().min(-5).max(5), note }),
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
    /** What the sheet allows at the bearing. */
    bearingLimit: readingSchema.optional(),
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
  z.object({ kind: z.literal('heat'), here: temperatureSchema, other: temperatureSchema, note }),
  z.object({ kind: z.literal('choose'), option: name, note }),
  z.object({
    kind: z.literal('measure'),
    by: z.enum(['dial', 'feel', 'drag']),
    /** Pull at the stud, with `drag`. */
    pull: forceSchema.optional(),
    note,
  }),
  z.object({ kind: z.literal('lock'), method: name, checkedBy: name.optional(), note }),
  z.object({ kind: z.literal('fill'), lubricant: name, note }),
]);
export type StepData = z.output<typeof stepDataSchema>;
