import { putsBack, type Act } from '../route/index.ts';
import { effectOf, isUnderCover } from './effects.ts';
import { isOn, layerAt, type Side } from './side.ts';

/** Which closures of a side have to be made, and which are. */
export interface Standing {
  /** Closures that have to be made before the side is whole, in the order of the work. */
  required: readonly Act[];
  /** Whether what an act makes is taken on the word of others who put its layer on. */
  isAssumed: (act: Act) => boolean;
  /** Whether a closure is made, with everything it rests on made before it. */
  counts: (id: string) => boolean;
  /** Whether everything that an act rests on is made, or was left out where it may be: it can be made now. */
  canRest: (act: Act) => boolean;
}

/** Closures of the nut that follow one another; what was done to the brake meanwhile is no part of them. */
const inChain = (act: Act) => act.layer === 'nut' && act.phase === 'back' && act.id !== 'brake-again';

/**
 * How the closures of a side stand.
 * @param acts the put-back acts of the side, in the order of the work
 * @param setBefore steps that set the nut before it was only turned from where it stood; ids, empty where it was set anew
 */
export function standingOf(side: Side, acts: readonly Act[], setBefore: readonly string[]): Standing {
  const back = acts.filter((a) => a.layer && putsBack(a));
  const byId = new Map(back.map((a) => [a.id, a]));
  const isMoved = (act: Act) => layerAt(side, act.layer!).moved !== null || !isOn(side, act.layer!);
  // What others did under a layer that they put on is taken on their word, and stands against the release as such.
  const isAssumed = (a: Act) =>
    side.others[a.layer!] !== undefined &&
    isUnderCover(
      back.filter((b) => b.layer === a.layer),
      a,
    );
  const required = back.filter(
    (a) =>
      a.guard !== 'optional' &&
      !isAssumed(a) &&
      (isMoved(a) || (side.broken[a.id] !== undefined && !side.made[a.id])),
  );
  const needed = new Set([...required.map((a) => a.id), ...setBefore]);
  const chain = [...setBefore, ...back.filter(inChain).map((a) => a.id)];
  const rests = (act: Act): readonly string[] => {
    const { restsOn = [] } = effectOf(act);
    if (inChain(act)) return ['hub-on', ...chain.slice(0, chain.indexOf(act.id))];
    return act.layer === 'cap' && effectOf(act).moves === 'on' ? [...restsOn, ...chain] : restsOn;
  };
  const known = new Map<string, boolean>();
  const counts = (id: string): boolean => {
    const so = known.get(id);
    if (so !== undefined) return so;
    const made = side.made[id];
    const act = byId.get(id);
    // What was left out, where it may be, holds up nothing that was made after it.
    const isThere = (other: string, by: number) =>
      counts(other) ? side.made[other]!.first <= by : (side.skipped[other]?.seq ?? Infinity) <= by;
    const does =
      made !== undefined &&
      (act === undefined || rests(act).every((other) => !needed.has(other) || isThere(other, made.last.seq)));
    known.set(id, does);
    return does;
  };
  const isDone = (other: string) => !needed.has(other) || counts(other) || side.skipped[other] !== undefined;
  return {
    required,
    isAssumed: (act) => act.layer !== null && isAssumed(act),
    counts,
    canRest: (act) => rests(act).every(isDone),
  };
}
