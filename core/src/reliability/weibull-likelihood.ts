import { BadInput } from '../calculation/index.ts';
import type { Life } from './units.ts';

/** Log-likelihood with its first and second derivatives by a = ln shape and b = ln scale. */
interface Slope {
  value: number;
  a: number;
  b: number;
  aa: number;
  ab: number;
  bb: number;
}

const MOST_STEPS = 200;
const STEEPEST = 1e4;
/** A step that is shorter moves neither shape nor scale by a part that matters. */
const SETTLED = 1e-10;
/** A top that is bent by less than this part of a unit is none: the likelihood rises for ever, by less and less. */
const FLAT = 1e-6;

/** A likelihood that is lower by no more than this part of itself is as high. */
const ROUNDING = 1e-14;
/** Highest logarithm of a power that is still a number. */
const HIGHEST = 700;

/** Logarithms of the times of lives, in one order; of a time that is 0 or never, −∞: nothing is asked of it. */
interface Known {
  exact: Uint8Array;
  from: Float64Array;
  to: Float64Array;
  entry: Float64Array;
}

function knownOf(lives: readonly Life[], unit: number): Known {
  const log = (of: (l: Life) => number) =>
    Float64Array.from(lives, (l) => (of(l) === Infinity ? -Infinity : Math.log(of(l) / unit)));
  return {
    exact: Uint8Array.from(lives, (l) => Number(l.from === l.to)),
    from: log((l) => l.from),
    to: log((l) => l.to),
    entry: log((l) => l.entry),
  };
}

/** Log-likelihood at ln shape and ln scale. Of a time t, z is (t/scale)^shape and w its logarithm. */
function likelihood({ exact, from, to, entry }: Known, lnShape: number, lnScale: number): Slope {
  const shape = Math.exp(lnShape);
  const sum: Slope = { value: 0, a: 0, b: 0, aa: 0, ab: 0, bb: 0 };
  /** Adds z so many times, and its derivatives. */
  const addPower = (w: number, z: number, times: number) => {
    const tz = times * z;
    sum.value += tz;
    sum.a += tz * w;
    sum.b -= tz * shape;
    sum.aa += tz * (w * w + w);
    sum.ab -= tz * shape * (w + 1);
    sum.bb += tz * shape * shape;
  };
  for (let i = 0; i < exact.length; i++) {
    const begun = from[i]! > -Infinity;
    const w1 = begun ? shape * (from[i]! - lnScale) : 0;
    const z1 = begun ? Math.exp(Math.min(w1, HIGHEST)) : 0;
    addPower(w1, z1, -1);
    if (entry[i]! > -Infinity) {
      const w = shape * (entry[i]! - lnScale);
      addPower(w, Math.exp(Math.min(w, HIGHEST)), 1);
    }
    if (exact[i] === 1) {
      sum.value += lnShape + w1 - from[i]!;
      sum.a += 1 + w1;
      sum.b -= shape;
      sum.aa += w1;
      sum.ab -= shape;
    } else if (to[i]! > -Infinity) {
      // ln(1 − exp(−gap)), with the gap between z at the two visits.
      const w2 = shape * (to[i]! - lnScale);
      const z2 = Math.exp(Math.min(w2, HIGHEST));
      const gap = Math.max(z2 - z1, 1e-300);
      const r = 1 / Math.expm1(gap);
      const bend = -r * (1 + r);
      const a = z2 * w2 - z1 * w1;
      const b = -shape * (z2 - z1);
      sum.value += Math.log(-Math.expm1(-gap));
      sum.a += r * a;
      sum.b += r * b;
      sum.aa += r * (z2 * (w2 * w2 + w2) - z1 * (w1 * w1 + w1)) + bend * a * a;
      sum.ab += -r * shape * (z2 * (w2 + 1) - z1 * (w1 + 1)) + bend * a * b;
      sum.bb += r * shape * shape * (z2 - z1) + bend * b * b;
    }
  }
  return sum;
}

/** Newton’s step where the likelihood is curved as at a top, else a short one uphill. */
function stepFrom({ a, b, aa, ab, bb }: Slope): { a: number; b: number } {
  const det = aa * bb - ab * ab;
  const step =
    aa < 0 && det > 0
      ? { a: -(bb * a - ab * b) / det, b: -(aa * b - ab * a) / det }
      : { a: a / (Math.abs(aa) + Math.abs(ab) + 1), b: b / (Math.abs(bb) + Math.abs(ab) + 1) };
  const long = Math.max(1, Math.abs(step.a), Math.abs(step.b));
  return { a: step.a / long, b: step.b / long };
}

/**
 * The Weibull life that makes failures of a known time, failures found between two visits, units that still run and units
 * known only from an age on most likely, by Newton’s method on the logarithms of shape and scale.
 * @param lives times in any unit, not all of them still running
 * @returns shape, scale in that unit, log-likelihood
 * @source Lawless, Statistical Models and Methods for Lifetime Data: interval censoring and left truncation
 * @throws BadInput where no shape is the most likely one
 */
export function mostLikelyWeibull(lives: readonly Life[]): {
  shape: number;
  scale: number;
  logLikelihood: number;
} {
  const unit = lives.reduce((m, l) => Math.max(m, l.to === Infinity ? l.from : l.to), 0);
  const known = knownOf(lives, unit);
  let [a, b] = [0, 0];
  let here = likelihood(known, a, b);
  for (let i = 0; i < MOST_STEPS && Math.exp(a) < STEEPEST; i++) {
    const step = stepFrom(here);
    const isTop = here.aa < 0 && here.aa * here.bb - here.ab ** 2 > (FLAT * lives.length) ** 2;
    if (isTop && Math.max(Math.abs(step.a), Math.abs(step.b)) < SETTLED) {
      const exact = known.exact.reduce((n, e) => n + e, 0);
      const logLikelihood = here.value - exact * Math.log(unit);
      return { shape: Math.exp(a), scale: unit * Math.exp(b), logLikelihood };
    }
    let share = 1;
    let there = likelihood(known, a + step.a, b + step.b);
    while (!(there.value >= here.value - ROUNDING * Math.abs(here.value)) && share > SETTLED) {
      share /= 2;
      there = likelihood(known, a + share * step.a, b + share * step.b);
    }
    if (share <= SETTLED) break;
    [a, b, here] = [a + share * step.a, b + share * step.b, there];
  }
  throw new BadInput('do not settle on one shape: too little is known of when they failed', 'units');
}
