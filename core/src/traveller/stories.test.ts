import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import type { Stack, Work } from '../stack/index.ts';
import { everyStack, splitSealed } from '../stack/testing/stacks.ts';
import {
  describeEvent,
  describeLayers,
  describeParts,
  describeStepData,
  lockSteps,
  progressOf,
  stepsOfKind,
  type Actor,
  type Command,
  type CommandInput,
  type StepProgress,
} from './index.ts';
import { openingOn, supervisor, TestJob, withOtherSide } from './testing/work.ts';
import { codes, release, torque } from './testing/ways.ts';

interface Story {
  name: string;
  complaint: string;
  stack: string;
  works: Work[];
  /** How this one differs from what is usual. */
  built?: (stack: Stack) => Stack;
  /** Work that is added on the way, and before which step. */
  deeper?: { before: string; work: Work; reason: string };
  /** What happens before the work begins. */
  first?: (t: TestJob) => void;
}

const AT = '1L';
const contact: Actor = {
  id: '00000000-0000-4000-8000-000000000909',
  name: 'E. Tern',
  role: 'owner-contact',
};

/** An estimate that the owner takes. */
function quoted(t: TestJob): void {
  const line = { group: 'labour', what: 'Hub', per: 'wheel', quantity: 1, unitMinor: 9_000 } as const;
  const bill = { currency: 'GBP', lines: [line], suppliesPercent: 0, taxes: [] };
  t.do({ kind: 'bill-written', as: 'estimate', bill } as unknown as Command, supervisor);
  const estimate = t.job.money.estimate!.eventId;
  t.do({ kind: 'owner-answered', answer: 'do-now', name: contact.name, estimate }, contact);
}

/** Rocked and found loose at the bearing, not at the kingpin. */
function loose(t: TestJob): void {
  t.workTo(AT, 'rock');
  const play = { axleToKnuckle: quantity(0.001, 'in'), knuckleToHub: quantity(0.012, 'in') };
  const limits = { kingpinLimit: quantity(0.02, 'in'), bearingLimit: quantity(0.005, 'in') };
  const rocked = t.recordStep(AT, { kind: 'joint', felt: 'twelve-six', tipAt: 'hub', ...play, ...limits });
  expect(rocked).toBeNull();
  t.do({
    kind: 'work-added',
    position: AT,
    work: 'adjust',
    reason: 'The bearing is loose, the kingpin is not',
  });
  quoted(t);
}

const withBallJoint = (stack: Stack): Stack =>
  stack.map((l) => (l.layer === 'hub' ? { ...l, alsoUndone: ['ball-joint-nut'] } : l));

const stories: readonly Story[] = [
  { name: 'bolt-on hub', complaint: 'Wheel-speed lamp', stack: 'light-truck front', works: ['unit-hub'] },
  {
    ...{ name: 'old drum and hub', complaint: 'Grease on the drum', stack: 'old drum and hub' },
    works: ['bearings', 'studs', 'brakes', 'knuckle-seal'],
  },
  { name: 'caravan, yearly', complaint: 'Planned', stack: 'towed caravan', works: ['repack', 'brakes'] },
  {
    ...{
      name: 'trailer, four years',
      complaint: 'Planned',
      stack: 'heavy trailer',
      works: ['seal', 'bearings'],
    },
    first: quoted,
  },
  { name: 'castellated, repacked', complaint: 'Planned', stack: 'flatbed', works: ['repack'] },
  {
    name: 'shaft held by a C-clip',
    complaint: 'Oil on the tyre',
    stack: 'light-truck rear',
    works: ['seal'],
  },
  {
    ...{
      name: 'staked, with its ball joint',
      complaint: 'Rumbles',
      stack: 'older van front',
      works: ['bearings'],
    },
    built: withBallJoint,
  },
  {
    ...{ name: 'one-piece nut, shaft drawn', complaint: 'Weeps inside', works: ['seal'] },
    stack: 'heavy drive, lock ring',
  },
  {
    name: 'farm hub, studs and kingpin',
    complaint: 'Wanders',
    stack: 'farm front',
    works: ['studs', 'kingpin'],
  },
  { name: 'crawler seal', complaint: 'Grease at the shaft', stack: 'crawler', works: ['seal'] },
  {
    ...{
      name: 'bearing or kingpin',
      complaint: 'Movement at 12 and 6',
      stack: 'heavy steer',
      works: ['check'],
    },
    first: loose,
  },
  {
    ...{ name: 'brakes that find a seal', complaint: 'Brakes due', stack: 'heavy drive', works: ['brakes'] },
    deeper: { before: 'judge-parts', work: 'seal', reason: 'Oil behind the hub' },
  },
  { name: 'short adjustment', complaint: 'Loose at the check', stack: 'heavy trailer', works: ['adjust'] },
  {
    ...{ name: 'swivel hub, three works', complaint: 'Steers in steps', stack: '4×4 front' },
    works: ['swivels', 'knuckle-seal', 'bearings'],
  },
  { name: 'split knuckle seal', complaint: 'Weeps', stack: splitSealed.name, works: ['knuckle-seal'] },
  { name: 'needle bearing', complaint: 'Knocks', stack: '4×4 front', works: ['spindle-bearing'] },
  { name: 'planetary front', complaint: 'Oil on the rim', stack: 'planetary front', works: ['seal'] },
  { name: 'dumper hub', complaint: 'Metal on the magnet', stack: 'dumper hub, shims', works: ['bearings'] },
  { name: 'caravan rubber axle', complaint: 'Pulls', stack: 'caravan rubber axle', works: ['brakes'] },
  { name: 'pre-set trailer hub', complaint: 'Hot', stack: 'heavy pre-set', works: ['bearings'] },
  { name: 'compact trailer hub', complaint: 'Rough', stack: 'trailer compact hub', works: ['unit-hub'] },
];

function begin({ stack: name, works, built = (s) => s }: Story): TestJob {
  const { sheetId, stack } = [...everyStack, splitSealed].find((s) => s.name === name)!;
  const opening = openingOn([AT], sheetId, works);
  const wheelEnds = opening.wheelEnds.map((w) => ({
    ...w,
    route: { ...w.route!, stack: [...built(stack)] },
  }));
  return new TestJob(withOtherSide({ ...opening, wheelEnds }));
}

/** What the release page and the record say, row by row. */
function rows(t: TestJob): string[] {
  const w = t.at(AT);
  const said = (steps: readonly StepProgress[]) =>
    steps.flatMap(({ step, record }) =>
      record?.data ? [`${step.title}: ${describeStepData(record.data, null, step, w)}`] : [],
    );
  const row = (title: string, lines: readonly string[]) => [`${title}: ${lines.join('; ') || 'none'}`];
  const { notWhole, back } = describeLayers(w);
  return [
    ...row('Layers', [notWhole ?? 'nothing off or open', back ?? ''].filter(Boolean)),
    ...row('Torques', said(stepsOfKind(w, 'torque'))),
    ...row(
      'Measured',
      said(stepsOfKind(w, 'measure', 'rolling', 'shims', 'sensor', 'dimension', 'wear', 'stroke', 'cure')),
    ),
    ...row('Lock', said(lockSteps(w))),
    ...row('Parts', [describeParts(w) ?? 'nothing was bare']),
    ...row('Linings', said(stepsOfKind(w, 'linings'))),
    ...row('Lubricant', said(stepsOfKind(w, 'pack', 'fill'))),
  ];
}

describe('a job from its complaint to the retorque', () => {
  it.each(stories.map((story) => [story.name, story] as const))('%s', async (name, story) => {
    const t = begin(story);
    story.first?.(t);
    if (story.deeper) {
      const { before, work, reason } = story.deeper;
      t.workTo(AT, before);
      t.do({ kind: 'work-added', position: AT, work, reason });
    }
    t.workTo(AT);
    expect(codes(t, AT)).toEqual([]);
    const said = rows(t);
    const wasOff = progressOf(t.at(AT)).some((p) => p.step.id === 'wheel-drawn');
    t.do(release(AT), supervisor);
    const { followUp } = t.at(AT).release!;
    expect(followUp !== null).toBe(wasOff);
    if (followUp) {
      const figure = t.at(AT).sheet.wheelTorque;
      const { torque: reached, tool, listed } = torque(figure ? figure.max.value : 60);
      const unit = figure?.max.unit ?? 'lbf-ft';
      const command = {
        ...{ kind: 'retorque-recorded', position: AT, tool, listed },
        torque: quantity(reached.value, unit),
      } as Command & CommandInput;
      t.do(command);
    }
    const record = t.job.events.map((event) => describeEvent(t.job, event, null));
    const text = [`Complaint: ${story.complaint}`, '', ...record, '', ...said, ''].join('\n');
    await expect(text).toMatchFileSnapshot(`testing/stories/${name.replaceAll(/[^a-z0-9]+/gi, '-')}.txt`);
  });
});
