import type { Logger } from 'pino';
import { whyNotRecorded } from '../database/why-not-recorded.ts';

let broken: string | null = null;

/** Why this process ends as soon as it can; null while it is sound. */
export const brokenBy = (): string | null => broken;

/**
 * Hears what no part of the program heard. A promise that nobody waited for, or a connection that is gone, is told of
 * and ends nothing: whoever needs it next is told so. After any other error nobody knows what holds, and the process
 * ends in order, as one that is not ready any more.
 * @param end ends it in order, with the code that tells whoever started it to start it again
 */
export function guardProcess(log: Logger, end: () => Promise<void>): void {
  process.on('unhandledRejection', (err) => log.error({ err }, 'a part in the background failed'));
  process.on('uncaughtException', (err) => {
    if (whyNotRecorded(err) !== null) return log.error({ err }, 'a connection of the background is gone');
    log.fatal({ err }, 'an error that nothing was ready for: the server ends');
    broken = 'an error that nothing was ready for';
    void end();
  });
}
