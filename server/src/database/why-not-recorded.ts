import { ConnectionError, DatabaseError } from 'sequelize';
import { z } from 'zod';

/**
 * Errors of PostgreSQL, and of the way to it, with which it takes nothing just now, whatever it is sent.
 * Source: PostgreSQL, appendix A (error codes); names of Node.js for a connection that fails.
 */
const reasons: readonly [RegExp, string][] = [
  [/^(53100|ENOSPC)$/, 'its disk is full'],
  [/^25006$/, 'it may only be read'],
  [/^53/, 'it has no more room or connections'],
  [/^(57P0[1-5]|08...|ECONN(REFUSED|RESET)|EPIPE|ENOENT|ETIMEDOUT)$/, 'it does not answer'],
];

const withCode = z.object({ code: z.string() });

/** Why the database takes nothing just now, by an error that it, its driver or Sequelize threw; null where it is another. */
export function whyNotRecorded(error: unknown): string | null {
  const own = withCode.safeParse(error);
  const reason = own.success && reasons.find(([codes]) => codes.test(own.data.code));
  if (reason) return reason[1];
  if (error instanceof ConnectionError) return 'it does not answer';
  return error instanceof DatabaseError ? whyNotRecorded(error.original) : null;
}
