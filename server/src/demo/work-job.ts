import { adviseSetting, pitchOf } from '@lanternwright/core/nut';
import { bandInMm, type Step, type StepData } from '@lanternwright/core/procedure';
import { wheelTorqueKey } from '@lanternwright/core/route';
import { quantity, type Quantity } from '@lanternwright/core/quantity';
import {
  againstRelease,
  append,
  AS_FOUND,
  currentRound,
  decide,
  fold,
  inSpiteOfPlay,
  mayStayLoose,
  readingRound,
  stepAtHand,
  waitsFor,
  wheelEndAt,
  type Actor,
  type Command,
  type JobOpened,
  type StoredEvent,
  type WheelEnd,
  describeRefusal,
} from '@lanternwright/core/traveller';
import {
  answerStep,
  freshSettingMm,
  measuredBy,
  truePlayMm,
  type HubTruth,
  type Technician,
} from '@lanternwright/core/rig';
import { pictureAt, type Picture } from './pictures.ts';
import { uuidOf, type Random } from './random.ts';
import type { ToolCrib } from './tool-crib.ts';

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
  /** Records a tang as bent that never was: the nut will walk. */
  forgetsLock: boolean;
  /** Stores the pictures that are taken of the first wheel end; without it none are. */
  storePicture?: ((id: string, picture: Picture) => void) | undefined;
  /** Brings the unit to the retorque afterwards, and to what else was to be looked after. */
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
    const now = new Date(at).toISOString();
    const decision = decide(job, command, { by, today: now.slice(0, 10), now });
    if (!decision.ok)
      throw new Error(`demo: ${command.kind} refused: ${describeRefusal(decision.refusal, job)}`);
    job = append(job, {
      id: random.uuid(),
      jobId: plan.id,
      version: job.version + 1,
      at: new Date(at).toISOString(),
      by,
      body: decision.event,
    });
  };

  const mechanics = job.wheelEnds.map(({ position }, i) => {
    const by = plan.technicians[i % plan.technicians.length]!;
    const ofThis = () => wheelEndAt(job, position)!;
    return { ofThis, mechanic: new Mechanic(random, plan, position, by, send, ofThis) };
  });
  // A side that waits for the other goes on when that has caught up.
  for (let turn = 0; turn < MOST_TURNS; turn++)
    for (const { ofThis, mechanic } of mechanics) {
      if (ofThis().release) continue;
      let waits = false;
      for (let guard = 0; guard < 400; guard++) {
        const w = ofThis();
        const step = stepAtHand(w);
        const isStop =
          step &&
          plan.stopAt?.stage === step.stage &&
          (!plan.stopAt.stepId || plan.stopAt.stepId === step.id);
        if (!step && mechanic.goesDeeper(w)) continue;
        if (!step || isStop) break;
        waits = waitsFor(job, w, step) !== null;
        if (waits) break;
        mechanic.work(w, step);
      }
      if (!plan.stopAt && !waits) mechanic.release(ofThis());
    }
  if (plan.retorque) {
    at += random.between(1, 4) * 86_400_000;
    for (const w of job.wheelEnds) {
      if (!w.release?.followUp) continue;
      const torque = w.sheet[wheelTorqueKey(w.plan.stack)]?.min ?? quantity(60, 'lbf-ft');
      const km = quantity(Math.round(plan.km + random.between(70, 150)), 'km');
      send(
        {
          kind: 'retorque-recorded',
          position: w.position,
          torque,
          tool: 'TW-05',
          ...(plan.opening.meter.distance ? { distance: km } : {}),
        },
        plan.technicians[0]!,
        4,
      );
    }
    for (const w of job.wheelEnds)
      for (const { kind } of w.release?.alsoDue ?? []) {
        // What was left out of its band is looked after by measuring it in another job.
        if (kind === 'temporary' && inSpiteOfPlay(w)) continue;
        const { position } = w;
        const note = 'Looked at on the yard: it holds, as it was left.';
        send({ kind: 'follow-up-done', position, followUp: kind, nth: 0, note }, plan.technicians[0]!, 6);
      }
  }
  return [...job.events];
}

/** Turns in which two sides that wait for each other are both done: up to the cover, up to the ground, to the end. */
const MOST_TURNS = 4;

const MINUTES: Partial<Record<Step['kind'], number>> = {
  instruct: 9,
  torque: 4,
  measure: 3,
  lock: 3,
  fill: 6,
};

type Findings = Extract<StepData, { kind: 'judge' }>['findings'];

/** One pair of hands on one wheel end. */
class Mechanic {
  private readonly random: Random;
  private readonly plan: JobPlan;
  private readonly position: string;
  private readonly by: Actor;
  private readonly send: (command: Command, by: Actor, minutes: number) => void;
  /** The wheel end as it stands after everything sent. */
  private readonly look: () => WheelEnd;
  private playMm = 0;
  private rounds = 0;

  constructor(
    random: Random,
    plan: JobPlan,
    position: string,
    by: Actor,
    send: Mechanic['send'],
    look: Mechanic['look'],
  ) {
    this.random = random;
    this.plan = plan;
    this.position = position;
    this.by = by;
    this.send = send;
    this.look = look;
  }

  work(w: WheelEnd, step: Step): void {
    if (step.kind === 'measure' && measuredBy(w, step) === 'dial') return this.measure(w, step);
    const { stage, id: stepId } = step;
    const at = { position: this.position, stage, stepId, round: currentRound(w).number };
    const by = step.kind === 'inspect' && step.otherThan ? this.plan.supervisor : this.by;
    this.send({ kind: 'step-recorded', ...at, data: this.answer(w, step) }, by, MINUTES[step.kind] ?? 2);
    this.photograph(w, step);
  }

  private photograph(w: WheelEnd, { stage, id }: Step): void {
    const { storePicture, opening, id: jobId } = this.plan;
    const picture = this.position === opening.wheelEnds[0]!.position ? pictureAt(id, w) : undefined;
    if (!storePicture || !picture) return;
    const photoId = uuidOf(`${jobId}/${id}`);
    // A step that is done again, since more was found, has its picture.
    if (this.look().photos.some((p) => p.photoId === photoId)) return;
    storePicture(photoId, picture);
    const { sha256, caption, component } = picture;
    const said = { sha256, caption, ...(component ? { component } : {}) };
    this.send({ kind: 'photo-added', position: this.position, stage, photoId, ...said }, this.by, 0);
  }

  private answer(w: WheelEnd, step: Step): StepData {
    const data = answerStep(w, step, this.technician());
    if (data.kind === 'judge') return { ...data, findings: this.findings(data.findings) };
    // A nut that was never locked shows it before it is touched.
    if (step.id === 'lock-as-found' && this.hub().walk > 0)
      return { kind: 'found', signs: ['not-locked', 'nut-loose'] };
    return data;
  }

  private technician(): Technician {
    const { random, plan } = this;
    return {
      pick: (list) => random.pick(list.slice(0, 2)),
      wrench: (nm) => {
        const listed = plan.crib.find('torque-wrench', this.day(), nm);
        return { tool: listed.code, listed };
      },
      liningMm: () => Number(random.between(9, 16).toFixed(1)),
      hubDegC: () => Math.round(random.between(38, 55)),
    };
  }

  private hub(): HubTruth {
    return this.plan.hubs[this.position]!;
  }

  private day(): string {
    return this.plan.start.toISOString().slice(0, 10);
  }

  private findings(findings: Findings): Findings {
    const { doubt, opening } = this.plan;
    if (!doubt || this.position !== opening.wheelEnds[0]!.position) return findings;
    return findings.map((f) =>
      f.component === doubt.component ? { ...doubt, disposition: 'ask' as const } : f,
    );
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
      this.rounds > 1 &&
      mayStayLoose(this.look())
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

  /** A setting that was only looked at and found out is adjusted in the same visit. */
  goesDeeper(w: WheelEnd): boolean {
    if (this.plan.stopAt || !againstRelease(w).some((o) => o.code === 'found-out')) return false;
    const reason = 'End play found out of its band with the wheel off';
    this.send({ kind: 'work-added', position: this.position, work: 'adjust', reason }, this.by, 3);
    return true;
  }

  release(w: WheelEnd): void {
    const overrideReason =
      againstRelease(w).length > 0
        ? 'The next slot is tight; spins freely, no movement felt. Look again at the next visit'
        : undefined;
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
