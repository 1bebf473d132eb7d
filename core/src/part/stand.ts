import type { Part } from './part.ts';

/** Parts whose sizes differ by no more than this, mm, do the same work. */
const SAME_MM = 0.5;

/** What a part's sizes come to; nothing where nobody has told them. */
function sizeOf(dims: Part['dims']): string {
  const sizes = Object.entries(dims).map(([what, q]) => `${what} ${Math.round((q.si * 1000) / SAME_MM)}`);
  return sizes.sort().join();
}

/**
 * Parts of one line by their sizes: of each size one is wanted, as of an inner and an outer bearing. Those whose sizes
 * nobody has told are alternatives of each other, and of the rest where that has one size.
 */
export function bySize<T>(fitting: readonly T[], dimsOf: (one: T) => Part['dims']): T[][] {
  const sizes = new Map<string, T[]>();
  for (const one of fitting) {
    const size = sizeOf(dimsOf(one));
    sizes.set(size, [...(sizes.get(size) ?? []), one]);
  }
  const [unsized, [only, ...others]] = [sizes.get(''), [...sizes].filter(([size]) => size !== '')];
  return unsized && only && others.length === 0 ? [[...fitting]] : [...sizes.values()];
}

/** A part that fits a line, as the store has it. */
export interface StockedPart {
  number: string;
  dims: Part['dims'];
  /** How many the asker may take. */
  free: number;
  /** Where they lie, the fullest place first. */
  places: readonly string[];
  /** What is on its way, soonest first. */
  coming: readonly PartComing[];
}
export interface PartComing {
  orderId: string;
  orderNumber: number;
  /** yyyy-mm-dd */
  expected: string;
  /** Promised for a day that is past. */
  late: boolean;
}

/** How the store can answer a line of a readiness list. */
export type LineStand =
  | { state: 'here'; parts: { number: string; place: string }[] }
  | { state: 'ordered'; number: string; coming: PartComing }
  | { state: 'late'; number: string; coming: PartComing }
  | { state: 'none' };

const order = ['none', 'late', 'ordered', 'here'] as const;

function standOfSize(parts: readonly StockedPart[]): LineStand {
  const here = parts.find((p) => p.free > 0 && p.places.length > 0);
  if (here) return { state: 'here', parts: [{ number: here.number, place: here.places[0]! }] };
  const coming = parts
    .flatMap(({ number, coming: all }) => all.map((one) => ({ number, coming: one })))
    .sort((a, b) => a.coming.expected.localeCompare(b.coming.expected));
  const inTime = coming.find((c) => !c.coming.late);
  if (inTime) return { state: 'ordered', ...inTime };
  return coming[0] ? { state: 'late', ...coming[0] } : { state: 'none' };
}

/**
 * How a line stands: here only where every size that it takes is here, else as the worst of them does.
 * @param fitting parts that fit the line
 * @source common practice, no source
 */
export function standOfLine(fitting: readonly StockedPart[]): LineStand {
  const stands = bySize(fitting, (p) => p.dims).map(standOfSize);
  const worst = stands.sort((a, b) => order.indexOf(a.state) - order.indexOf(b.state))[0];
  if (worst?.state !== 'here') return worst ?? { state: 'none' };
  return { state: 'here', parts: stands.flatMap((s) => (s.state === 'here' ? s.parts : [])) };
}
