import { listCalculations, reckon, describeResult } from '@lanternwright/core/reckoner';
import { inchReader } from '@lanternwright/core/quantity';

/** A sum somebody wants in a record: what went in and what is said to have come out. */
export interface ClaimedSum {
  name: string;
  reckoned: { input: unknown; result: unknown };
}
export type VerifiedSum =
  { ok: true; title: string; summary: string } | { ok: false; path: string; reason: string };

/** Machines differ in the last digits of a logarithm or a cosine. */
const LAST_DIGITS = 1e-9;

function same(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number') {
    return Math.abs(a - b) <= LAST_DIGITS * Math.max(1, Math.abs(a), Math.abs(b));
  }
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  const [mine, theirs] = [Object.entries(a), new Map(Object.entries(b))];
  return mine.length === theirs.size && mine.every(([key, value]) => same(value, theirs.get(key)));
}

/** Reckons a sum again; its title and its words come from here. */
export function verifySum({ name, reckoned }: ClaimedSum): VerifiedSum {
  const answer = reckon(name, reckoned.input);
  if (!answer.ok) return { ok: false, path: 'input', reason: answer.error.message };
  if (!same(JSON.parse(JSON.stringify(answer.result)), reckoned.result))
    return { ok: false, path: 'result', reason: 'The reckoner gives another result for this input' };
  const { title } = listCalculations().find((c) => c.name === name)!;
  const summary = describeResult(name, answer.result as Record<string, unknown>, inchReader).slice(0, 500);
  return { ok: true, title, summary };
}
