import { soundFindings } from '../../inspection/index.ts';
import {
  familySheet,
  findProcedure,
  allAtHand,
  type Sheet,
  type Step,
  type StepData,
} from '../../procedure/index.ts';
import { quantity, type Quantity } from '../../quantity/index.ts';
import {
  append,
  currentRound,
  decide,
  fold,
  partsToCompare,
  readingRound,
  stepAtHand,
  wheelEndAt,
  type Actor,
  type Command,
  type Job,
  type JobOpened,
  type WheelEnd,
} from '../index.ts';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

export const supervisor: Actor = { id: uuid(900), name: 'Sup', role: 'supervisor' };
export const technician: Actor = { id: uuid(901), name: 'Tech', role: 'technician' };

export function openingOn(
  positions: readonly string[],
  sheetId = 'a-drive-tang',
  meter: JobOpened['meter'] = { distance: quantity(611_240, 'km') },
): JobOpened {
  const sheet: Sheet = familySheet(sheetId)!;
  const procedureVersion = findProcedure(sheet.procedureId!)!.version;
  return {
    kind: 'job-opened',
    unitId: uuid(800),
    title: 'Drive axle seals',
    complaint: 'Seal weep',
    reportedBy: 'driver',
    symptoms: [],
    meter,
    wheelEnds: positions.map((position) => ({ position, sheet, procedureVersion, axle: 'steer' as const })),
  };
}

/** A job being worked on in a test: every record goes through `decide`. */
export class TestJob {
  job: Job;

  constructor(opening: JobOpened = openingOn(['2L', '2R'])) {
    this.job = fold([
      {
        id: uuid(1),
        jobId: uuid(700),
        version: 1,
        at: '2026-11-25T07:00:00.000Z',
        by: technician,
        body: opening,
      },
    ]);
  }

  /** @returns why it was refused, or null */
  try(command: Command, by: Actor = technician): string | null {
    const decision = decide(this.job, command, { by, today: '2026-11-25' });
    if (!decision.ok) return decision.reason;
    const version = this.job.version + 1;
    const at = new Date(Date.UTC(2026, 10, 25, 7, version)).toISOString();
    this.job = append(this.job, {
      id: uuid(version),
      jobId: this.job.id,
      version,
      at,
      by,
      body: decision.event,
    });
    return null;
  }

  do(command: Command, by: Actor = technician): void {
    const refused = this.try(command, by);
    if (refused) throw new Error(`${command.kind}: ${refused}`);
  }

  at(position: string): WheelEnd {
    return wheelEndAt(this.job, position)!;
  }

  step(position: string): Step | null {
    return stepAtHand(this.at(position));
  }

  /** Records the step at hand with its usual answer. */
  recordStep(
    position: string,
    data: StepData = answer(this.at(position), this.step(position)!),
  ): string | null {
    const { stage, id } = this.step(position)!;
    return this.try({
      kind: 'step-recorded',
      position,
      stage,
      stepId: id,
      round: currentRound(this.at(position)).number,
      data,
    });
  }

  readings(position: string, ...inches: number[]): void {
    const round = readingRound(this.at(position), this.step(position)!);
    for (const value of inches) {
      this.do({
        kind: 'reading-taken',
        position,
        round,
        push: quantity(0, 'in'),
        pull: quantity(value, 'in'),
        source: 'typed',
      });
    }
  }

  /** Works until a step is at hand; measurements read 0.003 in. Without a step, until nothing is left but the release. */
  workTo(position: string, stepId?: string): void {
    for (let step = this.step(position); step && step.id !== stepId; step = this.step(position)) {
      if (step.kind === 'measure' && this.at(position).sheet.band)
        this.readings(position, 0.003, 0.003, 0.003);
      const refused = this.recordStep(position);
      if (refused) throw new Error(`${step.id}: ${refused}`);
    }
  }
}

/** Every part sound. */
export function soundParts(): Extract<StepData, { kind: 'judge' }> {
  return { kind: 'judge', hardWorked: false, findings: soundFindings };
}

/** A torque to the sheet's figure, or to one read off the maker's sheet. */
function torqued(figure: Quantity | undefined): StepData {
  const asked = quantity(60, 'lbf-ft');
  const base = { kind: 'torque', tool: 'TW-03', rounds: 1 } as const;
  return figure ? { ...base, torque: figure } : { ...base, torque: asked, asked };
}

/** What an honest hand would record for a step. */
export function answer(w: WheelEnd, step: Step): StepData {
  switch (step.kind) {
    case 'torque':
      return torqued(w.sheet[step.figure]?.max);
    case 'turn':
      return {
        kind: 'turn',
        turns:
          typeof step.turns === 'number'
            ? step.turns
            : step.turns === 'back-off'
              ? w.sheet.backOff!.turns
              : (currentRound(w).turns ?? 0),
      };
    case 'inspect':
      return { kind: 'inspect', ok: true };
    case 'joint':
      return { kind: 'joint', felt: 'nothing' };
    case 'ready':
      return { kind: 'ready', lines: allAtHand(w.procedure, w.sheet) };
    case 'judge':
      return soundParts();
    case 'linings':
      return { kind: 'linings', brake: 'none', set: true };
    case 'heat':
      return { kind: 'heat', here: quantity(48, 'degC'), other: quantity(46, 'degC') };
    case 'choose':
      return { kind: 'choose', option: step.options[0]!.id };
    case 'lock':
      return { kind: 'lock', method: step.methods[0]!.id, checkedBy: supervisor.name };
    case 'fill':
      return {
        kind: 'fill',
        lubricant: w.sheet.lubricant.name,
        ...(step.joint ? { joint: 'gasket' as const } : {}),
      };
    case 'found':
      return { kind: 'found', signs: [] };
    case 'compare':
      return { kind: 'compare', parts: partsToCompare(w).map((part) => ({ part, differs: [] })) };
    case 'seal':
      return { kind: 'seal', outside: 'dry' };
    case 'pack': {
      const { name, kind } = w.sheet.lubricant;
      return { kind: 'pack', lubricant: name, by: kind === 'oil' ? 'oiled' : 'hand' };
    }
    case 'measure':
      return { kind: 'measure', by: w.sheet.verifyBy === 'drag' ? 'drag' : w.sheet.band ? 'dial' : 'feel' };
    case 'instruct':
    case 'rotate':
      return { kind: step.kind };
  }
}
