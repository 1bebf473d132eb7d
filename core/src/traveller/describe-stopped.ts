import { liningMinimums, type BrakeKind } from '../brake/index.ts';
import { layerTitles, type LayerId } from '../stack/index.ts';
import type { BodyOf } from './event.ts';
import type { Job, Stopped, WheelEnd } from './job.ts';
import { layerStates } from './layer-states.ts';

/** How a job stands that does not go on. */
export const stoppedWords: Record<Stopped['as'], string> = {
  held: 'Held',
  void: 'Void',
  'out-of-service': 'Out of service',
};

/** How a unit out of service leaves, in words. */
export const leaving: Record<BodyOf<'ended-out-of-service'>['leaves'], string> = {
  stays: 'the unit stays',
  'on-a-bed': 'it leaves on a bed',
  'axle-lifted': 'it leaves with that axle lifted',
};

const YARD_ONLY = 'For the yard only';

/** Whether a reason to be out of service, as lists hold it, lets the unit roll about the yard. */
export const mayRollInYard = (reason: string | null): boolean => reason?.startsWith(YARD_ONLY) ?? false;

/** Why a wheel end that is released stays in the yard; null where it may go on the road. */
export function describeYardOnly({ release, side: { yardOnly } }: WheelEnd): string | null {
  if (!release || !yardOnly) return null;
  const { mm, leastMm, brake } = yardOnly;
  const kind = liningMinimums[brake as BrakeKind].title.toLowerCase();
  return `${YARD_ONLY}: a lining of ${mm.toFixed(1)} mm, at or under the ${leastMm} mm for ${kind}`;
}

/** What is off or open on a wheel end now: `2L: hub off, bearing nut off`. */
export function describeOff(w: WheelEnd): string {
  const off = Object.entries(layerStates(w)).flatMap(([id, state]) =>
    state === 'off' || state === 'open' ? [`${layerTitles[id as LayerId].toLowerCase()} ${state}`] : [],
  );
  return `${w.position}: ${off.length === 0 ? 'nothing off' : off.join(', ')}`;
}

/**
 * Why a job does not go on and, out of service, how the unit leaves, what is off or open on the wheel ends that are
 * not released, and who was told. Empty while it goes on.
 */
export function describeStopped({ stopped, wheelEnds }: Job): string {
  if (!stopped) return '';
  if (stopped.as !== 'out-of-service') return stopped.reason;
  const off = wheelEnds.filter((w) => !w.release).map(describeOff);
  return `${stopped.reason}; ${leaving[stopped.leaves]}. ${off.join('. ')}. Told: ${stopped.told}`;
}
