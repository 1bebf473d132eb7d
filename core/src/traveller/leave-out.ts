import { oppositeOf } from '../axle-plan/index.ts';
import { isAsFound } from './is-as-found.ts';
import type { Job, Trace, WheelEnd } from './job.ts';

type Ends = Pick<Job, 'wheelEnds' | 'leftOut'>;

/** Each wheel end is told whether the other side of its axle is in the job; in the order of their positions. */
export function knowEachOther(wheelEnds: readonly WheelEnd[]): WheelEnd[] {
  const here = new Set(wheelEnds.map((w) => w.position));
  return wheelEnds
    .map((w) => {
      const withOther = here.has(oppositeOf(w.position));
      return w.withOther === withOther ? w : { ...w, withOther };
    })
    .sort((a, b) => (a.position < b.position ? -1 : 1));
}

/**
 * Wheel ends that are as the job found them are not in it any more. One that is not as it was, after a correction,
 * stays in.
 * @param reason null where the owner's answer left nothing to do on them
 */
export function leaveOutOfJob(
  { wheelEnds, leftOut }: Ends,
  positions: ReadonlySet<string>,
  out: Trace & { reason: string | null },
): Ends {
  const leaving = wheelEnds.filter((w) => positions.has(w.position) && isAsFound(w));
  if (leaving.length === 0) return { wheelEnds, leftOut };
  return {
    wheelEnds: knowEachOther(wheelEnds.filter((w) => !leaving.includes(w))),
    leftOut: [...leftOut, ...leaving.map((w) => ({ ...w, leftOut: out }))],
  };
}

/** What is recorded on one wheel end: one that was left out is in the job again as soon as its metal was moved. */
export function onWheelEnd(
  job: Ends,
  position: string,
  act: (wheelEnds: readonly WheelEnd[]) => WheelEnd[],
): Ends {
  const out = job.leftOut.find((w) => w.position === position);
  if (!out) return { wheelEnds: act(job.wheelEnds), leftOut: job.leftOut };
  const ends = act([...job.wheelEnds, out]);
  const after = ends.find((w) => w.position === position)!;
  const others = job.leftOut.filter((w) => w !== out);
  return isAsFound(after)
    ? { wheelEnds: ends.filter((w) => w !== after), leftOut: [...others, after] }
    : {
        wheelEnds: knowEachOther(ends.map((w) => (w === after ? { ...w, leftOut: null } : w))),
        leftOut: others,
      };
}
