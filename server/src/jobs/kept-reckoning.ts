import { listCalculations, sayResult } from '@lanternwright/core/reckoner';
import type { Command } from '@lanternwright/core/traveller';
import { refused } from '../http/problem.ts';
import { reckonOnServer } from '../reckoner/heavy.ts';

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

/**
 * A sum goes into a record only as the reckoner itself gives it: it is reckoned again here, and has its title and its
 * words from here.
 * @throws HttpProblem 422 when there is no such sum, it refuses the input, or the result is another
 */
export async function proveReckoning(command: Command): Promise<Command> {
  if (command.kind !== 'reckoning-kept') return command;
  const { name, reckoned } = command;
  const answer = await reckonOnServer(name, reckoned.input);
  if (!answer.ok) throw refused(answer.error.message, 'command.reckoned.input');
  if (!same(JSON.parse(JSON.stringify(answer.result)), reckoned.result)) {
    throw refused('The reckoner gives another result for this input', 'command.reckoned.result');
  }
  const { title } = listCalculations().find((c) => c.name === name)!;
  const summary = sayResult(name, answer.result as Record<string, unknown>, 'in').slice(0, 500);
  return { ...command, title, summary };
}
