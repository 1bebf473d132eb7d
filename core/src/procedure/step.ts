import { z } from 'zod';
import type { Mark } from './figure.ts';
import type { Family, TorqueKey } from './sheet.ts';
import { stages, type Stage } from './stages.ts';

/** A stage by its id. */
export const stageSchema = z.enum(stages.map((s) => s.id) as [Stage, ...Stage[]]);

/** What is measured against a figure of its own. */
export const dimensions = {
  'needle-depth': 'Depth below flush, as thick as its seal',
  'shaft-movement': 'End movement of the shaft',
  'track-sag': 'Sag of the track',
  'kingpin-clearance': 'Clearance of the pin in its bushes',
  'kingpin-vertical': 'Vertical play of the stub',
  'face-seal-height': 'Highest less lowest',
  'sleeve-depth': 'Depth of the sleeve',
  'running-clearance': 'Clearance at the pad plate',
} as const;
export type Dimension = keyof typeof dimensions;

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
  /** Earlier records name it; it is not offered any more. */
  former?: true;
}

/** The options that a choice offers now. */
export const offered = (options: readonly Option[]): readonly Option[] => options.filter((o) => !o.former);

/** A typed step of a procedure: data, so that a shop can copy and revise it. */
export type Step = StepBase &
  (
    | { kind: 'instruct' }
    | { kind: 'torque'; figure: TorqueKey; makers?: true }
    | { kind: 'rotate'; turns: number }
    | { kind: 'turn'; turns: number | 'back-off' | 'planned' }
    | {
        kind: 'inspect';
        question: string;
        /** Answered by another person than who recorded this step. */
        otherThan?: string;
      }
    | { kind: 'joint' }
    | { kind: 'ready' }
    | { kind: 'judge' }
    | { kind: 'linings' }
    | { kind: 'wear'; part: 'drum' | 'rotor' }
    | { kind: 'stroke' }
    | { kind: 'heat' }
    | { kind: 'choose'; options: readonly Option[] }
    | { kind: 'measure' }
    | { kind: 'lock'; methods: readonly Option[] }
    | { kind: 'fill'; joint?: true }
    | { kind: 'found'; signs: readonly Option[] }
    | { kind: 'compare' }
    | { kind: 'seal' }
    | { kind: 'pack' }
    | { kind: 'dimension'; what: Dimension }
    | { kind: 'cure' }
    | { kind: 'rolling' }
    | { kind: 'shims' }
    | { kind: 'sensor' }
  );

export type StepKind = Step['kind'];

/** Versions of the steps that every family shares. */
export type SharedVersion = 1 | 2;

/** An ordered, versioned procedure of one family. */
export interface Procedure {
  id: string;
  family: Family;
  version: number;
  title: string;
  /** Steps of this family; those around them are the same for all. */
  steps: readonly Step[];
  /** Which version of the shared steps stands around them; the first where it is not said. */
  shared?: SharedVersion;
  /** Steps that every family shares and this one omits, by id. */
  omits?: readonly string[];
  /** Tools to have at hand besides stands, dolly and the usual spanners. */
  tools: readonly string[];
  /** Parts that are not used twice. */
  singleUse: readonly string[];
  /** Adjust steps for a small change of the setting, without starting the procedure again. */
  readjust: readonly Step[];
}
