import { describe, expect, it } from 'vitest';
import { unknownSide } from '../assembly/index.ts';
import { isAsFound } from './is-as-found.ts';
import { mayStayLoose, type WheelEnd } from './index.ts';
import { routeStateOf } from './route-progress.ts';
import { openingOn, TestJob } from './testing/work.ts';

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
