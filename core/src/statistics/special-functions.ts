/** Natural logarithm of the gamma function. @source Lanczos approximation, g = 7, nine terms */
export function lnGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - lnGamma(1 - x);
  const terms = [
    676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
    -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ];
  const z = x - 1;
  const sum = terms.reduce((s, c, i) => s + c / (z + i + 1), 0.99999999999980993);
  const t = z + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

const MANY = 10_000;
const TINY = 1e-300;

/** Lower and upper regularised incomplete gamma functions, P(a, x) and Q(a, x), each exact where it is small. */
function gammaParts(a: number, x: number): { lower: number; upper: number } {
  if (x <= 0) return { lower: 0, upper: 1 };
  const front = Math.exp(-x + a * Math.log(x) - lnGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < MANY && Math.abs(term) > Math.abs(sum) * 1e-16; n++) {
      term *= x / (a + n);
      sum += term;
    }
    const lower = Math.min(1, sum * front);
    return { lower, upper: 1 - lower };
  }
  let b = x + 1 - a;
  let c = 1 / TINY;
  let d = 1 / b;
  let h = d;
  for (let i = 1; i < MANY; i++) {
    const an = -i * (i - a);
    b += 2;
    d = 1 / (an * d + b || TINY);
    c = b + an / c || TINY;
    const delta = d * c;
    h *= delta;
    if (Math.abs(delta - 1) < 1e-15) break;
  }
  const upper = Math.min(1, front * h);
  return { lower: 1 - upper, upper };
}

/** Regularised lower incomplete gamma function P(a, x). @source series and continued fraction, Abramowitz and Stegun 6.5 */
export const gammaP = (a: number, x: number): number => gammaParts(a, x).lower;

/** Chance of a chi-square variable at or above a value, over 0 degrees of freedom. @source Abramowitz and Stegun 26.4 */
export const chiSquareTail = (value: number, degrees: number): number =>
  gammaParts(degrees / 2, value / 2).upper;

/** Regularised incomplete beta function I_x(a, b). @source continued fraction, Abramowitz and Stegun 26.5.8 */
export function betaI(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - betaI(1 - x, b, a);
  const front = Math.exp(lnGamma(a + b) - lnGamma(a) - lnGamma(b) + a * Math.log(x) + b * Math.log1p(-x)) / a;
  let c = 1;
  let d = 1 / (1 - ((a + b) * x) / (a + 1) || TINY);
  let h = d;
  for (let m = 1; m < MANY; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / (1 + even * d || TINY);
    c = 1 + even / c || TINY;
    h *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / (1 + odd * d || TINY);
    c = 1 + odd / c || TINY;
    h *= d * c;
    if (Math.abs(d * c - 1) < 1e-15) break;
  }
  return front * h;
}

/** Chance of an F variable at or above f, with d1 and d2 degrees of freedom. */
export function fTail(f: number, d1: number, d2: number): number {
  if (!Number.isFinite(f)) return 0;
  return betaI(d2 / (d2 + d1 * f), d2 / 2, d1 / 2);
}
