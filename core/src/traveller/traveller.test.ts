import { describe, expect, it } from 'vitest';
import { familySheets } from '../procedure/index.ts';
import { quantity } from '../quantity/index.ts';
import {
  againstRelease,
  commandSchema,
  decideOpening,
  fold,
  FoldError,
  isClosed,
  lastVerdict,
  describeEvent,
  stageAtHand,
  stageStates,
  verdictOf,
} from './index.ts';
import { openingOn, supervisor, technician, TestJob, withOtherSide } from './testing/work.ts';
import { release } from './testing/ways.ts';

describe('the order of work', () => {
  it('takes steps in whatever order they were done, and each once', () => {
    const t = new TestJob();
    const ready = t.step('2L')!;
    const chocks = {
      kind: 'step-recorded',
      position: '2L',
      stage: 'tear-down',
      stepId: 'chocks',
      round: 1,
      data: { kind: 'instruct' },
    } as const;
    expect(t.try(chocks)).toBeNull();
    expect(t.step('2L')).toBe(ready);
    expect(t.recordStep('2L')).toBeNull();
    expect(t.step('2L')?.id).toBe('lifted');
    expect(t.try(chocks)).toBe('“Level ground, chocks” on 2L is recorded already');
  });

  it('keeps left and right apart', () => {
    const t = new TestJob();
    t.workTo('2L', 'seat');
    expect(stageAtHand(t.at('2L'))).toBe('adjust');
    expect(stageAtHand(t.at('2R'))).toBe('ready');
    expect(stageStates(t.at('2R'))).toMatchObject({ intake: 'done', ready: 'now', adjust: 'ahead' });
  });

  it('says of a stage that this route has nothing to do in it', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['wheel-off']));
    expect(stageStates(t.at('2L'))).toMatchObject({
      adjust: 'nothing',
      verify: 'nothing',
      'wheel-on': 'ahead',
    });
  });

  it('takes readings whenever they were made; none from before the nut moved counts', () => {
    const t = new TestJob();
    t.workTo('2L', 'seat');
    const cycle = { push: quantity(0, 'in'), pull: quantity(0.003, 'in'), source: 'typed' } as const;
    for (let i = 0; i < 3; i++) t.do({ kind: 'reading-taken', position: '2L', round: 1, ...cycle });
    expect(verdictOf(t.at('2L'))?.verdict).toBe('in-band');
    t.recordStep('2L');
    expect(verdictOf(t.at('2L'))).toBeNull();
    t.workTo('2L', 'end-play');
    const huge = {
      kind: 'reading-taken',
      position: '2L',
      round: 1,
      push: quantity(0, 'mm'),
      pull: quantity(20, 'mm'),
      source: 'typed',
    } as const;
    expect(t.try(huge)).toMatch(/is not possible/);
  });

  it('answers each step in its own kind', () => {
    const t = new TestJob();
    t.workTo('2L', 'seat');
    expect(t.recordStep('2L', { kind: 'instruct' })).toMatch(/step to torque/);
    t.workTo('2L', 'washer');
    expect(t.recordStep('2L', { kind: 'choose', option: 'hammered' })).toMatch(/not a choice/);
    t.workTo('2L', 'lock');
    expect(t.recordStep('2L', { kind: 'lock', method: 'hope' })).toMatch(/not a way to lock/);
  });

  it('wants a reason for a torque off its figure, and lets 4 % of tool tolerance pass (ISO 6789, from memory)', () => {
    const t = new TestJob();
    t.workTo('2L', 'seat');
    const torque = (value: number, note?: string) =>
      t.recordStep('2L', {
        kind: 'torque',
        torque: quantity(value, 'lbf-ft'),
        tool: 'TW-03',
        rounds: 3,
        note,
      });
    expect(torque(150)).toMatch(/enter a reason/);
    expect(torque(192)).toBeNull();
  });
});

describe('verify', () => {
  it('is done only in band; out of band it goes back to Adjust and keeps every reading', () => {
    const t = new TestJob();
    t.workTo('2L', 'end-play');
    t.readings('2L', 0.0085, 0.0081, 0.0083);
    expect(t.recordStep('2L')).toMatch(/loose/);
    expect(stageStates(t.at('2L')).verify).toBe('trouble');
    t.do({
      kind: 'adjust-reopened',
      position: '2L',
      round: 1,
      from: 'setting',
      turns: 1 / 16,
      predictedMm: 0.11,
    });
    expect(t.step('2L')?.id).toBe('jam-off');
    t.workTo('2L', 'end-play');
    expect(verdictOf(t.at('2L'))).toBeNull();
    t.readings('2L', 0.0044, 0.0042, 0.0043);
    expect(t.recordStep('2L')).toBeNull();
    expect(t.at('2L').readings.filter((r) => r.round === 1)).toHaveLength(3);
    expect(verdictOf(t.at('2L'), 1)?.verdict).toBe('loose');
    expect(lastVerdict(t.at('2L'))).toMatchObject({ round: 2, result: { verdict: 'in-band' } });
  });

  it('records feel as feel where the sheet allows it, and insists on the dial where it does not', () => {
    const towed = new TestJob(openingOn(['1L'], 'd-towed'));
    towed.workTo('1L', 'end-play');
    expect(towed.recordStep('1L', { kind: 'measure', by: 'feel' })).toBeNull();
    towed.workTo('1L');
    expect(againstRelease(towed.at('1L'))).toEqual([]);
    const heavy = new TestJob();
    heavy.workTo('2L', 'end-play');
    expect(heavy.recordStep('2L', { kind: 'measure', by: 'feel' })).toMatch(/needs the dial/);
  });

  it('takes a reading as found before anything is loosened, whatever it says', () => {
    const t = new TestJob();
    t.workTo('2L', 'as-found');
    t.readings('2L', 0.012, 0.012, 0.012);
    expect(t.recordStep('2L')).toBeNull();
    expect(lastVerdict(t.at('2L'))).toMatchObject({ round: 0, result: { verdict: 'loose' } });
    expect(stageStates(t.at('2L')).diagnose).toBe('done');
  });

  it('going back twice at once is refused the second time', () => {
    const t = new TestJob();
    t.workTo('2L', 'end-play');
    const back = { kind: 'adjust-reopened', position: '2L', round: 1, from: 'start' } as const;
    t.do(back);
    expect(t.try(back)).toMatch(/gone back to Adjust already/);
  });
});

describe('release', () => {
  it('is a supervisor’s, seals the wheel end and opens the retorque', () => {
    const t = new TestJob();
    t.workTo('2L');
    expect(t.try(release('2L'))).toMatch(/supervisor/);
    t.do(release('2L'), supervisor);
    expect(t.at('2L').release?.followUp).toEqual({ fromKm: 611_320, byKm: 611_400, byDate: '2026-12-09' });
    expect(t.try({ kind: 'adjust-reopened', position: '2L', round: 1, from: 'start' })).toMatch(/released/);
    expect(isClosed(t.job)).toBe(false);
    t.workTo('2R');
    t.do(release('2R'), supervisor);
    expect(isClosed(t.job)).toBe(true);
  });

  it('is refused to everybody without the lock, and the lock cannot be left out', () => {
    const t = new TestJob();
    t.workTo('2L', 'lock');
    expect(t.skip('2L', 'no washer')).toMatch(/“Lock the nut” cannot be skipped/);
    expect(t.try(release('2L', 'It has to be on the road tonight'), supervisor)).toMatch(
      /^2L cannot be released: The lock is not recorded/,
    );
  });

  it('in spite of something less takes a sentence, says what, and opens a temporary follow-up', () => {
    const t = new TestJob();
    t.workTo('2L', 'sensor');
    expect(t.skip('2L', 'lead is on order')).toBeNull();
    t.workTo('2L');
    const words = 'Assemble, “Sensor and tone ring” was skipped: lead is on order';
    expect(t.try(release('2L'), supervisor)).toBe(words);
    expect(t.try(release('2L', 'x'), supervisor)).toMatch(/in a sentence/);
    t.do(release('2L', 'Runs in the yard only until the lead is here'), supervisor);
    expect(t.at('2L').release).toMatchObject({
      overrideReason: 'Runs in the yard only until the lead is here',
      overridden: [{ code: 'skipped', guard: 'supervisor', params: { step: 'sensor' } }],
      alsoDue: [{ kind: 'temporary', byDate: '2026-12-09', what: words }],
    });
    expect(describeEvent(t.job, t.job.events.at(-1)!, null)).toContain(words);
  });

  it('of one’s own work is marked as such', () => {
    const own = { ...technician, role: 'supervisor' } as const;
    const t = new TestJob();
    t.workTo('2L');
    t.do(release('2L'), own);
    expect(t.job.events.at(-1)!.body).toMatchObject({ ownWork: true });
  });

  it.each([
    ['nothing is recorded', (t: TestJob) => t, /The lock is not recorded/],
    [
      'the reading is loose',
      (t: TestJob) => (t.workTo('2L', 'end-play'), t.readings('2L', 0.01, 0.01, 0.01), t),
      /End play is loose by 0.0050 in/,
    ],
    [
      'two cycles only',
      (t: TestJob) => (t.workTo('2L', 'end-play'), t.readings('2L', 0.003, 0.003), t),
      /three cycles/,
    ],
    [
      'an inspection said no',
      (t: TestJob) => {
        t.workTo('2L', 'hose');
        t.recordStep('2L', { kind: 'inspect', ok: false, note: 'clip broken' });
        return t;
      },
      /found trouble: clip broken/,
    ],
  ])('refuses when %s', (_what, prepare, words) => {
    expect(prepare(new TestJob()).try(release('2L'), supervisor)).toMatch(words);
  });

  it('keeps no override where none was needed', () => {
    const t = new TestJob();
    t.workTo('2L');
    t.do(release('2L', 'just in case'), supervisor);
    expect(t.at('2L').release).toMatchObject({ overrideReason: null, overridden: [] });
  });

  it('is followed by one retorque', () => {
    const t = new TestJob();
    const retorque = {
      kind: 'retorque-recorded',
      position: '2L',
      torque: quantity(450, 'lbf-ft'),
      tool: 'TW-05',
    } as const;
    expect(t.try(retorque)).toMatch(/not released/);
    t.workTo('2L');
    t.do(release('2L'), supervisor);
    t.do(retorque);
    expect(t.try(retorque)).toMatch(/already/);
  });
});

describe('correction', () => {
  const wrongReading = () => {
    const t = new TestJob();
    t.workTo('2L', 'end-play');
    t.readings('2L', 0.003, 0.03, 0.003);
    return { t, event: t.job.events.at(-2)! };
  };
  const right = {
    kind: 'reading-taken',
    position: '2L',
    round: 1,
    push: quantity(0, 'in'),
    pull: quantity(0.003, 'in'),
    source: 'typed',
  } as const;

  it('changes what counts and keeps what was', () => {
    const { t, event } = wrongReading();
    t.do({ kind: 'correction', corrects: event.id, reason: 'slipped a digit', replacement: right });
    expect(verdictOf(t.at('2L'))?.verdict).toBe('in-band');
    expect(t.at('2L').readings.find((r) => r.corrected)?.corrected?.reason).toBe('slipped a digit');
    expect(
      t.job.events.some(
        (e) => e.id === event.id && e.body.kind === 'reading-taken' && e.body.pull.value === 0.03,
      ),
    ).toBe(true);
    expect(describeEvent(t.job, t.job.events.at(-1)!, null)).toMatch(
      /corrected .*0.0300 in.* to .*0.0030 in.*: slipped a digit/,
    );
  });

  it('can strike a record out, and the step is to be done again', () => {
    const t = new TestJob();
    t.workTo('2L', 'rotate');
    t.do({ kind: 'correction', corrects: t.job.events.at(-1)!.id, reason: 'other side', replacement: null });
    expect(t.step('2L')?.id).toBe('seat');
  });

  it('stays with its record, its person and open work', () => {
    const { t, event } = wrongReading();
    expect(
      t.try({
        kind: 'correction',
        corrects: event.id,
        reason: 'x',
        replacement: { ...right, position: '2R' },
      }),
    ).toMatch(/stays with/);
    expect(
      t.try({ kind: 'correction', corrects: t.job.events[0]!.id, reason: 'x', replacement: null }),
    ).toMatch(/put right, not struck out/);
    const other = { ...technician, id: supervisor.id };
    expect(t.try({ kind: 'correction', corrects: event.id, reason: 'x', replacement: null }, other)).toMatch(
      /Only who recorded it/,
    );
    expect(
      t.try({ kind: 'correction', corrects: event.id, reason: 'x', replacement: null }, supervisor),
    ).toBeNull();
  });

  it('of a reading after the release makes the record say so', () => {
    const t = new TestJob();
    t.workTo('2L');
    t.do(release('2L'), supervisor);
    const reading = t.job.events.find((e) => e.body.kind === 'reading-taken' && e.body.round === 1)!;
    expect(t.try({ kind: 'correction', corrects: reading.id, reason: 'misread', replacement: null })).toMatch(
      /a supervisor corrects it/,
    );
    t.do({ kind: 'correction', corrects: reading.id, reason: 'misread', replacement: null }, supervisor);
    expect(againstRelease(t.at('2L'))).toEqual([{ code: 'not-repeated', guard: 'never', params: {} }]);
  });
});

describe('a kept sum', () => {
  const kept = {
    kind: 'reckoning-kept',
    position: '2L',
    name: 'nut-travel',
    title: 'Nut travel',
    summary: 'travel 3 mm',
    reckoned: { input: { thread: { pitchMm: 1.5 }, turns: 2 }, result: { travelMm: 3 } },
  } as const;

  it('stands with its wheel end until it is struck out, and is no step', () => {
    const t = new TestJob();
    const before = t.step('2L');
    t.do(kept);
    expect(t.at('2L').reckonings).toMatchObject([{ summary: 'travel 3 mm', by: technician }]);
    expect(t.at('2R').reckonings).toEqual([]);
    expect(t.step('2L')).toEqual(before);
    expect(describeEvent(t.job, t.job.events.at(-1)!, null)).toBe('2L, reckoned, Nut travel: travel 3 mm');
    const corrects = t.job.events.at(-1)!.id;
    t.do({ kind: 'correction', corrects, reason: 'Wrong thread', replacement: null });
    expect(t.at('2L').reckonings).toEqual([]);
  });

  it('of absurd length is not taken', () => {
    const input = { list: Array.from({ length: 30_000 }, (_, i) => i) };
    expect(commandSchema.safeParse({ ...kept, reckoned: { input, result: {} } }).success).toBe(false);
  });
});

describe('every family', () => {
  it.each(familySheets.filter((s) => s.sheetId !== 'b-other').map((s) => [s.sheetId]))(
    'a whole job on %s ends released, with nothing against it',
    (sheetId) => {
      const t = new TestJob(withOtherSide(openingOn(['1L'], sheetId)));
      t.workTo('1L');
      expect(againstRelease(t.at('1L'))).toEqual([]);
      for (const { position } of t.job.wheelEnds) {
        t.workTo(position);
        t.do(release(position), supervisor);
      }
      expect(isClosed(t.job)).toBe(true);
    },
  );

  it('a torque the shop has no figure for is held against the maker’s', () => {
    const t = new TestJob(openingOn(['1L'], 'f-unitised'));
    t.workTo('1L', 'hub-bolts');
    const data = { kind: 'torque', torque: quantity(80, 'lbf-ft'), tool: 'TW-03', rounds: 1 } as const;
    expect(t.recordStep('1L', data)).toMatch(/maker’s sheet/);
    expect(t.recordStep('1L', { ...data, asked: quantity(110, 'lbf-ft') })).toMatch(/enter a reason/);
    expect(t.recordStep('1L', { ...data, asked: quantity(80, 'lbf-ft') })).toBeNull();
    expect(describeEvent(t.job, t.job.events.at(-1)!, null)).toMatch(/the maker asks for 80 lbf·ft/);
  });

  it('a preload is taken by its drag, and held against the sheet’s figure where it has one', () => {
    const opening = openingOn(['1L'], 'h-lock-nuts');
    const drag = {
      min: quantity(20, 'N'),
      max: quantity(40, 'N'),
      mark: 'shop',
      source: 'Set by the shop',
    } as const;
    const [end] = opening.wheelEnds;
    const t = new TestJob({ ...opening, wheelEnds: [{ ...end!, sheet: { ...end!.sheet, drag } }] });
    t.workTo('1L', 'drag');
    expect(t.recordStep('1L', { kind: 'measure', by: 'feel' })).toMatch(/by its drag/);
    expect(t.recordStep('1L', { kind: 'measure', by: 'drag' })).toBe('Measure the pull');
    expect(t.recordStep('1L', { kind: 'measure', by: 'drag', pull: quantity(30, 'N') })).toBeNull();
  });
});

describe('opening and folding', () => {
  it('refuses wheel ends that have no work, work they cannot have, or stand twice', () => {
    expect(decideOpening(openingOn(['1L', '1L']))).toMatchObject({ refusal: { code: 'named-twice' } });
    const opening = openingOn(['1L']);
    const [w] = opening.wheelEnds;
    const bare = { ...w!, route: undefined };
    expect(decideOpening({ ...opening, wheelEnds: [bare] })).toMatchObject({
      refusal: { code: 'nothing-wanted', params: { position: '1L' } },
    });
    const swivels = { ...w!, route: { ...w!.route!, works: ['swivels' as const] } };
    expect(decideOpening({ ...opening, wheelEnds: [swivels] })).toMatchObject({
      refusal: { code: 'no-route', params: { why: { code: 'work-without-part' } } },
    });
    const lacking = { ...w!, sheet: { ...w!.sheet, backOff: null } };
    expect(decideOpening({ ...opening, wheelEnds: [lacking] })).toMatchObject({
      refusal: { code: 'no-route', params: { why: { code: 'sheet-lacks-back-off' } } },
    });
  });

  it('keeps the figures a job was opened with', () => {
    const t = new TestJob(openingOn(['2L'], 'a-steer-double'));
    expect(t.at('2L').sheet.backOff?.turns).toBe(-0.5);
  });

  it('throws on lists that are no job', () => {
    const t = new TestJob();
    t.workTo('2L', 'seat');
    const events = t.job.events;
    expect(() => fold([])).toThrow(FoldError);
    expect(() => fold(events.slice(1))).toThrow(FoldError);
    expect(() => fold([...events, events.at(-1)!])).toThrow(/out of order/);
    expect(() => fold([events[0]!, { ...events[1]!, jobId: events[0]!.id }])).toThrow(/another job/);
  });
});
