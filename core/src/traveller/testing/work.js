import { familySheet } from '../../procedure/index.js';
import { quantity } from '../../quantity/index.js';
import { answerStep, measuredBy } from '../../rig/index.js';
import { usualStack } from '../../stack/index.js';
import {
  append,
  currentRound,
  decide,
  fold,
  progressOf,
  readingRound,
  stepAtHand,
  wheelEndAt,
} from '../index.js';
const uuid = (n) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
export const supervisor = { id: uuid(900), name: 'Sup', role: 'supervisor' };
export const technician = { id: uuid(901), name: 'Tech', role: 'technician' };
/** What a test axle of these sheets is like. */
const axleOf = (sheetId) => {
  const role = /drive|g-c-clip/.test(sheetId) ? 'drive' : /trailer|towed/.test(sheetId) ? 'trailer' : 'steer';
  const brake = /^[efhkl]-/.test(sheetId) ? 'disc' : /^j-|farm/.test(sheetId) ? 'none' : 'drum';
  return { role, wheels: role === 'drive' ? 'dual' : 'single', brake };
};
export function openingOn(positions, sheetId = 'a-drive-tang', works = ['seal'], more = {}) {
  const sheet = familySheet(sheetId);
  const axle = axleOf(sheetId);
  const stack = [...usualStack(sheet.procedureId, axle)];
  return {
    kind: 'job-opened',
    unitId: uuid(800),
    title: 'Drive axle seals',
    complaint: 'Seal weep',
    reportedBy: 'driver',
    symptoms: [],
    meter: { distance: quantity(611_240, 'km') },
    wheelEnds: positions.map((position) => ({
      position,
      sheet,
      axle: axle.role,
      route: { rules: 1, stack, works, alreadyOff: [], together: false, ...more },
    })),
  };
}
/** A job being worked on in a test: every record goes through `decide`. */
export class TestJob {
  job;
  constructor(opening = openingOn(['2L', '2R'])) {
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
  /** The moment of the next record: a minute after the one before. */
  get now() {
    return new Date(Date.UTC(2026, 10, 25, 7, this.job.version + 1)).toISOString();
  }
  /** @returns why it was refused, or null */
  try(command, by = technician) {
    const decision = decide(this.job, command, { by, today: '2026-11-25', now: this.now });
    if (!decision.ok) return decision.reason;
    const version = this.job.version + 1;
    const at = this.now;
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
  do(command, by = technician) {
    const refused = this.try(command, by);
    if (refused) throw new Error(`${command.kind}: ${refused}`);
  }
  at(position) {
    return wheelEndAt(this.job, position);
  }
  step(position) {
    return stepAtHand(this.at(position));
  }
  /** Records the step at hand with its usual answer. */
  recordStep(position, data = answer(this.at(position), this.step(position)), by) {
    const step = this.step(position);
    const { stage, id } = step;
    const other = step.kind === 'inspect' && step.otherThan ? supervisor : technician;
    return this.try(
      {
        kind: 'step-recorded',
        position,
        stage,
        stepId: id,
        round: currentRound(this.at(position)).number,
        data,
      },
      by ?? other,
    );
  }
  /** Does a step that is recorded already once more. */
  redo(position, stepId, data) {
    const { step } = progressOf(this.at(position)).find((p) => p.step.id === stepId);
    const round = currentRound(this.at(position)).number;
    return this.try({ kind: 'step-recorded', position, stage: step.stage, stepId, round, data });
  }
  /** Leaves the step at hand out. */
  skip(position, reason = 'for the test') {
    const { stage, id } = this.step(position);
    const round = currentRound(this.at(position)).number;
    return this.try({ kind: 'step-skipped', position, stage, stepId: id, round, reason });
  }
  readings(position, ...inches) {
    const round = readingRound(this.at(position), this.step(position));
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
  workTo(position, stepId) {
    for (let step = this.step(position); step && step.id !== stepId; step = this.step(position)) {
      if (byDial(this.at(position), step)) this.readings(position, 0.003, 0.003, 0.003);
      const refused = this.recordStep(position);
      if (refused) throw new Error(`${step.id}: ${refused}`);
    }
  }
}
/** Every one of these parts sound. */
export function soundParts(parts) {
  const findings = parts.map((component) => ({ component, seen: 'sound', disposition: 'reuse' }));
  return { kind: 'judge', hardWorked: false, findings };
}
/** Whether a step of this wheel end is done with the dial. */
const byDial = (w, step) => step.kind === 'measure' && measuredBy(w, step) === 'dial';
/** What an honest technician records for a step; what cures has cured. */
export function answer(w, step) {
  return step.kind === 'cure' ? { kind: 'cure', hours: 0.001 } : answerStep(w, step);
}
