import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import { layerOf, type Work } from '../stack/index.ts';
import {
  againstRelease,
  describeObjection,
  describeYardOnly,
  fold,
  openFindings,
  partsToJudge,
  progressOf,
  whatIsLeft,
  type JobOpened,
} from './index.ts';
import { next } from './testing/next-job.ts';
import { codes, correct, ids, REASON, release, torque } from './testing/ways.ts';
import { openingOn, soundParts, supervisor, technician, TestJob } from './testing/work.ts';

describe('parts', () => {
  it('judged to be replaced, they are in new or the wheel end stays', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'judge-parts');
    const { findings } = soundParts(partsToJudge(t.at('2L')));
    const worn: Record<string, string> = { lining: 'oiled', 'drum-or-rotor': 'cracked' };
    const judged = findings.map((f) =>
      worn[f.component] && f.component === 'lining'
        ? { ...f, seen: worn[f.component]!, disposition: 'replace-pair' as const }
        : f,
    );
    expect(t.recordStep('2L', { kind: 'judge', hardWorked: false, findings: judged })).toBeNull();
    for (let s = t.step('2L'); s; s = t.step('2L')) {
      if (s.kind === 'ready' || s.kind === 'compare') expect(t.skip('2L')).toBeNull();
      else t.workTo('2L', progressOf(t.at('2L')).filter((p) => !p.record)[1]?.step.id);
    }
    expect(codes(t, '2L')).toContain('part-still-in');
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/the new one is not in/);
  });
});

describe('a cage', () => {
  it('comes with its bearing, whatever was recorded before both were judged', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['bearings']));
    t.workTo('2L', 'judge-parts');
    const at = { kind: 'step-recorded', position: '2L', stage: 'clean-and-seat', round: 1 } as const;
    t.do({ ...at, stepId: 'cup-home', data: { kind: 'inspect', ok: true } });
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });
});

describe('findings', () => {
  const withSymptoms = (symptoms: JobOpened['symptoms'], works: Work[], sheetId = 'a-drive-tang') =>
    new TestJob({ ...openingOn(['2L'], sheetId, works), symptoms });

  it.each(['smoke', 'cracked', 'nuts-missing', 'oil-hub-open', 'oil-on-lining'] as const)(
    '%s at intake is not released by a retorque',
    (symptom) => {
      const t = withSymptoms([symptom], ['retorque']);
      t.workTo('2L');
      const open = symptom !== 'nuts-missing';
      expect(openFindings(t.at('2L')).map((f) => f.id)).toEqual(open ? [`symptom:${symptom}`] : []);
      expect(t.try(release('2L', REASON), supervisor) === null).toBe(!open);
    },
  );

  it('are answered by what the work finds, or by a supervisor in a sentence', () => {
    const t = withSymptoms(['smoke', 'oil-on-tyre', 'noise'], ['seal']);
    t.workTo('2L');
    expect(openFindings(t.at('2L'))).toEqual([]);
    const u = withSymptoms(['cracked'], ['seal']);
    u.workTo('2L');
    const answer = {
      kind: 'finding-answered',
      position: '2L',
      finding: 'symptom:cracked',
      how: 'not-so',
    } as const;
    expect(u.try({ ...answer, reason: 'ok' }, supervisor)).toMatch(/in a sentence/);
    expect(u.try({ ...answer, reason: 'Paint was cracked, the hub was dye-tested' }, technician)).toMatch(
      /supervisor/,
    );
    expect(u.try({ ...answer, reason: 'Paint was cracked, the hub was dye-tested' }, supervisor)).toBeNull();
    expect(u.try(release('2L'), supervisor)).toBeNull();
  });

  it('a rocking over its limit is not released by a wheel off', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['wheel-off']));
    t.workTo('2L', 'rock');
    const mm = (v: number) => quantity(v, 'mm');
    t.recordStep('2L', {
      kind: 'joint',
      felt: 'both',
      knuckleToHub: mm(3),
      bearingLimit: mm(0.127),
      tipAt: 'hub',
    });
    t.workTo('2L');
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/moved when it was rocked/);
    t.do({ kind: 'work-added', position: '2L', work: 'adjust', reason: 'Loose' });
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });

  it('metal in the oil, and a hot other side, are not let go', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['oil-level']));
    t.recordStep('2L', { kind: 'found', signs: ['metal'] });
    t.workTo('2L');
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/Water or metal in the oil/);
    const u = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    u.workTo('2L', 'hub-heat');
    const c = (v: number) => quantity(v, 'degC');
    u.recordStep('2L', { kind: 'heat', here: c(40), other: c(152), air: c(12), note: 'Other side smells' });
    u.workTo('2L');
    expect(u.try(release('2L', REASON), supervisor)).toMatch(/other side was hot/);
  });

  it('a unit hub that moves by the dial, and readings that do not repeat, stand against it', () => {
    const t = new TestJob(openingOn(['1L'], 'f-unitised', ['unit-hub']));
    t.workTo('1L', 'end-play');
    t.readings('1L', 0.08, 0.08, 0.08);
    t.recordStep('1L', { kind: 'measure', by: 'feel' });
    t.workTo('1L');
    expect(t.try(release('1L', REASON), supervisor)).toMatch(/moves 2.03 mm by the dial/);
    const u = new TestJob(openingOn(['2L'], 'a-trailer', ['wheel-off']));
    u.workTo('2L', 'as-found');
    u.readings('2L', 0.02, 0.02);
    expect(u.skip('2L')).toBeNull();
    u.workTo('2L');
    expect(codes(u, '2L')).toContain('not-repeated');
  });
});

describe('readings and feel', () => {
  it('three cycles out of band are not felt away, nor corrected to a feeling', () => {
    const t = new TestJob(openingOn(['1L'], 'd-towed', ['adjust']));
    t.workTo('1L', 'end-play');
    t.readings('1L', 0.05, 0.05, 0.05);
    expect(t.recordStep('1L', { kind: 'measure', by: 'feel' })).toMatch(/dial read out of band/);
    const u = new TestJob(openingOn(['1L'], 'd-towed', ['adjust']));
    u.workTo('1L', 'lock');
    expect(correct(u, 'end-play', { kind: 'measure', by: 'feel' })).toMatch(/not corrected to what was felt/);
  });

  it('a pinned nut stays loose only where its next place is tight; a staked one never', () => {
    const t = new TestJob(openingOn(['1L'], 'e-torque', ['adjust']));
    t.workTo('1L', 'end-play');
    t.readings('1L', 0.007, 0.007, 0.007);
    expect(t.skip('1L')).toMatch(/cannot be skipped/);
    const loose = (inches: number) => {
      const d = new TestJob(openingOn(['1L'], 'd-steer-18', ['adjust']));
      d.workTo('1L', 'end-play');
      d.readings('1L', inches, inches, inches);
      return d.skip('1L');
    };
    // 18 threads, six slots, two holes: a place is 30°, 0.0046 in.
    expect(loose(0.0053)).toBeNull();
    expect(loose(0.0062)).toMatch(/cannot be skipped/);
  });
});

describe('torques', () => {
  it('take no figure that no hand could reach, nor one that nobody means', () => {
    const t = new TestJob(openingOn(['1L'], 'f-unitised', ['unit-hub']));
    t.workTo('1L', 'hub-bolts');
    const asked = (v: number) => ({ asked: quantity(v, 'lbf-ft') });
    expect(t.recordStep('1L', torque(0, { note: 'x', ...asked(60) }))).toMatch(/over zero/);
    expect(t.recordStep('1L', torque(1, asked(1)))).toMatch(/figure between 3 and 700/);
    expect(t.recordStep('1L', torque(2_000, { note: 'gun', ...asked(60) }))).toMatch(/not possible here/);
    expect(t.recordStep('1L', torque(60, asked(60)))).toBeNull();
    expect(t.recordStep('1L', torque(90, asked(90)))).toMatch(/for the same figure/);
  });

  it('within 4 % of a single figure, and never under it by more, whatever a supervisor writes', () => {
    const reached = (value: number) => {
      const t = new TestJob(openingOn(['1L'], 'f-unitised', ['unit-hub']));
      t.workTo('1L', 'axle-nut');
      const data = torque(value, { asked: quantity(100, 'lbf-ft'), note: 'as read' });
      expect(t.recordStep('1L', data)).toBeNull();
      t.workTo('1L');
      return t.try(release('1L', REASON), supervisor);
    };
    // ISO 6789 type II class A, value from memory.
    expect(reached(96)).toBeNull();
    expect(reached(95.9)).toMatch(/cannot be released/);
    expect(reached(104.1)).toMatch(/cannot be released/);
  });

  it('a turn that is not the one asked for says why', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    t.workTo('2L', 'loosen');
    expect(t.recordStep('2L', { kind: 'turn', turns: 4.9 })).toMatch(/not the turn/);
    expect(t.recordStep('2L', { kind: 'turn', turns: -0.9 })).toBeNull();
  });

  it('a lining at nothing, and a pull of less than nothing, are never let go', () => {
    const t = new TestJob(openingOn(['1L'], 'h-lock-nuts', ['adjust']));
    t.workTo('1L', 'drag');
    const pull = (si: number) => ({ kind: 'measure', by: 'drag', pull: { ...quantity(si, 'N') } }) as const;
    const w = t.at('1L');
    if (w.sheet.drag) expect(t.recordStep('1L', pull(-5_000))).toMatch(/not possible/);
    const u = new TestJob(openingOn(['2L'], 'a-drive-tang', ['brakes']));
    u.workTo('2L', 'brakes-back');
    const zero = quantity(0, 'mm');
    u.recordStep('2L', {
      kind: 'linings',
      brake: 'air-drum',
      inner: zero,
      outer: zero,
      set: true,
      note: 'Worn',
    });
    u.workTo('2L');
    const thin = againstRelease(u.at('2L')).find((o) => o.code === 'lining-thin')!;
    expect(thin.guard).toBe('never');
    expect(describeObjection(u.at('2L'), thin, null)).toMatch(/0.0 mm/);
  });
});

describe('the order that hands can do', () => {
  it('is lifted and rocked with every nut tight, on the ground before any level', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['seal']));
    const order = ids(t, '2L');
    const before = (a: string, b: string) => expect(order.indexOf(a)).toBeLessThan(order.indexOf(b));
    before('rock', 'wheel-cracked');
    before('down', 'oil-level');
    before('adjuster', 'brake-proved');
  });

  it('circlips come before the bolts behind them', () => {
    const t = new TestJob(openingOn(['1L'], 'h-lock-nuts', ['seal']));
    const order = ids(t, '1L');
    expect(order.indexOf('cap-circlips-off')).toBeLessThan(order.indexOf('cap-cracked'));
  });

  it('no spring brake is uncaged where there is none', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['brakes']));
    t.workTo('2L', 'caging');
    t.recordStep('2L', { kind: 'choose', option: 'none' });
    expect(ids(t, '2L')).not.toContain('uncaged');
    const stack = layerOf(t.at('2L').side.stack, 'brake-outer');
    expect(stack?.chamber).toBeUndefined();
  });

  it('wheel and hub come off in one only where a drum slides off, and the brake is seen to', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal'], { together: true }));
    expect(ids(t, '2L')).toEqual(
      expect.arrayContaining(['caging', 'adjuster-off', 'uncaged', 'adjuster', 'brakes-back']),
    );
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });
});

it('what holds the hub on and was torqued with a tool of no list is for a supervisor to release', () => {
  const t = new TestJob(openingOn(['1L'], 'f-unitised'));
  t.workTo('1L', 'hub-bolts');
  const asked = quantity(60, 'lbf-ft');
  const data = { kind: 'torque', torque: asked, asked, tool: 'Borrowed', rounds: 1 } as const;
  expect(t.recordStep('1L', data)).toBeNull();
  t.workTo('1L');
  expect(againstRelease(t.at('1L'))).toEqual([
    {
      ...{ code: 'tool-not-listed', guard: 'supervisor' },
      params: { stage: 'adjust', step: 'hub-bolts', tool: 'Borrowed' },
    },
  ]);
  expect(describeObjection(t.at('1L'), againstRelease(t.at('1L'))[0]!, null)).toMatch(/with Borrowed/);
  expect(t.try(release('1L'), supervisor)).not.toBeNull();
  expect(t.try(release('1L', REASON))).not.toBeNull();
  expect(t.try(release('1L', REASON), supervisor)).toBeNull();
});

describe('a lining at its minimum', () => {
  const lining = (mm: number) =>
    ({
      kind: 'linings',
      brake: 'air-drum',
      set: true,
      note: 'Nothing thicker in the store',
      inner: quantity(mm, 'mm'),
      outer: quantity(9, 'mm'),
    }) as const;
  const worked = (mm: number) => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['brakes']));
    t.workTo('2L', 'brakes-back');
    t.recordStep('2L', lining(mm));
    t.workTo('2L');
    return t;
  };

  it('is released for the yard only, and stays so through other work until a thicker one is in', () => {
    const t = worked(6);
    expect(t.try(release('2L', REASON), supervisor)).toBeNull();
    expect(describeYardOnly(t.at('2L'))).toMatch(/^For the yard only: a lining of 6.0 mm/);
    const other = next(t, '2L', 'a-drive-tang', ['oil-level']);
    other.workTo('2L');
    expect(codes(other, '2L')).toEqual([]);
    other.do(release('2L'), supervisor);
    expect(describeYardOnly(other.at('2L'))).toMatch(/^For the yard only/);
    const renewed = next(other, '2L', 'a-drive-tang', ['brakes']);
    renewed.workTo('2L');
    expect(describeYardOnly(renewed.at('2L'))).toBeNull();
    renewed.do(release('2L'), supervisor);
    expect(describeYardOnly(renewed.at('2L'))).toBeNull();
    expect(whatIsLeft(renewed.job, renewed.at('2L'))?.yardOnly ?? null).toBeNull();
  });

  it('a release of the rules before stands as it was given', () => {
    const t = worked(6);
    t.do(release('2L', REASON), supervisor);
    const events = t.job.events.map((e) =>
      e.body.kind === 'wheel-end-released' ? { ...e, body: { ...e.body, rules: 1 as const } } : e,
    );
    expect(describeYardOnly(fold(events).wheelEnds[0]!)).toBeNull();
  });

  it('a thick one leaves nothing said', () => {
    const t = worked(12);
    t.do(release('2L'), supervisor);
    expect(t.at('2L').side.yardOnly).toBeNull();
    expect(whatIsLeft(t.job, t.at('2L'))).toBeNull();
  });
});
