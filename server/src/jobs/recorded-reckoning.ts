import type { Command } from '@lanternwright/core/traveller';
import { refused } from '../http/problem.ts';
import type { SumsService } from '../reckoner/sums.ts';

/**
 * A sum goes into a record only as the reckoner itself gives it: it is reckoned again here, has its title and its
 * words from here.
 * @throws HttpProblem 422 when there is no such sum, it refuses the input, or the result is another
 */
export async function verifyReckoning(command: Command, sums: SumsService, person: string): Promise<Command> {
  if (command.kind !== 'reckoning-kept') return command;
  const { name, reckoned } = command;
  const verified = await sums.verify({ name, reckoned }, person);
  if (!verified.ok) throw refused(verified.reason, `command.reckoned.${verified.path}`);
  return { ...command, title: verified.title, summary: verified.summary };
}
