import { describe, expect, it } from 'vitest';
import { everyAct, putsBack, type Act } from '../route/index.ts';
import { everyStack, splitSealed } from '../stack/testing/stacks.ts';
import { worksOf, type LayerId, type Work } from '../stack/index.ts';
import { answer, openingOn, TestJob, withOtherSide } from '../traveller/testing/work.ts';
import { effectOf, hearStep, layerAt, mustBeOff, strikeStep, type NotCounted, type Side } from './index.ts';

/**
 * What each act does to the metal, written down and frozen by the number of the rules: a release of these rules stands
 * on it. An act that is new adds lines; a line that changes changes old jobs, and asks for rules of another number.
 */
const named = (name: string) => [...everyStack, splitSealed].find((b) => b.name === name)!;
const kinds: readonly [name: string, works: Work[]][] = [
  ['heavy drive', ['bearings', 'brakes']],
  ['heavy pre-set', ['bearings', 'brakes']],
  ['towed caravan', ['bearings', 'brakes']],
  ['farm front', ['kingpin']],
  ['bus front', ['bearings']],
  ['light-truck front', ['unit-hub']],
  ['trailer compact hub', ['unit-hub', 'brakes']],
  ['caravan rubber axle', ['unit-hub', 'brakes']],
  ['light-truck rear', ['bearings']],
  ['4×4 front', ['swivels', 'spindle-bearing']],
  ['4×4 front, split seal', ['knuckle-seal']],
  ['crawler', ['seal']],
  ['old drum and hub', ['brakes', 'studs']],
  ['planetary front', ['seal', 'swivels']],
  ['dumper hub, shims', ['bearings']],
];

function jobOn(name: string, works: Work[]): TestJob {
  const { sheetId, stack } = named(name);
  const opening = openingOn(
    ['1L'],
    sheetId,
    works.filter((work) => worksOf(stack).includes(work)),
  );
  const [w] = opening.wheelEnds;
  const route = { ...w!.route!, stack: [...stack] };
  return new TestJob(withOtherSide({ ...opening, wheelEnds: [{ ...w!, route }] }));
}

/** The ids in which two lists differ, those that are gone with a minus. */
function changes(before: object, after: object): string {
  const [was, is] = [Object.keys(before), Object.keys(after)];
  const gone = was.filter((id) => !is.includes(id)).map((id) => `−${id}`);
  return [...gone, ...is.filter((id) => !was.includes(id))].join(' ');
}

function told(before: Side, after: Side, notCounted: NotCounted | null): string {
  const layers = before.stack.flatMap(({ layer }) => {
    const [was, is] = [layerAt(before, layer), layerAt(after, layer)];
    return was.is === is.is && was.own === is.own ? [] : [`${layer} ${is.is}${is.own ? '' : ' (implied)'}`];
  });
  const anew = Object.entries(after.made).flatMap(([id, { first }]) =>
    before.made[id] && before.made[id].first !== first ? [`${id} anew`] : [],
  );
  const parts = {
    layers: layers.join(', '),
    made: [changes(before.made, after.made), ...anew].filter(Boolean).join(' '),
    broken: changes(before.broken, after.broken),
    skipped: changes(before.skipped, after.skipped),
    readings: after.nutMoved > before.nutMoved ? 'void' : '',
    not: notCounted
      ? `${notCounted.why}${'layers' in notCounted ? ` ${notCounted.layers.join(' ')}` : ''}`
      : '',
  };
  const words = Object.entries(parts).flatMap(([what, text]) => (text ? [`${what}: ${text}`] : []));
  return words.join('; ') || 'nothing';
}

const mark = (seq: number) => ({
  ...{ seq, eventId: '00000000-0000-4000-8000-000000000009', jobId: '00000000-0000-4000-8000-000000000008' },
  ...{ at: '2026-11-26T07:00:00.000Z', by: 'D. Achterberg' },
});

function linesOf(t: TestJob, state: string): string[] {
  const w = t.at('1L');
  const built = { sheet: w.sheet, together: w.plan.together };
  const heardAs = (act: Act, more: object) => ({
    ...{ stage: act.stage, stepId: act.id, data: answer(w, act), mark: mark(9_000) },
    ...{ late: false, ofEarlierRound: false, ...more },
  });
  const acts = [...everyAct(w.side.stack, w.sheet).values()].filter((a) => a.layer);
  const closures = new Set(acts.map((a) => a.id));
  return acts.flatMap((act) => {
    const name = `${state}, ${act.layer}/${act.id}`;
    const of = (how: string, more: object) => {
      const { side, notCounted } = hearStep(w.side, built, heardAs(act, more));
      return `${name}${how}: ${told(w.side, side, notCounted)}`;
    };
    const struck = strikeStep(w.side, built, heardAs(act, {}));
    const restsOn = (effectOf(act).restsOn ?? []).filter((id) => closures.has(id));
    return [
      ...(restsOn.length > 0 ? [`${name} rests on: ${restsOn.join(' ')}`] : []),
      of('', {}),
      of(', skipped', { data: null }),
      ...(putsBack(act) ? [] : [`${name}, struck: ${told(w.side, struck, null)}`]),
      `${name} needs off: ${(mustBeOff(w.side.stack, act, false) as LayerId[]).join(' ') || 'nothing'}`,
    ];
  });
}

describe('what every act does to the metal', () => {
  it.each(kinds)('%s', async (name, works) => {
    const whole = jobOn(name, works);
    whole.workTo('1L');
    const apart = jobOn(name, works);
    apart.workTo('1L', 'judge-parts');
    const text = [...linesOf(whole, 'whole'), ...linesOf(apart, 'apart')].join('\n');
    await expect(`${text}\n`).toMatchFileSnapshot(
      `testing/rules-2/${name.replaceAll(/[^a-z0-9]+/gi, '-')}.txt`,
    );
  });

  it('in one with wheel and drum, the hub takes the brake with it', () => {
    const t = jobOn('heavy drive', ['seal']);
    const w = t.at('1L');
    const act = [...everyAct(w.side.stack, w.sheet).values()].find((a) => a.id === 'hub-off')!;
    const nutOff = [...everyAct(w.side.stack, w.sheet).values()].find((a) => a.id === 'nut-off')!;
    const off = (together: boolean, taken: Act = act) =>
      hearStep(
        w.side,
        { sheet: w.sheet, together },
        {
          ...{ stage: taken.stage, stepId: taken.id, data: answer(w, taken), mark: mark(9) },
          ...{ late: false, ofEarlierRound: false },
        },
      ).side;
    expect(layerAt(off(true), 'brake-outer').is).toBe('open');
    expect(layerAt(off(true), 'wheel').is).toBe('on');
    expect(layerAt(off(true, nutOff), 'brake-outer').is).toBe('on');
    expect(layerAt(off(false), 'brake-outer').is).toBe('off');
    expect(layerAt(off(false), 'wheel').is).toBe('off');
  });
});
