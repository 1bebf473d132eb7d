import { describe, expect, it } from 'vitest';
import { carrySide } from '../assembly/index.ts';
import { familySheet } from '../procedure/index.ts';
import { usualStack, type Stack, type Work } from '../stack/index.ts';
import { quantity } from '../quantity/index.ts';
import { isClosed, layerStates, type Command, type JobOpened } from './index.ts';
import {
  codes,
  correct,
  did,
  ids,
  REASON,
  recordOf,
  release,
  step,
  todo,
  torque,
  yes,
} from './testing/ways.ts';
import { next } from './testing/next-job.ts';
import { answer, openingOn, supervisor, technician, TestJob } from './testing/work.ts';

function on(
  position: string,
  sheetId: string,
  works: Work[],
  stack: Stack,
  more: Partial<JobOpened> = {},
): TestJob {
  const opening = openingOn([position], sheetId, works);
  const [w] = opening.wheelEnds;
  return new TestJob({
    ...opening,
    ...more,
    wheelEnds: [{ ...w!, route: { ...w!.route!, stack: [...stack] } }],
  });
}

describe('a stack that turns out to be another', () => {
  const fourByFour = usualStack('h-lock-nuts', { role: 'steer', wheels: 'single', brake: 'disc' })!;
  const split = fourByFour.map((l) => (l.layer === 'knuckle' ? { ...l, splitSeal: true } : l));

  it('leaves off what is off: a knuckle torn down, then said to have a split seal', () => {
    const t = on('1L', 'h-lock-nuts', ['knuckle-seal'], fourByFour);
    t.workTo('1L', 'races-dry');
    const sheet = familySheet('h-lock-nuts')!;
    t.do(
      { kind: 'sheet-changed', position: '1L', sheet, stack: split, reason: 'The seal is split' },
      supervisor,
    );
    expect(layerStates(t.at('1L'))).toMatchObject({
      wheel: 'off',
      nut: 'off',
      hub: 'off',
      shaft: 'off',
      knuckle: 'off',
    });
    expect(t.try(release('1L', REASON), supervisor)).toMatch(/cannot be released/);
    t.workTo('1L');
    expect(ids(t, '1L')).toContain('split-seal-in');
    expect(t.try(release('1L'), supervisor)).toBeNull();
  });

  it('is refused while it has no name for a layer that is off; a supervisor says which one it is', () => {
    const towed = usualStack('d-towed', { role: 'trailer', wheels: 'single', brake: 'drum' })!;
    const t = on('1L', 'd-towed', ['brakes'], towed);
    t.workTo('1L', 'brakes-back');
    const outer = towed.flatMap((l): Stack[number][] =>
      l.layer === 'brake-inner'
        ? [{ layer: 'brake-outer', kind: 'drum', by: 'hydraulic', adjuster: true, alsoUndone: [] }]
        : [l],
    );
    const sheet = familySheet('d-towed')!;
    const change = {
      kind: 'sheet-changed',
      position: '1L',
      sheet,
      stack: outer,
      reason: 'Drum slides off',
    } as const;
    expect(t.try(change, supervisor)).toMatch(/Brake, inner is off or open: say which layer/);
    t.do({ ...change, lost: [{ layer: 'brake-inner', is: 'brake-outer' }] }, supervisor);
    expect(layerStates(t.at('1L'))).toMatchObject({ 'brake-outer': 'off', hub: 'off' });
    t.workTo('1L');
    expect(t.try(release('1L'), supervisor)).toBeNull();
  });

  it('asks no jam nut off that is not on', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'wheel-nuts');
    t.do({ kind: 'layer-opened', position: '2L', layer: 'hub', reason: 'The seal weeps' });
    t.workTo('2L', 'seat');
    expect(ids(t, '2L')).not.toContain('jam-off');
  });

  it('a band set wide in the job wants another supervisor than who set it', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    const w = t.at('2L');
    const wide = { ...w.sheet, band: { ...w.sheet.band!, max: quantity(0.05, 'in') } };
    const stack = [...w.plan.stack];
    t.do(
      { kind: 'sheet-changed', position: '2L', sheet: wide, stack, reason: 'As its plate says' },
      supervisor,
    );
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toMatch(/another supervisor releases it/);
    const second = { ...supervisor, id: technician.id.replace(/1$/, '5') };
    expect(t.try(release('2L'), second)).toBeNull();
  });
});

describe('what one job leaves off, the next begins from', () => {
  it('a job is voided only while the metal is as it was', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'hub-off');
    expect(t.try({ kind: 'job-voided', reason: 'Wrong unit' }, supervisor)).toMatch(
      /not as it was: 2L: .*wheel off/,
    );
    t.workTo('2L');
    expect(t.try({ kind: 'job-voided', reason: 'Wrong unit' }, supervisor)).toMatch(/not as it was/);
  });

  it('a retorque does not sign off a wheel end whose hub is off', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'judge-parts');
    t.do(
      { kind: 'ended-out-of-service', reason: 'Spindle is weeks away', leaves: 'stays', told: 'M. Tern' },
      supervisor,
    );
    const u = next(t, '2L', 'a-drive-tang', ['retorque']);
    expect(layerStates(u.at('2L'))).toMatchObject({ wheel: 'off', hub: 'off', nut: 'off' });
    expect(u.try(release('2L', REASON), supervisor)).toMatch(/cannot be released/);
    // Its hub is off: it stands on stands, and comes down on its wheels at the end.
    expect(todo(u, '2L')).toEqual(expect.arrayContaining(['lifted', 'down']));
    u.workTo('2L');
    expect(codes(u, '2L')).toEqual(['finding']);
    u.do(
      {
        kind: 'finding-answered',
        position: '2L',
        finding: 'left-out-of-service',
        how: 'put-right',
        reason: 'A sound spindle was fitted by the axle shop',
      },
      supervisor,
    );
    expect(u.try(release('2L'), supervisor)).toBeNull();
  });

  it('a nut that was not locked is locked before an oil level goes out', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    t.workTo('2L', 'lock');
    t.do(
      { kind: 'ended-out-of-service', reason: 'No washer to be had', leaves: 'stays', told: 'M. Tern' },
      supervisor,
    );
    const u = next(t, '2L', 'a-trailer', ['oil-level']);
    expect(todo(u, '2L')).toContain('lock');
    expect(todo(u, '2L')).not.toContain('seat');
    expect(u.try(release('2L', REASON), supervisor)).toMatch(/lock is not recorded/i);
  });

  it('what an earlier job left is put right in the open one when the earlier is corrected', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    t.workTo('2L');
    const w = t.at('2L');
    const began = {
      ...w.side,
      made: Object.fromEntries(Object.entries(w.side.made).filter(([id]) => id !== 'lock')),
    };
    const u = new TestJob(openingOn(['2L'], 'a-trailer', ['oil-level']));
    expect(todo(u, '2L')).not.toContain('lock');
    const carried = carrySide(began, (id) => id in began.made);
    u.job = u.withEvent({ kind: 'began-corrected', position: '2L', began: carried });
    expect(todo(u, '2L')).toContain('lock');
  });
});

describe('taking off is believed sooner than putting on', () => {
  it('only a supervisor strikes it out, and what it broke is checked anew', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['wheel-off']));
    t.workTo('2L', 'wheel-drawn');
    const off = recordOf(t, 'wheel-off');
    const strike = { kind: 'correction', corrects: off.id, reason: 'Wrong unit', replacement: null } as const;
    expect(t.try(strike, technician)).toMatch(/A supervisor strikes out/);
    expect(t.try(strike, supervisor)).toBeNull();
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/Wheel nuts, full torque/);
  });

  it('left out, it has its effect all the same', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    for (let s = t.step('2L'); s && s.id !== 'looked-wrong'; s = t.step('2L'))
      expect(s.id === 'rims' ? t.recordStep('2L') : t.skip('2L')).toBeNull();
    expect(layerStates(t.at('2L'))).toMatchObject({ wheel: 'off', cap: 'off', nut: 'off', hub: 'off' });
    t.workTo('2L', 'final-look');
    expect(codes(t, '2L')).not.toContain('layer-not-reached');
  });

  it('a hub that is off means that wheel, brake and nut are off, recorded or not', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.do(step(t, '2L', 'tear-down', 'hub-off', did));
    expect(layerStates(t.at('2L'))).toMatchObject({
      wheel: 'off',
      'brake-outer': 'off',
      nut: 'off',
      hub: 'off',
    });
  });

  it('work that was opened and not done is no release', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['bearings']));
    expect(codes(t, '2L')).toContain('layer-not-reached');
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/Hub: to be opened or taken off/);
  });
});

describe('a closure counts only with what it rests on', () => {
  it('the lock of an earlier round, put right, is not the lock of this one', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    t.workTo('2L', 'fill');
    t.do({ kind: 'adjust-reopened', position: '2L', round: 1, from: 'start' });
    t.workTo('2L', 'end-play');
    expect(correct(t, 'lock', { kind: 'lock', method: 'two-tangs' })).toBeNull();
    expect(todo(t, '2L')).toEqual(expect.arrayContaining(['end-play', 'lock']));
    const set = recordOf(t, 'set');
    expect(set.version).toBeGreaterThan(recordOf(t, 'lock').version);
    const late = {
      ...step(t, '2L', 'lock-and-fill', 'lock', { kind: 'lock', method: 'one-tang' }),
      round: 1,
    };
    t.do(late as Command);
    expect(todo(t, '2L')).toContain('lock');
  });

  it('a round begun again before the lock opens nothing once it is locked', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'end-play');
    t.do({ kind: 'adjust-reopened', position: '2L', round: 1, from: 'start' });
    expect(todo(t, '2L')[0]).toBe('jam-off');
    t.workTo('2L', 'fill');
    expect(todo(t, '2L')).not.toContain('nut-off');
  });

  it('cups that are not home leave the hub on, and wrong, with all that was made over them', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['bearings']));
    t.workTo('2L', 'fill');
    expect(correct(t, 'cup-home', null)).toBeNull();
    expect(layerStates(t.at('2L')).hub).toBe('ahead');
    expect(codes(t, '2L')).toContain('layer-not-reached');
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });

  it('a seal is not renewed with the hub on', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'lock');
    expect(correct(t, 'seal', null)).toBeNull();
    t.do(step(t, '2L', 'assemble', 'seal', { kind: 'seal', outside: 'dry' }));
    expect(Object.values(t.at('2L').notCounted)).toMatchObject([{ why: 'covered', layers: ['hub'] }]);
    expect(todo(t, '2L')).toContain('seal');
  });

  it('a jam torque put right to less than its figure stands against the release, with cap and wheel on', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L');
    expect(correct(t, 'jam-nut', torque(150, { note: 'As it was written by hand' }))).toBeNull();
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/Jam nut torqued to 150/);
    t.do({ kind: 'adjust-reopened', position: '2L', round: 1, from: 'start' });
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });

  it('the brake is proved after its adjuster, and what was freed again works again', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['brakes']));
    t.workTo('2L', 'brake-proved');
    expect(ids(t, '2L').indexOf('adjuster')).toBeLessThan(ids(t, '2L').indexOf('brake-proved'));
    expect(correct(t, 'adjuster', null)).toBeNull();
    t.do(step(t, '2L', 'lock-and-fill', 'brake-proved', yes));
    expect(todo(t, '2L')).toEqual(expect.arrayContaining(['adjuster', 'brake-proved']));
    const u = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    u.workTo('2L', 'fill');
    expect(ids(u, '2L')).toContain('brake-again');
    u.do({ kind: 'adjust-reopened', position: '2L', round: 1, from: 'start' });
    u.workTo('2L', 'lock');
    expect(todo(u, '2L')).toContain('brake-again');
  });

  it('an axle nut torqued anew wants a new pin', () => {
    const t = new TestJob(openingOn(['1L'], 'f-unitised', ['unit-hub']));
    t.workTo('1L', 'wheel-drawn');
    expect(correct(t, 'axle-nut', null)).toBeNull();
    t.do(step(t, '1L', 'adjust', 'axle-nut', torque(60, { asked: quantity(60, 'lbf-ft') })));
    expect(todo(t, '1L')).toContain('lock');
  });

  it('a deflated tyre is inflated, whatever is said of the rims later', () => {
    const t = new TestJob(openingOn(['1L'], 'd-steer-18', ['wheel-off']));
    t.workTo('1L', 'rims');
    t.recordStep('1L', { kind: 'choose', option: 'core-out' });
    t.workTo('1L', 'inflated');
    t.do({ kind: 'layer-opened', position: '1L', layer: 'wheel', reason: 'A stone between the faces' });
    t.workTo('1L', 'rims');
    t.recordStep('1L', { kind: 'choose', option: 'sound' });
    expect(todo(t, '1L')).toContain('inflated');
  });

  it('wheel-off that was struck out and recorded again after the nuts wants the nuts again', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['wheel-off']));
    t.workTo('2L', 'final-look');
    expect(correct(t, 'wheel-off', null)).toBeNull();
    t.do(step(t, '2L', 'tear-down', 'wheel-off', did));
    expect(layerStates(t.at('2L')).wheel).toBe('off');
    expect(todo(t, '2L')).toEqual(expect.arrayContaining(['wheel-drawn', 'wheel-nuts']));
  });

  it('who says no to uncaged, proved or nuts goes no further', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['brakes']));
    t.workTo('2L', 'uncaged');
    t.recordStep('2L', { kind: 'inspect', ok: false, note: 'The bolt is seized' });
    expect(todo(t, '2L')[0]).toBe('uncaged');
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/found trouble: The bolt is seized/);
  });

  it('a tablet’s late record counts by its own time, and takes nothing down', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['wheel-off']));
    t.workTo('2L', 'wheel-nuts');
    const early = t.now;
    t.do({ kind: 'layer-opened', position: '2L', layer: 'wheel', reason: 'A stone in the dual' });
    while (t.step('2L')?.id !== 'wheel-faces') t.recordStep('2L');
    t.workTo('2L', 'wheel-nuts');
    const nuts = { ...step(t, '2L', 'wheel-on', 'wheel-nuts', torque(475)), doneAt: early } as Command;
    expect(t.try(nuts)).toBeNull();
    expect(Object.values(t.at('2L').notCounted).at(-1)).toEqual({ why: 'late' });
    expect(todo(t, '2L')).toContain('wheel-nuts');
  });

  it('a late record of the very time at which its closure was broken does not count', () => {
    const t = new TestJob(openingOn(['2L', '2R'], 'a-drive-tang', ['brakes']));
    t.workTo('2L', 'caging');
    const same = t.now;
    expect(t.recordStep('2L')).toBeNull();
    t.workTo('2R', 'rims');
    const data = { kind: 'inspect', ok: true } as const;
    expect(t.try({ ...step(t, '2L', 'lock-and-fill', 'uncaged', data), doneAt: same } as Command)).toBeNull();
    expect(Object.values(t.at('2L').notCounted).at(-1)).toEqual({ why: 'late' });
  });

  it('a wheel that was put on before its faces were cleaned had come off again', () => {
    const t = new TestJob(openingOn(['2L', '2R'], 'a-drive-tang', ['wheel-off']));
    t.workTo('2L', 'wheel-faces');
    const early = t.now;
    t.workTo('2R', 'rims');
    expect(t.recordStep('2L')).toBeNull();
    const drawn = step(t, '2L', 'wheel-on', 'wheel-drawn', { kind: 'instruct' });
    expect(t.try({ ...drawn, doneAt: early } as Command)).toBeNull();
    expect(Object.values(t.at('2L').notCounted).at(-1)).toEqual({ why: 'late' });
    expect(t.step('2L')?.id).toBe('wheel-drawn');
  });

  it('a lock that was made before the nut was turned again is none, however late its record comes', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    t.workTo('2L', 'seat');
    const early = t.now;
    t.workTo('2L', 'lock');
    const data = answer(t.at('2L'), t.step('2L')!);
    const lock = { ...step(t, '2L', 'lock-and-fill', 'lock', data), doneAt: early } as Command;
    expect(t.try(lock)).toBeNull();
    expect(Object.values(t.at('2L').notCounted).at(-1)).toEqual({ why: 'late' });
    expect(todo(t, '2L')).toContain('lock');
    expect(t.recordStep('2L')).toBeNull();
    expect(todo(t, '2L')).not.toContain('lock');
  });
});

describe('a release that a correction takes the ground from', () => {
  it.each([
    ['lock', 'a-trailer', 'adjust', '2L'],
    ['wheel-nuts', 'a-drive-tang', 'wheel-off', '2L'],
    ['uncaged', 'a-drive-tang', 'brakes', '2L'],
  ] as const)(
    '%s struck out afterwards: in doubt, and the job stays closed',
    (stepId, sheetId, work, position) => {
      const t = new TestJob(openingOn([position], sheetId, [work]));
      t.workTo(position);
      t.do(release(position), supervisor);
      expect(correct(t, stepId, null)).toBeNull();
      expect(t.at(position).release?.inDoubt).toMatchObject({ reason: 'Written in the wrong row' });
      expect(isClosed(t.job)).toBe(true);
      const u = next(t, position, sheetId, ['check']);
      expect(todo(u, position)).toContain(stepId);
    },
  );

  it('a corrected note or tool leaves it standing', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    t.workTo('2L');
    t.do(release('2L'), supervisor);
    expect(correct(t, 'lock', { kind: 'lock', method: 'two-tangs', note: 'Both tangs' })).toBeNull();
    expect(t.at('2L').release?.inDoubt).toBeNull();
  });
});
