import { carrySide } from '../../assembly/index.ts';
import type { Act } from '../../route/index.ts';
import { everyAct, putsBack } from '../../route/index.ts';
import { everyStack } from '../../stack/testing/stacks.ts';
import { worksOf, type Work } from '../../stack/index.ts';
import { closuresOf, progressOf, type Command, type StoredEvent } from '../index.ts';
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

const POSITION = '1L';

/** One wheel end, the hands on it, and what was written of what they did. */
export class History {
  t: TestJob;
  readonly metal: Metal;
  readonly said: string[] = [];
  private readonly kind: (typeof kinds)[number];
  /** Records that lie on a tablet without a network. */
  private waiting: Command[] = [];
  released = false;

  constructor(choice: number) {
    this.kind = kinds[choice % kinds.length]!;
    const works = worksOf(this.kind.stack);
    this.metal = new Metal(this.kind.stack);
    this.t = this.jobWith([works[Math.floor(choice / kinds.length) % works.length]!]);
  }

  private jobWith(works: Work[], began?: ReturnType<typeof carrySide>): TestJob {
    const opening = openingOn([POSITION], this.kind.sheetId, works);
    const [w] = opening.wheelEnds;
    const route = { ...w!.route!, stack: [...this.kind.stack] };
    return new TestJob({ ...opening, wheelEnds: [{ ...w!, route, ...(began ? { began } : {}) }] });
  }

  private get w() {
    return this.t.at(POSITION);
  }

  private acts(): Act[] {
    const { plan, sheet } = this.w;
    return [...everyAct(plan.stack, sheet).values()];
  }

  private command(act: Act, doneAt?: string): Command {
    const at = { position: POSITION, stage: act.stage, stepId: act.id, round: this.w.rounds.length };
    return { kind: 'step-recorded', ...at, data: answer(this.w, act), ...(doneAt ? { doneAt } : {}) };
  }

  private write(command: Command, who: string, by?: typeof supervisor): void {
    const why = this.t.try(command, by);
    this.said.push(`${who} ${'stepId' in command ? command.stepId : command.kind}${why ? `: ${why}` : ''}`);
  }

  private readIfMeasured(act: Act): void {
    if (act.kind !== 'measure' || measuredBy(this.w, act) !== 'dial') return;
    const round = act.stage === 'diagnose' ? 0 : this.w.rounds.length;
    const value = {
      push: { value: 0, unit: 'in', si: 0 },
      pull: { value: 0.003, unit: 'in', si: 0.003 * 0.0254 },
    };
    for (let i = 0; i < 3; i++)
      this.t.try({ kind: 'reading-taken', position: POSITION, round, ...value, source: 'typed' } as Command);
  }

  /** Whatever is done next: what hands can do, written or not, and what people say besides. */
  next(choice: number): void {
    const pick = choice % 100;
    const more = Math.floor(choice / 100);
    if (pick < 45) this.follow();
    else if (pick < 70) this.wander(more);
    else if (pick < 76) this.makeAndForget(more);
    else if (pick < 82) this.makeForLater(more);
    else if (pick < 86) this.send();
    else if (pick < 89) this.skip();
    else if (pick < 92) this.wish(more);
    else if (pick < 94) this.addWork(more);
    else if (pick < 97) this.strikeMaking(more);
    else if (pick < 98) this.handOver(more);
    else this.release();
  }

  /** The step at hand, done and written. */
  follow(): boolean {
    const step = this.t.step(POSITION) as Act | null;
    if (!step) return false;
    if (step.layer && !this.metal.do(step.id)) {
      // The metal is not as it was written: hands do what the step asks all the same.
      if (putsBack(step)) this.metal.force(step.id, step.layer);
      this.said.push(`cleared the way for ${step.id}`);
    }
    this.readIfMeasured(step);
    this.write(this.command(step), 'did', step.kind === 'inspect' && step.otherThan ? supervisor : undefined);
    return true;
  }

  /** Any act that hands can do now, written. */
  private wander(more: number): void {
    const acts = this.acts().filter((a) => a.layer);
    const act = acts[more % acts.length]!;
    if (!this.metal.do(act.id)) return;
    this.readIfMeasured(act);
    this.write(
      this.command(act),
      'wandered',
      act.kind === 'inspect' && act.otherThan ? supervisor : undefined,
    );
  }

  private makings(): Act[] {
    return this.acts().filter((a) => a.layer && putsBack(a) && !movesWithoutWord(a));
  }

  private makeAndForget(more: number): void {
    const acts = this.makings();
    const act = acts[more % acts.length]!;
    if (this.metal.do(act.id)) this.said.push(`forgot ${act.id}`);
  }

  private makeForLater(more: number): void {
    const acts = this.makings().filter((a) => a.kind !== 'measure');
    const act = acts[more % acts.length]!;
    if (!this.metal.do(act.id)) return;
    this.waiting.push(this.command(act, this.t.now));
    this.said.push(`did for later ${act.id}`);
  }

  private send(): void {
    for (const command of this.waiting) this.write(command, 'sent late');
    this.waiting = [];
  }

  private skip(): void {
    const step = this.t.step(POSITION) as Act | null;
    if (!step?.layer || putsBack(step)) return;
    const done = this.metal.do(step.id);
    this.said.push(`skipped ${step.id}${done ? '' : ', not done'}`);
    this.t.skip(POSITION);
  }

  private wish(more: number): void {
    const layers = this.kind.stack.map((l) => l.layer);
    const layer = layers[more % layers.length]!;
    if (layer === 'nut') {
      const round = this.w.rounds.length;
      this.write({ kind: 'adjust-reopened', position: POSITION, round, from: 'start' }, 'wished');
    } else this.write({ kind: 'layer-opened', position: POSITION, layer, reason: 'Once more' }, 'wished');
  }

  private addWork(more: number): void {
    const works = worksOf(this.kind.stack);
    const work = works[more % works.length]!;
    this.write({ kind: 'work-added', position: POSITION, work, reason: 'Found on the way' }, 'added');
  }

  /** A making that was written is struck out: the metal stays as it is. */
  private strikeMaking(more: number): void {
    const made = this.t.job.events.filter(isMaking(this.acts()));
    const event = made[more % Math.max(1, made.length)];
    if (!event) return;
    this.write(
      { kind: 'correction', corrects: event.id, reason: 'Struck for the test', replacement: null },
      'struck',
      supervisor,
    );
  }

  /** The job ends out of service, and another begins from what it left. */
  private handOver(more: number): void {
    if (this.released) return;
    const { w } = this;
    const works = worksOf(this.kind.stack);
    const began = carrySide(w.side, closuresOf(w).counts);
    this.waiting = [];
    this.t = this.jobWith([works[more % works.length]!], began);
    this.said.push('handed over');
  }

  release(): string | null {
    const overrideReason = 'What was left out was looked at by the supervisor';
    const why = this.t.try({ kind: 'wheel-end-released', position: POSITION, overrideReason }, supervisor);
    this.released = why === null;
    return why;
  }

  todo(): string[] {
    return progressOf(this.w).flatMap((p) => (p.record ? [] : [p.step.id]));
  }
}

/** Makings that move a layer outward or the nut as they are done: an undoing, which is always written. */
const movesWithoutWord = (act: Act) =>
  act.disturbs === true || act.id === 'adjuster' || act.id === 'brake-freed';

const isMaking = (acts: readonly Act[]) => {
  const makings = new Set(
    acts.filter((a) => a.layer && putsBack(a) && !movesWithoutWord(a)).map((a) => a.id),
  );
  return ({ body }: StoredEvent) => body.kind === 'step-recorded' && makings.has(body.stepId);
};
