import type { Band } from '../calculation/index.ts';
import { sideOfBand } from '../end-play/index.ts';
import type { Thread } from '../calculation/index.ts';
import type { Lock } from './lock.ts';
import { planNutSetting, type NutOption, type NutSetting } from './setting.ts';

/** What can be done when no lock position is in band. Handbook order: cheapest first. */
export type Remedy =
  'turn-washer-over' | 'change-washer' | 'second-hole' | 'change-nut' | 'find-what-binds' | 'inspect';

/** What to do about a reading. */
export interface Advice {
  setting: NutSetting;
  /** The lock position to go to; null when none is in band, or nothing needs turning. */
  go: NutOption | null;
  remedies: readonly Remedy[];
}

/**
 * Advises on a mean end play: which lock position to turn to, or what else can bring it in.
 * `inspect` closes the list of a loose one: if tightening does not bring it in, the bearings are worn. A tight one is
 * bound by something: `find-what-binds`.
 * @param measuredMm mean end play in mm
 */
export function adviseSetting(measuredMm: number, band: Band, thread: Thread, lock: Lock): Advice {
  const setting = planNutSetting({ thread, lock, measuredMm, band });
  if (sideOfBand(measuredMm, band) === 'in-band') return { setting, go: null, remedies: [] };
  const go = setting.best === null ? null : (setting.options[setting.best] ?? null);
  const remedies = go ? [] : remediesFor(measuredMm, band, thread, lock);
  const tight = sideOfBand(measuredMm, band) === 'tight';
  return {
    setting,
    go,
    remedies: tight ? remedies.map((r) => (r === 'inspect' ? 'find-what-binds' : r)) : remedies,
  };
}

function remediesFor(measuredMm: number, band: Band, thread: Thread, lock: Lock): Remedy[] {
  const helps = (other: Lock) => planNutSetting({ thread, lock: other, measuredMm, band }).best !== null;
  if (lock.kind === 'indexed') {
    const over = !lock.reversible && helps({ ...lock, reversible: true });
    return over ? ['turn-washer-over', 'change-washer', 'inspect'] : ['change-washer', 'inspect'];
  }
  if (lock.kind === 'castellated') {
    const first = lock.holeAxesDeg[0] ?? 0;
    const second = lock.holeAxesDeg.length === 1 && helps({ ...lock, holeAxesDeg: [first, first + 90] });
    return second ? ['second-hole', 'change-nut', 'inspect'] : ['change-nut', 'inspect'];
  }
  return ['inspect'];
}
