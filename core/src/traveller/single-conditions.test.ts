import { describe, expect, it } from 'vitest';
import { buildDifferently, layerAt, unknownSide, type LayerAt } from '../assembly/index.ts';
import { everyAct } from '../route/index.ts';
import type { Work } from '../stack/index.ts';
import { isAsFound } from './is-as-found.ts';
import { againstRelease, mayStayLoose, type WheelEnd } from './index.ts';
import { layerStates } from './layer-states.ts';
import { closuresOf, routeStateOf } from './route-progress.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

describe('a setting that may stay loose', () => {
  /** A steer hub with one castellated nut, left loose: over its band of 0.005 in. */
  const loose = (more: Partial<WheelEnd['sheet']>, inches = 0.006): WheelEnd => {
    const opening = openingOn(['1L'], 'd-steer-18', ['adjust']);
    const t = new TestJob(opening);
    t.workTo('1L', 'end-play');
    t.readings('1L', inches, inches, inches);
    const w = t.at('1L');
    return { ...w, sheet: { ...w.sheet, ...more } };
  };

  it('needs to know thread and lock: without either nobody knows that the next place is tight', () => {
    const known = loose({});
    for (const more of [{ thread: null }, { lock: null }, { thread: null, lock: null }])
      expect(mayStayLoose({ ...known, sheet: { ...known.sheet, ...more } })).toBe(false);
    expect(mayStayLoose({ ...known, sheet: { ...known.sheet, band: null } })).toBe(false);
  });

  it('needs no measurement in band; one that was left out stands against the release where it may not', () => {
    const opening = openingOn(['1L'], 'd-steer-18', ['adjust']);
    const [built] = opening.wheelEnds;
    const sheet = { ...built!.sheet, thread: { threadsPerInch: 8 } };
    const t = new TestJob({ ...opening, wheelEnds: [{ ...built!, sheet }] });
    t.workTo('1L', 'end-play');
    t.readings('1L', 0.006, 0.006, 0.006);
    const { stage, id: stepId } = t.step('1L')!;
    t.do({ kind: 'step-skipped', position: '1L', stage, stepId, round: 1, reason: 'No better place' });
    const left = t.at('1L');
    const codesOf = (w: WheelEnd) => againstRelease(w).map((o) => o.code);
    expect(codesOf(left)).not.toContain('skipped');
    expect(codesOf({ ...left, sheet: { ...left.sheet, lock: null } })).toContain('skipped');
  });

  it('is never one of over twice the limit, though the next place is tight', () => {
    // Eight threads to the inch: the next of twelve places is 0.0104 in on.
    const coarse = { thread: { threadsPerInch: 8 } };
    expect(mayStayLoose(loose(coarse, 0.0099))).toBe(true);
    expect(mayStayLoose(loose(coarse, 0.0102))).toBe(false);
  });
});

describe('metal as the job found it', () => {
  const { records, side } = (() => {
    const t = new TestJob(openingOn(['1L'], 'a-trailer', ['adjust']));
    t.workTo('1L', 'cap-off');
    return t.at('1L');
  })();
  const untouched = unknownSide(side.stack);

  it('is so in a job of the first build only while nothing is recorded', () => {
    const firstBuild = {} as NonNullable<WheelEnd['firstBuild']>;
    expect(isAsFound({ firstBuild, side: untouched, records: [] } as unknown as WheelEnd)).toBe(true);
    expect(isAsFound({ firstBuild, side: untouched, records } as unknown as WheelEnd)).toBe(false);
  });

  it('is so whatever is recorded, while nothing was moved or broken', () => {
    expect(isAsFound({ firstBuild: null, side: untouched, records } as unknown as WheelEnd)).toBe(true);
    const t = new TestJob(openingOn(['1L'], 'a-trailer', ['adjust']));
    t.workTo('1L', 'nut-off');
    expect(isAsFound(t.at('1L'))).toBe(false);
  });
});

it('a nut that was only opened stays one that is opened, while its setting goes on', () => {
  const nutOf = (works: ('adjust' | 'seal')[]) => {
    const t = new TestJob(openingOn(['1L'], 'a-trailer', works));
    t.workTo('1L', 'seat');
    return routeStateOf(t.at('1L')).reach.layers.get('nut');
  };
  expect(nutOf(['adjust'])).toBe('open');
  expect(nutOf(['seal'])).toBe('off');
});

describe('a bearing that is to be adjusted as well', () => {
  const adjustToo = (t: TestJob) =>
    t.do({ kind: 'work-added', position: '1L', work: 'adjust', reason: 'Loose' }, supervisor);
  const seal = (until: string) => {
    const t = new TestJob(openingOn(['1L'], 'a-trailer', ['seal']));
    t.workTo('1L', until);
    return t;
  };

  it('is set once, where nothing of its setting was done yet', () => {
    const t = seal('lubricate');
    adjustToo(t);
    expect(t.at('1L').rounds).toHaveLength(1);
    expect(t.step('1L')?.id).toBe('lubricate');
  });

  it('is set anew where something was, and that once', () => {
    const t = seal('end-play');
    adjustToo(t);
    expect(t.at('1L').rounds).toHaveLength(2);
    const again = seal('end-play');
    again.do({ kind: 'adjust-reopened', position: '1L', round: 1, from: 'start' });
    adjustToo(again);
    expect(again.at('1L').rounds).toHaveLength(2);
  });
});

it('a job of another work that is to adjust as well takes no setting of an earlier job for its own', () => {
  const t = new TestJob(openingOn(['1L'], 'a-trailer', ['wheel-off']));
  t.workTo('1L', 'wheel-off');
  expect(t.at('1L').rounds).toMatchObject([{ seq: -1 }]);
  t.do({ kind: 'work-added', position: '1L', work: 'adjust', reason: 'Loose' }, supervisor);
  expect(t.at('1L').rounds).toMatchObject([{ seq: 0 }]);
});

it('a nut counts as put on by its first turn, and by no later one', () => {
  const t = new TestJob(openingOn(['1L'], 'a-trailer', ['seal']));
  t.workTo('1L', 'seat');
  const nut = () => layerAt(t.at('1L').side, 'nut');
  expect(nut()).toMatchObject({ is: 'off' });
  t.recordStep('1L');
  const { onSeq } = nut();
  expect(nut()).toMatchObject({ is: 'open', onSeq: t.at('1L').records.at(-1)!.seq });
  t.recordStep('1L');
  t.recordStep('1L');
  expect(nut()).toMatchObject({ is: 'open', onSeq });
});

it('a layer that a wheel end turns out not to have is nothing that is off', () => {
  const t = new TestJob(openingOn(['1L'], 'a-drive-tang', ['seal']));
  t.workTo('1L', 'hub-off');
  const w = t.at('1L');
  const stack = w.side.stack.filter((l) => l.layer !== 'cap');
  const mark = { seq: 99, eventId: '', jobId: '', at: '', by: '' };
  const change = { stack, nutIsOther: false, lost: [], mark };
  const { layers } = buildDifferently(w.side, { sheet: w.sheet, together: false }, change);
  expect(w.side.layers.cap).toMatchObject({ is: 'off' });
  expect(layers).not.toHaveProperty('cap');
  expect(layers.wheel).toMatchObject({ is: 'off' });
});

it('what was felt stands while the dial agrees, and not against one that reads out of band', () => {
  const t = new TestJob(openingOn(['1L'], 'd-towed', ['adjust']));
  t.workTo('1L', 'end-play');
  t.readings('1L', 0.003);
  expect(t.recordStep('1L', { kind: 'measure', by: 'feel' })).toBeNull();
  const w = t.at('1L');
  const codesOf = (by: number) =>
    againstRelease({
      ...w,
      readings: w.readings.map((r) => ({ ...r, pull: { ...r.pull, si: r.pull.si * by } })),
    }).map((o) => o.code);
  expect(codesOf(1)).not.toContain('dial-says-otherwise');
  expect(codesOf(10)).toContain('dial-says-otherwise');
});

it('readings as found that do not repeat are never released', () => {
  const t = new TestJob(openingOn(['1L'], 'a-trailer', ['wheel-off']));
  t.workTo('1L', 'as-found');
  t.readings('1L', 0.002, 0.006, 0.012);
  expect(againstRelease(t.at('1L'))).toContainEqual(
    expect.objectContaining({ code: 'not-repeated', guard: 'never' }),
  );
});

it('wheel nuts that were cracked, though wheel and hub come off in one, are of a wheel that would come off', () => {
  const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal'], { together: true }));
  t.workTo('2L', 'cap-cracked');
  const at = {
    kind: 'step-recorded',
    position: '2L',
    stage: 'tear-down',
    stepId: 'wheel-cracked',
    round: 1,
  } as const;
  t.do({ ...at, data: { kind: 'instruct' } });
  expect(routeStateOf(t.at('2L')).reach.layers.get('wheel')).toBe('off');
  expect(routeStateOf(t.at('2L')).reach.layers.get('brake-outer')).toBe('open');
});

describe('what a closure rests on', () => {
  const canRest = (works: Work[], until: string, id: string) => {
    const t = new TestJob(openingOn(['1L'], 'a-trailer', works));
    t.workTo('1L', until);
    const w = t.at('1L');
    const act = [...everyAct(w.side.stack, w.sheet).values()].find((a) => a.id === id)!;
    return closuresOf(w).canRest(act);
  };

  it('is there once it was made', () => {
    expect(canRest(['seal'], 'seat', 'lock')).toBe(false);
    expect(canRest(['seal'], 'jam-nut', 'lock')).toBe(false);
    expect(canRest(['seal'], 'lock', 'lock')).toBe(true);
  });

  it('is nothing that a job which leaves it alone has to make', () => {
    expect(canRest(['wheel-off'], 'wheel-faces', 'lock')).toBe(true);
  });
});

describe('a wheel end of a retorque alone', () => {
  const retorque = new TestJob(openingOn(['1L'], 'a-trailer', ['retorque'])).at('1L');
  const inTheAir = (id: 'wheel' | 'cap', found: object) => {
    const { side } = retorque;
    const layers = { ...side.layers, [id]: { ...layerAt(side, id), is: 'on', ...found } };
    return routeStateOf({ ...retorque, side: { ...side, layers } } as WheelEnd).inTheAir;
  };

  it('stays on the ground while nothing but its cap comes off', () => {
    expect(inTheAir('wheel', {})).toBe(false);
    expect(inTheAir('cap', { is: 'off', outSeq: 3 })).toBe(false);
  });

  it('is in the air once something is off, was taken off, or was put back that had come off before the job', () => {
    expect(inTheAir('wheel', { is: 'off' })).toBe(true);
    expect(inTheAir('wheel', { is: 'off', outSeq: 3 })).toBe(true);
    expect(inTheAir('wheel', { outSeq: 3, onSeq: 4 })).toBe(true);
    expect(inTheAir('wheel', { onSeq: 4 })).toBe(true);
  });

  it('is in the air once something has to come off', () => {
    const again = { ...retorque.plan, wishes: [{ layer: 'hub', how: 'off', seq: 3 }] } as WheelEnd['plan'];
    expect(routeStateOf({ ...retorque, plan: again }).inTheAir).toBe(true);
  });
});

describe('a layer that is on and whole', () => {
  const mark = { seq: 0, eventId: 'e', jobId: 'j', at: '2026-06-01T08:00:00.000Z', by: 'D. Achterberg' };
  const capIs = (more: Partial<LayerAt>) => {
    const w = new TestJob(openingOn(['1L'], 'a-trailer', ['repack'])).at('1L');
    const isMade = { first: 0, last: mark };
    const made = Object.fromEntries([...everyAct(w.side.stack, w.sheet).values()].map((a) => [a.id, isMade]));
    const cap = { ...layerAt(w.side, 'cap'), is: 'on' as const, moved: null, ...more };
    // A job that leaves the wheel end alone: nothing is ahead.
    return layerStates({ ...w, plan: { ...w.plan, works: [] }, side: { ...w.side, made, layers: { cap } } })
      .cap;
  };
  it('is untouched where nothing moved it', () => {
    expect(capIs({ outSeq: -1, onSeq: -1 })).toBe('untouched');
  });

  it('is back where an earlier job moved it, or this one took it off or put it on', () => {
    for (const more of [{ moved: mark }, { outSeq: 3 }, { onSeq: 4 }])
      expect(capIs({ outSeq: -1, onSeq: -1, ...more })).toBe('back');
  });
});
