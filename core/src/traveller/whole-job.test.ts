import { describe, expect, it } from 'vitest';
import { dispose, driveVerdict } from '../inspection/index.ts';
import type { StepData } from '../procedure/index.ts';
import { quantity } from '../quantity/index.ts';
import {
  againstRelease,
  isClosed,
  lackedLines,
  linesToAnswer,
  openQuestions,
  otherSideDue,
  describeEvent,
  describeObjection,
  stageMinutes,
} from './index.ts';
import { openingOn, soundParts, supervisor, technician, TestJob } from './testing/work.ts';

const against = (t: TestJob) =>
  againstRelease(t.at('2L'))
    .map((o) => describeObjection(t.at('2L'), o, null))
    .join();

const lastWords = (t: TestJob) => describeEvent(t.job, t.job.events.at(-1)!, null);
const mm = (value: number) => quantity(value, 'mm');

/** What is bare with the hub of a drive axle off. */
const driveHub = [
  'studs',
  'lining',
  'drum-or-rotor',
  'nut-and-washer',
  'cups-and-rollers',
  'cage',
  'cone-and-journal',
  'spindle-shoulder',
  'seal-seat',
  'hub-bore',
  'tone-ring',
  'lubricant',
];

describe('intake', () => {
  // Roadside out-of-service practice in North America, value from memory.
  it.each([
    [['smoke'], 'do-not-move'],
    [['oil-hub-open'], 'do-not-move'],
    [['oil-on-lining'], 'do-not-move'],
    [['movement', 'noise'], 'do-not-move'],
    [['movement', 'hub-warmer'], 'do-not-move'],
    [['movement', 'metal-in-cap'], 'do-not-move'],
    [['cracked'], 'do-not-move'],
    [['nuts-missing'], 'do-not-move'],
    [['pulls', 'lamp', 'noise'], 'do-not-move'],
    [['pulls', 'lamp'], 'to-shop'],
    [['movement'], 'to-shop'],
    [['noise'], 'to-shop'],
    [['grease-cap-missing'], 'to-shop'],
    [['metal-in-cap'], 'to-shop'],
    [['oil-on-tyre'], 'to-shop'],
    [['lamp'], 'drive'],
    [['dry-stain', 'weep-at-cap'], 'drive'],
    [[], 'drive'],
  ] as const)('%j: %s', (noticed, verdict) => {
    expect(driveVerdict(noticed).verdict).toBe(verdict);
    expect(driveVerdict(noticed).reason.length).toBeGreaterThan(10);
  });
});

describe('which joint', () => {
  const joint = (more: object): StepData => ({ kind: 'joint', felt: 'twelve-six', ...more }) as StepData;

  it('the blamed kingpin: the two readings lead to the bearing', () => {
    const t = new TestJob(openingOn(['2L'], 'a-steer-double'));
    t.workTo('2L', 'rock');
    expect(t.recordStep('2L', joint({}))).toMatch(/set the indicator/);
    expect(t.recordStep('2L', joint({ axleToKnuckle: mm(0.03), knuckleToHub: mm(0.3) }))).toMatch(
      /maker allows/,
    );
    const readings = { axleToKnuckle: mm(0.03), knuckleToHub: mm(0.3), kingpinLimit: mm(0.25) };
    expect(t.recordStep('2L', joint(readings))).toBeNull();
    expect(lastWords(t)).toMatch(
      /moves at 12 and 6; axle to knuckle .*0\.03.*knuckle to hub .*0\.3.*: the bearing is loose/,
    );
  });

  it('takes a note where no indicator was set', () => {
    const t = new TestJob();
    t.workTo('2L', 'rock');
    expect(t.recordStep('2L', joint({ note: 'No stand for the dial, to be done on the pit' }))).toBeNull();
  });
});

describe('ready', () => {
  it('wants every line answered, a date for what is ordered, and a reason to start without', () => {
    const t = new TestJob();
    t.workTo('2L', 'readiness');
    const all = linesToAnswer(t.at('2L')).map(({ what }) => ({ what, state: 'have' as const }));
    const ready = (lines: object[], note?: string) =>
      t.recordStep('2L', { kind: 'ready', lines, ...(note ? { note } : {}) } as StepData);
    expect(ready(all.slice(1))).toMatch(/Wheel-nut socket/);
    expect(ready([{ ...all[0], state: 'ordered' }, ...all.slice(1)])).toMatch(/arrive/);
    const missing = [{ ...all[0], state: 'missing' }, ...all.slice(1)];
    expect(ready(missing)).toMatch(/why the work starts/);
    expect(ready(missing, 'Borrowed from the other shop at noon')).toBeNull();
    expect(lastWords(t)).toMatch(/Wheel-nut socket: missing/);
  });

  it('names the parts that are not used twice, sockets with their points, and only what this wheel end has', () => {
    const what = (sheetId: string) => linesToAnswer(new TestJob(openingOn(['1L'], sheetId)).at('1L'));
    expect(what('e-torque')).toContainEqual({ group: 'part', what: 'part:staked-nut', title: 'Staked nut' });
    expect(what('a-drive-tang').find((l) => l.what === 'nut-socket')?.detail).toBe('six or eight point');
    expect(what('f-unitised').map((l) => l.what)).not.toContain('lubricant');
    expect(what('j-shaft-seal').map((l) => l.what)).not.toContain('dial');
  });
});

describe('judging parts', () => {
  const calm = { hardWorked: false };

  it.each([
    ['cups-and-rollers', 'pitting', 'replace-set'],
    ['cups-and-rollers', 'heat-tint', 'replace-set'],
    ['cage', 'damaged', 'replace-set'],
    ['cone-and-journal', 'burnished', 'dress'],
    ['spindle-shoulder', 'small-step', 'ask'],
    ['spindle-shoulder', 'deep-step', 'replace'],
    ['hub-bore', 'cup-turns', 'replace'],
    ['studs', 'several-damaged', 'ask'],
    ['lining', 'oiled', 'replace-pair'],
  ])('%s, %s: %s (common practice, no source)', (component, seen, disposition) => {
    expect(dispose(component, seen, calm)?.disposition).toBe(disposition);
    expect(dispose(component, seen, calm)?.reason.length).toBeGreaterThan(10);
  });

  it('a doubtful bearing on a unit that cannot stand still is replaced', () => {
    expect(dispose('cups-and-rollers', 'doubtful', calm)?.disposition).toBe('ask');
    expect(dispose('cups-and-rollers', 'doubtful', { hardWorked: true })?.disposition).toBe('replace-set');
    expect(dispose('cups-and-rollers', 'turquoise', calm)).toBeUndefined();
  });

  const judged = (component: string, seen: string, disposition: string): StepData => {
    const parts = soundParts(driveHub);
    const findings = parts.findings.map((f) =>
      f.component === component ? { component, seen, disposition } : f,
    );
    return { ...parts, findings } as StepData;
  };

  it('wants every part once, and the disposition that follows from what was seen', () => {
    const t = new TestJob();
    t.workTo('2L', 'judge-parts');
    const parts = soundParts(driveHub);
    expect(t.recordStep('2L', { ...parts, findings: parts.findings.slice(1) })).toMatch(/studs as well/);
    expect(t.recordStep('2L', judged('cage', 'damaged', 'reuse'))).toMatch(/something else/);
    expect(t.recordStep('2L', judged('cage', 'damaged', 'replace-set'))).toBeNull();
    expect(lastWords(t)).toMatch(/Cage: bent, cracked, or rollers fall out, replace as a set/);
    // A new cage is compared, and asked for in Ready, before anything goes back.
    expect(t.step('2L')?.id).toBe('readiness');
  });

  it('a fence case stops before Assemble until the supervisor has decided, and goes on at once then', () => {
    const t = new TestJob();
    t.workTo('2L', 'judge-parts');
    expect(t.recordStep('2L', judged('spindle-shoulder', 'small-step', 'ask'))).toBeNull();
    expect(openQuestions(t.at('2L'))).toMatchObject([
      { component: 'spindle-shoulder', askedBy: technician.name },
    ]);
    t.workTo('2L', 'pack');
    expect(t.recordStep('2L')).toMatch(/supervisor has to decide about spindle shoulder first/);
    expect(against(t)).toMatch(/Spindle shoulder: the supervisor has not decided/);
    const answer = {
      kind: 'decision-made',
      position: '2L',
      component: 'spindle-shoulder',
      decision: 'reuse',
    } as const;
    const reason = 'A hair, and the unit is back in a month';
    expect(t.try({ ...answer, reason })).toMatch(/supervisor/);
    expect(t.try({ ...answer, component: 'cage', reason }, supervisor)).toMatch(/nothing to decide/);
    expect(t.try({ ...answer, decision: 'replace-set', reason }, supervisor)).toMatch(
      /does not fit this part/,
    );
    t.do({ ...answer, reason }, supervisor);
    expect(lastWords(t)).toBe(`2L, decided on spindle shoulder: reuse. ${reason}`);
    expect(t.recordStep('2L')).toBeNull();
    expect(t.try({ ...answer, reason }, supervisor)).toMatch(/nothing to decide/);
  });
});

describe('the pair rule', () => {
  const damaged: StepData = {
    ...soundParts(driveHub),
    findings: soundParts(driveHub).findings.map((f) =>
      f.component === 'cage'
        ? { component: 'cage', seen: 'damaged', disposition: 'replace-set' as const }
        : f,
    ),
  };

  it('a part that failed on one side asks for the other, unless that is in the job', () => {
    const alone = new TestJob(openingOn(['2L']));
    alone.workTo('2L', 'judge-parts');
    expect(otherSideDue(alone.job, alone.at('2L'))).toBeNull();
    alone.recordStep('2L', damaged);
    expect(otherSideDue(alone.job, alone.at('2L'))).toEqual({ position: '2R', parts: ['Cage'] });
    const both = new TestJob(openingOn(['2L', '2R']));
    both.workTo('2L', 'judge-parts');
    both.recordStep('2L', damaged);
    expect(otherSideDue(both.job, both.at('2L'))).toBeNull();
  });
});

describe('brakes back', () => {
  const linings = (inner: number, outer: number, more: object = {}): StepData =>
    ({
      kind: 'linings',
      brake: 'air-drum',
      inner: mm(inner),
      outer: mm(outer),
      set: true,
      ...more,
    }) as StepData;

  it('a lining at its minimum stands against the release (49 CFR 393.47, value from memory)', () => {
    const t = new TestJob();
    t.workTo('2L', 'brakes-back');
    expect(t.recordStep('2L', linings(9, 6.4))).toMatch(/6\.4 mm, at or under 6\.4 mm/);
    expect(t.recordStep('2L', linings(9, 6.4, { note: 'New shoes ordered' }))).toBeNull();
    expect(against(t)).toMatch(/The lining is 6\.4 mm.*New shoes ordered/);
  });

  it('just over it does not', () => {
    const t = new TestJob();
    t.workTo('2L', 'brakes-back');
    expect(t.recordStep('2L', { kind: 'linings', brake: 'air-drum', set: true })).toMatch(/inner and outer/);
    expect(t.recordStep('2L', linings(9, 6.5))).toBeNull();
    expect(against(t)).not.toMatch(/lining/);
  });
});

describe('money', () => {
  const bill = {
    currency: 'GBP',
    lines: [{ group: 'labour', what: 'Hubs', per: 'wheel', quantity: 2, unitMinor: 21_500 }],
    suppliesPercent: 0,
    taxes: [{ name: 'VAT', percent: 20, on: ['labour' as const] }],
  } as const;
  const written = (as: 'estimate' | 'actual') =>
    ({
      kind: 'bill-written',
      as,
      bill: {
        ...bill,
        lines: [...bill.lines],
        taxes: [{ name: 'VAT', percent: 20, on: ['labour' as const] }],
      },
    }) as const;

  it('an estimate is a supervisor’s; the owner’s answer is recorded with a name, a deferral with date and risk', () => {
    const t = new TestJob();
    const answer = { kind: 'owner-answered', answer: 'defer', name: 'Q. Fenmoor' } as const;
    expect(t.try(answer)).toMatch(/no estimate/);
    expect(t.try({ ...written('estimate'), bill: { ...written('estimate').bill } } as never)).toMatch(
      /supervisor/,
    );
    t.do(written('estimate') as never, supervisor);
    expect(lastWords(t)).toBe('estimated 516.00 GBP');
    expect(t.try(answer)).toMatch(/date and the risk/);
    t.do({ ...answer, until: '2027-01-15', risk: 'The seal may let go on the road' });
    expect(lastWords(t)).toMatch(
      /Q\. Fenmoor answered for the owner: defer it until 2027-01-15\. Risk: The seal/,
    );
    expect(t.job.money.answer).toMatchObject({ name: 'Q. Fenmoor', answer: 'defer' });
    t.do(written('estimate') as never, supervisor);
    expect(t.job.money.answer).toBeNull();
  });
});

describe('the owner’s answer gates the work', () => {
  const bill = {
    currency: 'GBP',
    lines: [{ group: 'labour', what: 'Hubs', per: 'wheel', quantity: 1, unitMinor: 21_500 }],
    suppliesPercent: 0,
    taxes: [],
  } as const;
  const estimated = () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['brakes', 'seal', 'studs']));
    t.workTo('2L', 'rims');
    t.do(
      {
        kind: 'bill-written',
        as: 'estimate',
        bill: { ...bill, lines: [...bill.lines], taxes: [] },
      },
      supervisor,
    );
    return t;
  };
  const yes = { kind: 'owner-answered', answer: 'do-now', name: 'Q. Fenmoor' } as const;

  it('nothing comes off while the estimate waits, or after a no', () => {
    const t = estimated();
    expect(t.recordStep('2L')).toBe('The owner has not answered the estimate yet');
    t.do({ ...yes, answer: 'decline' });
    expect(t.recordStep('2L')).toMatch(/The owner has declined it: nothing more comes off/);
    const other = estimated();
    other.do(yes);
    expect(other.recordStep('2L')).toBeNull();
  });

  it('a declined line comes off the route, a deferred one stands with its date and risk', () => {
    const t = estimated();
    const studs = { position: '2L', work: 'studs', answer: 'decline' } as const;
    const seal = { position: '2L', work: 'seal', answer: 'defer' } as const;
    expect(t.try({ ...yes, works: [seal] })).toMatch(/Deferred needs a date and the risk in words: seal/);
    const later = { ...seal, until: '2027-02-01', risk: 'It may reach the lining' };
    expect(t.try({ ...yes, works: [studs, later, { ...studs, work: 'brakes' }] })).toMatch(
      /No work is left in the job/,
    );
    t.do({ ...yes, works: [studs, later] });
    const { plan } = t.at('2L');
    expect(plan.works).toEqual(['brakes']);
    expect(plan.unwanted).toMatchObject([
      { work: 'studs', answer: 'decline', name: 'Q. Fenmoor' },
      { work: 'seal', answer: 'defer', until: '2027-02-01', risk: 'It may reach the lining' },
    ]);
    t.workTo('2L');
    expect(t.at('2L').records.some((r) => r.stepId === 'hub-off')).toBe(false);
  });

  it('a layer that is opened already goes back, whatever the owner says', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['brakes', 'seal']));
    t.workTo('2L', 'judge-parts');
    t.do(
      {
        kind: 'bill-written',
        as: 'estimate',
        bill: { ...bill, lines: [...bill.lines], taxes: [] },
      },
      supervisor,
    );
    const seal = { position: '2L', work: 'seal', answer: 'decline' } as const;
    expect(t.try({ ...yes, works: [seal] })).toMatch(/is opened already: what was opened goes back/);
  });
});

describe('a part on order', () => {
  it('has come, or the old one goes in again, before the step that needs it', () => {
    const t = new TestJob(openingOn(['2L']));
    const lines = linesToAnswer(t.at('2L')).map(({ what }) =>
      what === 'part:hub-seal'
        ? { what, state: 'ordered' as const, by: '2026-11-27' }
        : { what, state: 'have' as const },
    );
    expect(t.recordStep('2L', { kind: 'ready', lines, note: 'Comes tomorrow' })).toBeNull();
    expect(lackedLines(t.at('2L'))).toMatchObject([
      { what: 'part:hub-seal', title: 'Hub seal', by: '2026-11-27' },
    ]);
    t.workTo('2L', 'seal');
    expect(t.recordStep('2L')).toMatch(/Hub seal is on order: wait/);
    t.do({ kind: 'part-received', position: '2L', what: 'part:hub-seal', as: 'received' });
    expect(lackedLines(t.at('2L'))).toMatchObject([]);
    expect(t.recordStep('2L')).toBeNull();
  });
});

describe('hold, resume, void', () => {
  it('a held job takes no work until it is taken up again', () => {
    const t = new TestJob();
    t.do({ kind: 'job-held', reason: 'Waits for seals' });
    expect(t.recordStep('2L')).toBe('The job is held: Waits for seals');
    expect(t.try({ kind: 'job-held', reason: 'again' })).toMatch(/already/);
    t.do({ kind: 'job-resumed' });
    expect(t.recordStep('2L')).toBeNull();
    expect(t.try({ kind: 'job-resumed' })).toMatch(/not held/);
  });

  it('only a supervisor voids, only while nothing is released, and nothing follows', () => {
    const t = new TestJob();
    const voided = { kind: 'job-voided', reason: 'Opened on the wrong unit' } as const;
    expect(t.try(voided)).toMatch(/supervisor/);
    t.do(voided, supervisor);
    expect(isClosed(t.job)).toBe(true);
    expect(t.recordStep('2L')).toBe('The job is void');
    expect(t.try({ kind: 'job-resumed' }, supervisor)).toBe('The job is void');
    const other = new TestJob();
    other.workTo('2L');
    other.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
    expect(other.try(voided, supervisor)).toMatch(/2L is released/);
  });
});

describe('time on each stage', () => {
  it('is the time up to each record; a long silence counts for nothing', () => {
    const t = new TestJob(openingOn(['2L']));
    t.workTo('2L', 'lifted'); // Every record a minute after the one before: ready, chocks.
    const minutes = stageMinutes(t.job, t.at('2L'));
    expect(minutes).toEqual({ ready: 2, 'tear-down': 1 });
    const w = t.at('2L');
    const late = w.records.map((r, i) =>
      i === w.records.length - 1 ? { ...r, at: '2026-11-25T12:00:00.000Z' } : r,
    );
    expect(stageMinutes(t.job, { ...w, records: late })).toEqual({ ready: 2 });
  });
});

describe('what is looked after later', () => {
  it('opens with the release and is done once', () => {
    const t = new TestJob();
    t.workTo('2L');
    const alsoDue = [
      { kind: 'temporary' as const, byDate: '2026-12-10', what: 'Used cap until the new one is in' },
    ];
    t.do({ kind: 'wheel-end-released', position: '2L', alsoDue }, supervisor);
    expect(t.at('2L').release?.alsoDue).toEqual(alsoDue);
    const done = {
      kind: 'follow-up-done',
      position: '2L',
      followUp: 'temporary',
      nth: 0,
      note: 'New cap on',
    } as const;
    expect(t.try({ ...done, followUp: 'oil-level' })).toMatch(/no such/);
    t.do(done);
    expect(lastWords(t)).toBe('2L, temporary repair looked after. New cap on');
    expect(t.try(done)).toMatch(/already/);
  });
});
