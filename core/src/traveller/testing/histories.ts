import type { StoredSide } from '../../assembly/index.ts';
import type { Act } from '../../route/index.ts';
import { everyAct, putsBack } from '../../route/index.ts';
import { everyStack } from '../../stack/testing/stacks.ts';
import { worksOf } from '../../stack/index.ts';
import {
  layerStates,
  openFindings,
  progressOf,
  whatIsLeft,
  type Command,
  type StoredEvent,
} from '../index.ts';
import { measuredBy } from '../../rig/index.ts';
import { Metal } from './metal.ts';
import { answer, openingOn, supervisor, TestJob } from './work.ts';

/** Wheel ends whose metal the machine knows. */
const kinds = everyStack.filter(({ name }) =>
  [
    'heavy drive',
    'heavy drive, lock ring',
    'heavy trailer',
    'heavy steer',
    'bus front',
    'implement, no brake',
  ].includes(name),
);

const SIDES = ['1L', '1R'] as const;
type Side = (typeof SIDES)[number];

/** An axle, the hands on both of its sides, and what was written of what they did. */
export class History {
  t: TestJob;
  readonly metal: Readonly<Record<Side, Metal>>;
  readonly said: string[] = [];
  private readonly kind: (typeof kinds)[number];
  /** Records that lie on two tablets without a network. */
  private readonly waiting: [Command[], Command[]] = [[], []];
  /** Makings that were written and that nobody did, by event. */
  private wrongRows: { side: Side; eventId: string }[] = [];
  /** The side that the hands are on. */
  side: Side = '1L';

  constructor(choice: number) {
    this.kind = kinds[choice % kinds.length]!;
    this.metal = { '1L': new Metal(this.kind.stack), '1R': new Metal(this.kind.stack) };
    this.t = this.jobWith(Math.floor(choice / kinds.length));
  }

  private jobWith(choice: number, left: Partial<Record<Side, StoredSide | null>> = {}): TestJob {
    const works = worksOf(this.kind.stack);
    const opening = openingOn(SIDES, this.kind.sheetId);
    const wheelEnds = opening.wheelEnds.map((w, i) => {
      const work = works[(choice + i * 7) % works.length]!;
      const began = left[w.position as Side];
      const route = { ...w.route!, stack: [...this.kind.stack], works: [work] };
      return { ...w, route, ...(began ? { began } : {}) };
    });
    return new TestJob({ ...opening, wheelEnds });
  }

  private get w() {
    return this.t.at(this.side);
  }

  private get hands(): Metal {
    return this.metal[this.side];
  }

  isReleased(side: Side): boolean {
    return this.t.at(side).release !== null;
  }

  private acts(): Act[] {
    const { plan, sheet } = this.w;
    return [...everyAct(plan.stack, sheet).values()];
  }

  private command(act: Act, doneAt?: string): Command {
    const at = { position: this.side, stage: act.stage, stepId: act.id, round: this.w.rounds.length };
    return { kind: 'step-recorded', ...at, data: answer(this.w, act), ...(doneAt ? { doneAt } : {}) };
  }

  private write(command: Command, who: string, by?: typeof supervisor): string | null {
    const why = this.t.try(command, by);
    const what = 'stepId' in command ? command.stepId : command.kind;
    const where = 'position' in command ? command.position : this.side;
    this.said.push(`${where} ${who} ${what}${why ? `: ${why}` : ''}`);
    return why;
  }

  private readIfMeasured(act: Act): void {
    if (act.kind !== 'measure' || measuredBy(this.w, act) !== 'dial') return;
    const round = act.stage === 'diagnose' ? 0 : this.w.rounds.length;
    const value = {
      push: { value: 0, unit: 'in', si: 0 },
      pull: { value: 0.003, unit: 'in', si: 0.003 * 0.0254 },
    };
    const command = { kind: 'reading-taken', position: this.side, round, ...value, source: 'typed' };
    for (let i = 0; i < 3; i++) this.t.try(command as Command);
  }

  /** Whatever is done next, on one side: what hands can do, written or not, and what people say besides. */
  next(choice: number): void {
    const pick = choice % 100;
    const more = Math.floor(choice / 100);
    if (more % 5 === 0) this.side = this.side === '1L' ? '1R' : '1L';
    if (this.isReleased(this.side)) return;
    if (pick < 44) this.follow();
    else if (pick < 66) this.wander(more);
    else if (pick < 72) this.makeAndForget(more);
    else if (pick < 78) this.makeForLater(more);
    else if (pick < 82) this.send(more);
    else if (pick < 85) this.skip();
    else if (pick < 88) this.wish(more);
    else if (pick < 90) this.addWork(more);
    else if (pick < 91) this.strikeMaking(more);
    else if (pick < 94) this.writeWrongRow(more);
    else if (pick < 96) this.othersTookOff(more);
    else if (pick < 97) this.handOver(more);
    else this.release();
  }

  /** The step at hand, done and written. @returns whether there was one that could be done */
  follow(): boolean {
    const step = this.t.step(this.side) as Act | null;
    // Both sides are lowered together.
    const other = this.side === '1L' ? '1R' : '1L';
    const isOff = !this.isReleased(other) && layerStates(this.t.at(other)).wheel === 'off';
    if (!step || (step.id === 'down' && isOff)) return false;
    if (step.layer && !this.hands.do(step.id)) {
      // Over what nobody did, the next thing cannot be done either, and is written all the same.
      if (putsBack(step) && this.wrongRows.some((r) => r.side === this.side)) {
        this.readIfMeasured(step);
        return this.writeOnly(step);
      }
      // The metal is not as it was written: hands do what the step asks all the same.
      if (putsBack(step)) this.hands.force(step.id, step.layer);
      this.said.push(`cleared the way for ${step.id}`);
    }
    this.readIfMeasured(step);
    this.write(this.command(step), 'did', this.whoDoes(step));
    // What cannot be got at any more, and may be left out, is left out.
    const counts = this.w.notCounted[this.t.job.events.at(-1)!.id] === undefined;
    if (!counts && step.guard !== 'never') this.t.skip(this.side);
    return true;
  }

  private whoDoes = (act: Act) => (act.kind === 'inspect' && act.otherThan ? supervisor : undefined);

  /** Any act that hands can do now, written. */
  private wander(more: number): void {
    const acts = this.acts().filter((a) => a.layer);
    const act = acts[more % acts.length]!;
    if (!this.hands.do(act.id)) return;
    this.readIfMeasured(act);
    this.write(this.command(act), 'wandered', this.whoDoes(act));
  }

  private makings(): Act[] {
    return this.acts().filter((a) => a.layer && putsBack(a) && !movesWithoutWord(a));
  }

  private makeAndForget(more: number): void {
    const acts = this.makings();
    const act = acts[more % acts.length]!;
    if (this.hands.do(act.id)) this.said.push(`${this.side} forgot ${act.id}`);
  }

  private makeForLater(more: number): void {
    const acts = this.makings().filter((a) => a.kind !== 'measure');
    const act = acts[more % acts.length]!;
    if (!this.hands.do(act.id)) return;
    this.waiting[more % 2]!.push(this.command(act, this.t.now));
    this.said.push(`${this.side} did for later ${act.id}`);
  }

  private send(more: number): void {
    // What is sent within two minutes counts as sent at once.
    const isLate = (c: Command) => 'doneAt' in c && Date.parse(this.t.now) - Date.parse(c.doneAt!) > 180_000;
    const list = this.waiting[more % 2]!;
    const late = list.filter(isLate);
    list.splice(0, list.length, ...list.filter((c) => !isLate(c)));
    for (const command of late) this.write(command, 'sent late');
  }

  private skip(): void {
    const step = this.t.step(this.side) as Act | null;
    if (!step?.layer || putsBack(step)) return;
    const done = this.hands.do(step.id);
    this.said.push(`${this.side} skipped ${step.id}${done ? '' : ', not done'}`);
    this.t.skip(this.side);
  }

  private wish(more: number): void {
    const position = this.side;
    const layers = this.kind.stack.map((l) => l.layer);
    const layer = layers[more % layers.length]!;
    if (layer === 'nut') {
      const round = this.w.rounds.length;
      this.write({ kind: 'adjust-reopened', position, round, from: 'start' }, 'wished');
    } else this.write({ kind: 'layer-opened', position, layer, reason: 'Once more' }, 'wished');
  }

  private addWork(more: number): void {
    const works = worksOf(this.kind.stack);
    const work = works[more % works.length]!;
    this.write({ kind: 'work-added', position: this.side, work, reason: 'Found on the way' }, 'added');
  }

  /** A making that was written is struck out: the metal stays as it is. */
  private strikeMaking(more: number): void {
    const made = this.t.job.events.filter(isMaking(this.acts(), this.side));
    const event = made[more % Math.max(1, made.length)];
    if (event) this.strike(event.id);
  }

  private strike(corrects: string): void {
    const reason = 'Struck for the test';
    this.write({ kind: 'correction', corrects, reason, replacement: null }, 'struck', supervisor);
  }

  /** Some making is written that nobody did: it belongs in another row. */
  private writeWrongRow(more: number): void {
    const acts = this.makings().filter((a) => a.kind !== 'measure');
    this.writeOnly(acts[more % acts.length]!);
  }

  /** The step at hand is written, and nobody did it. @returns whether it is one of those that are done by one's own word */
  slip(): boolean {
    const id = this.t.step(this.side)?.id;
    const act = this.makings().find((a) => a.id === id && a.kind !== 'measure');
    return act !== undefined && this.writeOnly(act);
  }

  private writeOnly(act: Act): boolean {
    const { side } = this;
    const isWritten = this.write(this.command(act), 'wrote in the wrong row', this.whoDoes(act)) === null;
    if (isWritten) this.wrongRows.push({ side, eventId: this.t.job.events.at(-1)!.id });
    return isWritten;
  }

  /** What stood in the wrong row is struck out. @returns whether anything did */
  putRowsRight(): boolean {
    const wrong = this.wrongRows.splice(0);
    for (const { side, eventId } of wrong) {
      this.side = side;
      this.strike(eventId);
    }
    return wrong.length > 0;
  }

  /** Others take a layer off, and somebody says so afterwards. */
  private othersTookOff(more: number): void {
    const offs = this.acts().filter((a) => a.layer && a.id.endsWith('-off') && !putsBack(a));
    const act = offs[more % offs.length]!;
    if (!this.hands.do(act.id)) return;
    const layers = [{ layer: act.layer!, is: 'off' as const }];
    const said = { who: 'A tyre shop', reason: 'The driver says so' };
    this.write({ kind: 'as-it-stands', position: this.side, layers, ...said }, 'found');
  }

  /** The job ends out of service, and another begins from what it left. */
  private handOver(more: number): void {
    // Whatever was written wrong is put right in its own job.
    this.putRowsRight();
    for (const list of this.waiting) list.splice(0);
    const reason = 'Parts are weeks away';
    const ending = { kind: 'ended-out-of-service', reason, leaves: 'stays', told: 'M. Tern' } as const;
    if (this.write(ending, 'handed over', supervisor) !== null) return;
    this.nextJob(more);
  }

  /** Another job begins from what this one left. */
  nextJob(more: number): void {
    const { job } = this.t;
    const left = Object.fromEntries(job.wheelEnds.map((w) => [w.position, whatIsLeft(job, w)]));
    this.t = this.jobWith(more, left);
  }

  release(): string | null {
    const overrideReason = 'What was left out was looked at by the supervisor';
    return this.write({ kind: 'wheel-end-released', position: this.side, overrideReason }, 'was', supervisor);
  }

  todo(): string[] {
    return progressOf(this.w).flatMap((p) => (p.record ? [] : [p.step.id]));
  }

  /** A reason of the job before stands until a supervisor says what became of it. */
  answerFindings(): void {
    for (const { id } of openFindings(this.w)) {
      const how = 'put-right';
      const reason = 'The parts came, and the work was done in this job';
      const command = { kind: 'finding-answered', position: this.side, finding: id, how, reason };
      this.write(command as Command, 'answered', supervisor);
    }
  }
}

/** Makings that move a layer outward or the nut as they are done: an undoing, which is always written. */
const movesWithoutWord = (act: Act) =>
  act.disturbs === true || act.id === 'adjuster' || act.id === 'brake-freed';

const isMaking = (acts: readonly Act[], side: Side) => {
  const makings = new Set(
    acts.filter((a) => a.layer && putsBack(a) && !movesWithoutWord(a)).map((a) => a.id),
  );
  return ({ body }: StoredEvent) =>
    body.kind === 'step-recorded' && body.position === side && makings.has(body.stepId);
};
