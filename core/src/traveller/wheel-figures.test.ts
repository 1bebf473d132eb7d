import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import { everyAct } from '../route/index.ts';
import { describeLayer, layerOf, stackSchema, type LayerOf, type Work } from '../stack/index.ts';
import { progressOf } from './index.ts';
import { codes, ids, release, todo } from './testing/ways.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

/** A heavy drive axle whose wheels are built otherwise; its sheet has a figure for wheels that the hub centres. */
function on(wheel: Partial<LayerOf<'wheel'>>, works: Work[]): TestJob {
  const opening = openingOn(['2L'], 'a-drive-tang', works);
  const [w] = opening.wheelEnds;
  const stack = w!.route!.stack.map((l) => (l.layer === 'wheel' ? { ...l, ...wheel } : l));
  return new TestJob({ ...opening, wheelEnds: [{ ...w!, route: { ...w!.route!, stack } }] });
}
const stepOf = (t: TestJob, id: string) => progressOf(t.at('2L')).find((p) => p.step.id === id)!.step;
const torque = (lbfFt: number, asked?: number) => ({
  ...{ kind: 'torque' as const, torque: quantity(lbfFt, 'lbf-ft'), tool: 'Borrowed', rounds: 1 },
  ...(asked === undefined ? {} : { asked: quantity(asked, 'lbf-ft') }),
});

describe('the nuts of a wheel', () => {
  it('that its studs centre go by a figure of their own, and not by the one of hub-piloted wheels', () => {
    expect(stepOf(on({}, ['wheel-off']), 'wheel-nuts')).toMatchObject({ figure: 'wheelTorque' });
    const t = on({ pilot: 'stud' }, ['wheel-off']);
    t.workTo('2L', 'wheel-nuts');
    for (const id of ['wheel-nuts', 'inner-nuts', 'wheel-nuts-road'])
      expect(stepOf(t, id), id).toMatchObject({ figure: 'studPilotedTorque' });
    expect(t.recordStep('2L', torque(475))).toMatch(/maker/);
    expect(t.recordStep('2L', torque(60, 60))).toBeNull();
  });

  it('of stud-piloted duals are retorqued behind the outer ones as well', () => {
    expect(ids(on({}, ['retorque']), '2L')).not.toContain('inner-nuts-again');
    expect(ids(on({ pilot: 'stud', kind: 'single' }, ['retorque']), '2L')).not.toContain('inner-nuts-again');
    const t = on({ pilot: 'stud' }, ['retorque']);
    expect(ids(t, '2L').slice(0, 2)).toEqual(['inner-nuts-again', 'wheel-nuts']);
    // The outer nuts first, by mistake: to reach the inner ones they are loosened again.
    const at = { kind: 'step-recorded', position: '2L', stage: 'wheel-on', round: 1 } as const;
    t.do({ ...at, stepId: 'wheel-nuts', data: torque(60, 60) });
    expect(t.step('2L')?.id).toBe('inner-nuts-again');
    expect(t.recordStep('2L')).toBeNull();
    expect(todo(t, '2L')).toContain('wheel-nuts');
    t.workTo('2L');
    expect(codes(t, '2L')).toEqual([]);
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });

  it.each([
    ['flange', /Two drops|two drops of oil between nut and washer/],
    ['ball', /dry: no paint, no oil on a ball seat/],
    ['cone', /tapered seats and threads clean and dry/],
    [undefined, /no grease on the seats/],
  ] as const)('that seat on %s say what is oiled and what is dry', (seat, words) => {
    expect(stepOf(on(seat ? { seat } : {}, ['wheel-off']), 'wheel-faces').text).toMatch(words);
  });

  it('are none on a wheel end without a wheel: its acts are there all the same', () => {
    const { plan, sheet } = on({}, ['wheel-off']).at('2L');
    const bare = plan.stack.filter((l) => l.layer !== 'wheel');
    expect([...everyAct(bare, sheet).values()].some((a) => a.id === 'hub-on')).toBe(true);
  });

  it('say their thread, class and seat, where somebody has said them', () => {
    const wheel = layerOf(on({}, ['wheel-off']).at('2L').plan.stack, 'wheel')!;
    const built = { ...wheel, thread: 'M22 × 1.5', class: '10.9', seat: 'flange' } as const;
    expect(describeLayer(built)).toBe('Wheels, dual, M22 × 1.5, 10.9, flange nuts');
    expect(describeLayer(wheel)).toBe('Wheels, dual');
    expect(stackSchema.safeParse([{ ...built, thread: 'M22' }]).success).toBe(false);
  });
});
