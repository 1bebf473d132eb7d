/** Numbers by chance, from a seed that the caller keeps. */
export interface Chance {
  /** From 0 to 1. */
  next: () => number;
  between: (from: number, to: number) => number;
  normal: (mean: number, sd: number) => number;
}

/** One hub as it really is, which nobody sees but through a dial. End play in mm. */
export interface HubTruth {
  setMm: number;
  setKm: number;
  /** Wear in mm per 1,000 km. */
  wear: number;
  /** What the fresh setting gives up in the first few hundred km. */
  settleMm: number;
  /** mm per 1,000 km that the nut walks where it was not locked; 0 when locked. */
  walk: number;
}

const SETTLE_KM = 800;

/**
 * A hub in its usual state, or one of the few whose bearings are going.
 * @source rates of wear and settling: values from memory, for a made-up shop
 */
export function newHub(random: Chance, km: number): HubTruth {
  const failing = random.next() < 0.05;
  return {
    setMm: random.between(0.05, 0.1),
    setKm: km,
    wear: random.between(0.0001, 0.0003) * (failing ? 6 : 1),
    settleMm: random.between(0.003, 0.012),
    walk: 0,
  };
}

/** The true end play at a distance: settled, worn, and walked loose where the lock was missing. */
export function truePlayMm(hub: HubTruth, km: number): number {
  const gone = Math.max(0, km - hub.setKm);
  const settled = hub.settleMm * (1 - Math.exp(-gone / SETTLE_KM));
  return hub.setMm + settled + ((hub.wear + hub.walk) * gone) / 1000;
}

/** A setting just made: where the fitter's back-off happened to leave it. */
export function freshSettingMm(random: Chance): number {
  return Math.max(0.002, random.normal(0.085, 0.04));
}
