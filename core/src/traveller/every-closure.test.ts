import { describe, expect, it } from 'vitest';
import { everyAct, putsBack, type Act } from '../route/index.ts';
import { everyStack } from '../stack/testing/stacks.ts';
import { alsoUndoneIds, reachOf, worksOf, type Stack, type Work } from '../stack/index.ts';
import { againstRelease, layerStates, progressOf, type Command, type JobOpened } from './index.ts';
import { answer, openingOn, supervisor, TestJob, withOtherSide } from './testing/work.ts';

type Built = (typeof everyStack)[number];

/** The works that between them take every layer of a stack off. */
function deepest({ stack }: Built): Work[] {
  const reach = (work: Work) => reachOf(stack, [work]).layers.size;
  const [most] = [...worksOf(stack)].sort((a, b) => reach(b) - reach(a));
  const brakes = worksOf(stack).includes('brakes') ? (['brakes'] as const) : [];
  const bearings = worksOf(stack).includes('bearings') ? (['bearings'] as const) : [];
  return [...new Set([most!, ...brakes, ...bearings])];
}

const withAll = (stack: Stack): Stack =>
  stack.map((layer) => ({ ...layer, alsoUndone: layer.layer === 'cap' ? [...alsoUndoneIds] : [] }));

function openingOf(built: Built): JobOpened {
  const opening = openingOn(['1L'], built.sheetId, deepest(built));
  const [w] = opening.wheelEnds;
  const stack = [...withAll(built.stack)];
  return withOtherSide({ ...opening, wheelEnds: [{ ...w!, route: { ...w!.route!, stack } }] });
}

/** A job on a stack of every kind, done to its last step, copied for each test. */
function finished(built: Built): () => TestJob {
  const done = new TestJob(openingOf(built));
  done.workTo('1L');
  return () => {
    const t = new TestJob(openingOf(built));
    t.job = done.job;
    return t;
  };
}

const todo = (t: TestJob) => progressOf(t.at('1L')).flatMap((p) => (p.record ? [] : [p.step.id]));
const never = (t: TestJob) => againstRelease(t.at('1L')).filter((o) => o.guard === 'never');
const REASON = 'It is wanted back on the road this evening';
const release = (t: TestJob) =>
  t.try({ kind: 'wheel-end-released', position: '1L', overrideReason: REASON }, supervisor);

function strike(t: TestJob, stepId: string): void {
  const event = t.job.events.findLast((e) => e.body.kind === 'step-recorded' && e.body.stepId === stepId)!;
  t.do({ kind: 'correction', corrects: event.id, reason: 'Wrong row', replacement: null }, supervisor);
}

function record(t: TestJob, act: Act): string | null {
  const w = t.at('1L');
  const at = { position: '1L', stage: act.stage, stepId: act.id, round: w.rounds.length };
  const by = act.kind === 'inspect' && act.otherThan ? supervisor : undefined;
  return t.try({ kind: 'step-recorded', ...at, data: answer(w, act) } as Command, by);
}

const actOf = (t: TestJob, id: string): Act => {
  const w = t.at('1L');
  const acts = [...everyAct(w.plan.stack, w.sheet).values()];
  return acts.find((a) => a.id === id)!;
};

describe.each(everyStack.map((built) => [built.name, built] as const))('%s', (_name, built) => {
  const again = finished(built);
  const acts = progressOf(again().at('1L')).map((p) => p.step as Act);

  it('is released once everything is done', () => {
    const t = again();
    expect(never(t)).toEqual([]);
    expect(release(t)).toBeNull();
    expect(layerStates(t.at('1L'))).not.toContain('off');
  });

  it('is released without none of the closures of the never-list, and finished with each again', () => {
    const closures = acts.filter((a) => a.layer && putsBack(a) && a.guard === 'never');
    expect(closures.length).toBeGreaterThan(3);
    for (const act of closures) {
      const t = again();
      strike(t, act.id);
      expect(never(t), act.id).not.toEqual([]);
      expect(release(t), act.id).not.toBeNull();
      t.workTo('1L');
      expect(todo(t), act.id).toEqual([]);
      expect(release(t), act.id).toBeNull();
    }
  });

  it('is not released after anything was taken off, cracked, caged or parted again', () => {
    const takeOffs = acts.filter(
      (a) => a.layer && (a.phase === 'ground' || a.phase === 'off') && a.kind !== 'found' && a.id !== 'rims',
    );
    for (const act of takeOffs) {
      const t = again();
      expect(record(t, act), act.id).toBeNull();
      expect(never(t), act.id).not.toEqual([]);
      expect(release(t), act.id).not.toBeNull();
      t.workTo('1L');
      expect(release(t), act.id).toBeNull();
      const u = again();
      u.do({ kind: 'layer-opened', position: '1L', layer: act.layer!, reason: 'Once more' });
      for (let s = u.step('1L'); s && s.id !== act.id; s = u.step('1L')) u.recordStep('1L');
      expect(u.recordStep('1L'), act.id).toBeNull();
      expect(never(u), act.id).not.toEqual([]);
    }
  });
});

/** What has to be done anew when another thing was: on a stack, by the step that rests and the one it rests on. */
const rests: readonly [stack: string, on: string, what: string][] = [
  ['heavy drive', 'set', 'end-play'],
  ['heavy drive', 'jam-nut', 'end-play'],
  ['heavy drive', 'end-play', 'lock'],
  ['heavy drive', 'lock', 'lock-looked-at'],
  ['heavy drive', 'lock', 'fill'],
  ['heavy drive', 'pack', 'hub-on'],
  ['heavy drive', 'seal', 'hub-on'],
  ['heavy drive', 'cup-home', 'hub-on'],
  ['heavy drive', 'hub-on', 'seat'],
  ['heavy drive', 'fill', 'flange-nuts'],
  ['heavy drive', 'flange-nuts', 'oil-level'],
  ['heavy drive', 'drum-on', 'wheel-drawn'],
  ['heavy drive', 'hose', 'brake-proved'],
  ['heavy drive', 'uncaged', 'brake-proved'],
  ['heavy drive', 'adjuster', 'brake-proved'],
  ['heavy drive', 'wheel-faces', 'wheel-drawn'],
  ['heavy drive', 'wheel-drawn', 'wheel-nuts'],
  ['heavy drive', 'inflated', 'wheel-nuts'],
  ['heavy drive', 'wheel-nuts', 'wheel-nuts-road'],
  ['heavy drive', 'wheel-nuts', 'final-look'],
  ['heavy pre-set', 'bracket-bolts', 'caliper-bolts'],
  ['heavy pre-set', 'caliper-bolts', 'wheel-drawn'],
  ['light-truck front', 'bore-clean', 'unit-hub-on'],
  ['light-truck front', 'unit-hub-on', 'hub-bolts'],
  ['light-truck front', 'hub-bolts', 'hub-bolts-2'],
  ['light-truck front', 'hub-bolts-2', 'axle-nut'],
  ['light-truck front', 'axle-nut', 'lock'],
  ['light-truck front', 'axle-nut', 'end-play'],
  ['light-truck rear', 'bearing-home', 'shaft-in'],
  ['light-truck rear', 'shaft-seal-in', 'shaft-in'],
  ['light-truck rear', 'shaft-in', 'pin-bolt'],
  ['light-truck rear', 'shaft-in', 'shaft-movement'],
  ['light-truck rear', 'pin-bolt', 'axle-cover-1'],
  ['light-truck rear', 'axle-cover-joint', 'axle-cover-1'],
  ['light-truck rear', 'axle-cover-2', 'axle-cover-3'],
  ['light-truck rear', 'axle-cover-3', 'axle-oil'],
  ['light-truck rear', 'axle-oil', 'axle-level'],
  ['4×4 front', 'lock', 'drag'],
  ['4×4 front', 'races-dry', 'cap-bolts'],
  ['4×4 front', 'axle-seal', 'cap-bolts'],
  ['4×4 front', 'two-greases', 'cap-bolts'],
  ['4×4 front', 'cap-bolts', 'swivel-preload'],
  ['4×4 front', 'swivel-preload', 'seal-ring'],
  ['4×4 front', 'swivel-preload', 'links'],
  ['4×4 front', 'links', 'joint-pins'],
  ['4×4 front', 'cap-bolts', 'shaft-order'],
  ['4×4 front', 'shaft-order', 'spindle-nuts'],
  ['4×4 front', 'spindle-seal', 'spindle-nuts'],
  ['4×4 front', 'spindle-nuts', 'hub-on'],
  ['farm front', 'bushes', 'stub-on'],
  ['farm front', 'stub-on', 'kingpin-lock'],
  ['farm front', 'kingpin-lock', 'hub-on'],
  ['towed caravan', 'shoe-contact', 'hub-on'],
  ['old drum and hub', 'adjuster', 'inner-brake-proved'],
  ['crawler', 'pack-seal', 'seal-home'],
  ['crawler', 'seal-home', 'grub-screws'],
  ['crawler', 'grub-screws', 'lock'],
  ['4×4 front', 'cap-ball-joint-nut', 'cap-ball-joint-nut-back'],
];

it.each(rests)('%s: with %s to be made anew, so is %s', (name, on, what) => {
  const built = everyStack.find((b) => b.name === name)!;
  const t = finished(built)();
  strike(t, on);
  // Made anew by itself, or not made since its way is covered: what rests on it is to be done in either case.
  record(t, actOf(t, on));
  expect(todo(t)).toContain(what);
});
