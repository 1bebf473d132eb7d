import { createHash } from 'node:crypto';

/** A seeded source of numbers, so that the demo is the same on every machine. */
export interface Random {
  /** Uniform in [0, 1). */
  next: () => number;
  between: (low: number, high: number) => number;
  whole: (low: number, high: number) => number;
  pick: <T>(list: readonly T[]) => T;
  /** Roughly normal: the sum of six uniforms. */
  normal: (mean: number, deviation: number) => number;
  uuid: () => string;
}

/** The same id for the same text. */
export function uuidOf(text: string): string {
  const hex = createHash('sha256').update(text).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** @source mulberry32, a public-domain generator with 32 bits of state */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  let ids = 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const between = (low: number, high: number) => low + (high - low) * next();
  return {
    next,
    between,
    whole: (low, high) => Math.floor(between(low, high + 1)),
    pick: (list) => list[Math.floor(next() * list.length)]!,
    normal: (mean, deviation) => {
      let sum = 0;
      for (let i = 0; i < 6; i++) sum += next() - 0.5;
      return mean + sum * Math.SQRT2 * deviation;
    },
    uuid: () => uuidOf(`${seed}/${ids++}`),
  };
}
