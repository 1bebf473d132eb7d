import { adviseSetting, pitchOf } from '@lanternwright/core/nut';
import { soundFindings } from '@lanternwright/core/inspection';
import {
  allAtHand,
  bandInMm,
  hubFill,
  type Sheet,
  type Step,
  type StepData,
} from '@lanternwright/core/procedure';
import { quantity, type Quantity } from '@lanternwright/core/quantity';
import {
  againstRelease,
  append,
  AS_FOUND,
  currentRound,
  decide,
  fold,
  partsToCompare,
  readingRound,
  stepAtHand,
  wheelEndAt,
  type Actor,
  type Command,
  type JobOpened,
  type StoredEvent,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import type { Random } from './random.ts';
import type { ToolCrib } from './tool-crib.ts';
import { freshSettingMm, truePlayMm, type HubTruth } from './wheel-behaviour.ts';

export interface JobPlan {
  id: string;
  opening: JobOpened;
  start: Date;
  km: number;
  hubs: Record<string, HubTruth>;
  technicians: readonly Actor[];
  supervisor: Actor;
  crib: ToolCrib;
  /** Works until this step is at hand and leaves it there; without it the job is finished. */
  stopAt?: { stage: string; stepId?: string };
  /** A finding that could go either way, on the first wheel end. */
  doubt?: { component: string; seen: string; note: string };
  /** Leaves the lock out and releases with a reason: the nut will walk. */
  forgetsLock: boolean;
  /** Brings the unit to the retorque afterwards. */
  retorque: boolean;
}

/**
 * Works a job as a shop would, by asking the same `decide` as a person at the screen. What it
 * records is therefore valid by construction, and its readings come from the hub's true state.
 */
export function workJob(random: Random, plan: JobPlan): StoredEvent[] {
  let at = plan.start.getTime();
  const opened: StoredEvent = {
    id: random.uuid(),
    jobId: plan.id,
    version: 1,
    at: plan.start.toISOString(),
    by: plan.supervisor,
    body: plan.opening,
  };
  let job = fold([opened]);

  const send = (command: Command, by: Actor, minutes: number) => {
    at += Math.round(minutes * 60_000);
    const decision = decide(job, command, { by, today: new Date(at).toISOString().slice(0, 10) });
    if (!decision.ok) throw new Error(`demo: ${command.kind} refused: ${decision.reason}`);
    job = append(job, {
      id: random.uuid(),
      jobId: plan.id,
      version: job.version + 1,
      at: new Date(at).toISOString(),
      by,
      body: decision.event,
    });
  };

  for (const [i, { position }] of job.wheelEnds.entries()) {
    const by = plan.technicians[i % plan.technicians.length]!;
    const hand = new Hand(random, plan, position, by, send);
    for (let guard = 0; guard < 200; guard++) {
      const w = wheelEndAt(job, position)!;
      const step = stepAtHand(w);
      const isStop =
        step && plan.stopAt?.stage === step.stage && (!plan.stopAt.stepId || plan.stopAt.stepId === step.id);
      if (!step || isStop) break;
      hand.work(w, step);
    }
    if (!plan.stopAt) hand.release(wheelEndAt(job, position)!);
  }
  if (plan.retorque) {
    at += random.between(1, 4) * 86_400_000;
    for (const w of job.wheelEnds) {
      const figure = w.sheet.wheelTorque!;
      const km = quantity(Math.round(plan.km + random.between(70, 150)), 'km');
      send(
        {
          kind: 'retorque-recorded',
          position: w.position,
          torque: figure.max,
          tool: 'TW-05',
          ...(plan.opening.meter.distance ? { distance: km } : {}),
        },
        plan.technicians[0]!,
        4,
      );
    }
  }
  return [...job.events];
}

const MINUTES: Partial<Record<Step['kind'], number>> = {
  instruct: 9,
  torque: 4,
  measure: 3,
  lock: 3,
  fill: 6,
};

/** What the made-up maker's sheets ask for where the shop's has no figure. */
const makersFigure = { min: quantity(60, 'lbf-ft'), max: quantity(60, 'lbf-ft') };

function pack({ lubricant, hub }: Sheet): StepData {
  const amount = hubFill({ lubricant, hub });
  const by = lubricant.kind === 'oil' ? 'oiled' : 'hand';
  return { kind: 'pack', lubricant: lubricant.name, by, ...(amount && by === 'hand' ? { amount } : {}) };
}

/** One pair of hands on one wheel end. */
class Hand {
  private readonly random: Random;
  private readonly plan: JobPlan;
  private readonly position: string;
  private readonly by: Actor;
  private readonly send: (command: Command, by: Actor, minutes: number) => void;
  private playMm = 0;
  private rounds = 0;

  constructor(random: Random, plan: JobPlan, position: string, by: Actor, send: Hand['send']) {
    this.random = random;
    this.plan = plan;
    this.position = position;
    this.by = by;
    this.send = send;
  }

  work(w: WheelEnd, step: Step): void {
    if (step.kind === 'measure' && w.sheet.band) return this.measure(w, step);
    const { stage, id: stepId } = step;
    const at = { position: this.position, stage, stepId, round: currentRound(w).number };
    if (step.kind === 'lock' && this.plan.forgetsLock) {
      return this.send({ kind: 'step-skipped', ...at, reason: 'No new washer on the shelf' }, this.by, 2);
    }
    this.send({ kind: 'step-recorded', ...at, data: this.answer(w, step) }, this.by, MINUTES[step.kind] ?? 2);
  }

  private answer(w: WheelEnd, step: Step): StepData {
    switch (step.kind) {
      case 'torque': {
        const { min, max } = w.sheet[step.figure] ?? makersFigure;
        const value = min.value === max.value ? max.value : Math.round((min.value + max.value) / 2);
        const torque = quantity(value, max.unit);
        const listed = this.plan.crib.find('torque-wrench', this.day(), torque.si);
        return {
          kind: 'torque',
          torque,
          tool: listed.code,
          listed,
          ...(w.sheet[step.figure] ? {} : { asked: makersFigure.max }),
          rounds: 1,
        };
      }
      case 'turn':
        return {
          kind: 'turn',
          turns:
            step.turns === 'planned'
              ? currentRound(w).turns!
              : step.turns === 'back-off'
                ? w.sheet.backOff!.turns
                : step.turns,
        };
      case 'inspect':
        return { kind: 'inspect', ok: true };
      case 'joint':
        return { kind: 'joint', felt: 'nothing' };
      case 'ready':
        return { kind: 'ready', lines: allAtHand(w.procedure, w.sheet) };
      case 'judge':
        return { kind: 'judge', hardWorked: false, findings: this.findings() };
      case 'linings':
        return this.linings();
      case 'heat': {
        const warm = () => quantity(Math.round(this.random.between(38, 62)), 'degC');
        return { kind: 'heat', here: warm(), other: warm() };
      }
      case 'choose':
        return { kind: 'choose', option: this.random.pick(step.options.slice(0, 2)).id };
      case 'lock':
        return {
          kind: 'lock',
          method: this.random.pick(step.methods.slice(0, 2)).id,
          checkedBy: this.plan.supervisor.name,
        };
      case 'fill':
        return {
          kind: 'fill',
          lubricant: w.sheet.lubricant.name,
          ...(step.joint ? { joint: 'gasket' as const } : {}),
        };
      case 'found':
        return { kind: 'found', signs: this.lookedWrong() };
      case 'compare':
        return { kind: 'compare', parts: partsToCompare(w).map((part) => ({ part, differs: [] })) };
      case 'seal':
        return { kind: 'seal', outside: 'dry' };
      case 'pack':
        return pack(w.sheet);
      case 'measure':
        return { kind: 'measure', by: w.sheet.verifyBy === 'drag' ? 'drag' : 'feel' };
      case 'instruct':
      case 'rotate':
        return { kind: step.kind };
    }
  }

  private day(): string {
    return this.plan.start.toISOString().slice(0, 10);
  }

  private findings(): Extract<StepData, { kind: 'judge' }>['findings'] {
    const { doubt, opening } = this.plan;
    if (!doubt || this.position !== opening.wheelEnds[0]!.position) return soundFindings;
    return soundFindings.map((f) =>
      f.component === doubt.component ? { ...doubt, disposition: 'ask' as const } : f,
    );
  }

  /** A nut that was never locked shows it when the hub comes off. */
  private lookedWrong(): string[] {
    return this.plan.hubs[this.position]!.walk > 0 ? ['nut-loose', 'not-locked'] : [];
  }

  /** Linings somewhere between new and half worn. */
  private linings(): StepData {
    const thickness = () => quantity(Number(this.random.between(9, 16).toFixed(1)), 'mm');
    return { kind: 'linings', brake: 'air-drum', inner: thickness(), outer: thickness(), set: true };
  }

  /** Reads three cycles of whatever the hub's play is now; out of band it goes back to Adjust. */
  private measure(w: WheelEnd, step: Step): void {
    const hub = this.plan.hubs[this.position]!;
    const round = readingRound(w, step);
    const asFound = round === AS_FOUND;
    if (asFound) this.playMm = truePlayMm(hub, this.plan.km);
    else this.playMm = this.newSetting(w);
    const listed = this.plan.crib.find('dial-indicator', this.day());
    for (let i = 0; i < 3; i++) {
      const [push, pull] = this.cycle(w);
      this.send(
        {
          kind: 'reading-taken',
          position: this.position,
          round,
          push,
          pull,
          source: 'gauge',
          gauge: listed.code,
        },
        this.by,
        1,
      );
    }
    if (asFound || this.isWellInside(w)) {
      if (!asFound)
        Object.assign(hub, {
          setMm: this.playMm,
          setKm: this.plan.km,
          walk: this.plan.forgetsLock ? 0.004 : 0,
        });
      const at = {
        position: this.position,
        stage: step.stage,
        stepId: step.id,
        round: currentRound(w).number,
      };
      this.send({ kind: 'step-recorded', ...at, data: { kind: 'measure', by: 'dial', listed } }, this.by, 1);
      return;
    }
    const { band, thread, lock } = w.sheet;
    if (
      lock?.kind === 'castellated' &&
      lock.holeAxesDeg.length === 1 &&
      this.rounds > 2 &&
      this.random.next() < 0.5
    ) {
      const at = {
        position: this.position,
        stage: step.stage,
        stepId: step.id,
        round: currentRound(w).number,
      };
      return this.send(
        { kind: 'step-skipped', ...at, reason: 'One hole, coarse slots: no slot gives the band' },
        this.by,
        2,
      );
    }
    const { go } = adviseSetting(this.playMm, bandInMm(band!), thread!, lock!);
    const plan = go
      ? ({ from: 'setting', turns: go.turns, predictedMm: go.predictedMm } as const)
      : ({ from: 'start' } as const);
    this.send({ kind: 'adjust-reopened', position: this.position, round, ...plan }, this.by, 2);
  }

  private newSetting(w: WheelEnd): number {
    const round = currentRound(w);
    this.rounds += 1;
    if (round.predictedMm !== null) return round.predictedMm + this.random.normal(0, 0.003);
    const { lock, thread } = w.sheet;
    if (lock?.kind === 'castellated' && lock.holeAxesDeg.length === 1)
      return this.random.between(0.01, pitchOf(thread!) / lock.slots);
    return this.rounds > 3 ? 0.08 : freshSettingMm(this.random);
  }

  /** Inside the band by more than the scatter of the cycles, so that the mean is inside as well. */
  private isWellInside(w: WheelEnd): boolean {
    const band = bandInMm(w.sheet.band!);
    const margin = 0.006;
    return this.playMm > band.minMm + margin && this.playMm < band.maxMm - margin;
  }

  private cycle(w: WheelEnd): [Quantity, Quantity] {
    const unit = w.sheet.band!.max.unit === 'mm' ? 'mm' : 'in';
    const digits = unit === 'mm' ? 3 : 4;
    const per = unit === 'mm' ? 1 : 25.4;
    const rest = this.random.between(-0.02, 0.02);
    const play = Math.max(0, this.playMm + this.random.normal(0, 0.0015));
    const round = (v: number) => Number((v / per).toFixed(digits));
    return [quantity(round(rest), unit), quantity(round(rest + play), unit)];
  }

  release(w: WheelEnd): void {
    const against = againstRelease(w);
    const reason = this.plan.forgetsLock
      ? 'Needed for the morning run, washer comes with the next delivery'
      : 'Spins freely, no movement felt. Look again at the next visit';
    const overrideReason = against.length > 0 ? reason : undefined;
    this.send(
      {
        kind: 'wheel-end-released',
        position: this.position,
        ...(overrideReason ? { overrideReason } : {}),
      },
      this.plan.supervisor,
      12,
    );
  }
}
