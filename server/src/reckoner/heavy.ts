import { Worker } from 'node:worker_threads';
import { reckon, type Reckoned } from '@lanternwright/core/reckoner';
import { HttpProblem } from '../http/problem.ts';

/** Sums that can take long enough to hold the server up. */
const heavy = new Set(['shop-plan', 'setting-life', 'weibull-fit', 'wear-trend']);
const LONGEST_MS = 30_000;
const AT_ONCE = 2;

/** The compiled worker: threads run what was built, whether this file itself was or not. */
const workerFile = new URL('../../dist/reckoner/worker.js', import.meta.url);

let running = 0;

/**
 * Runs a sum in a thread of its own, so that nobody else waits for it.
 * @param left aborted when whoever asked has left: the thread is ended
 * @throws HttpProblem 503 when too many run already or it takes longer than half a minute
 */
async function reckonInThread(name: string, input: unknown, left?: AbortSignal): Promise<Reckoned> {
  if (running >= AT_ONCE)
    throw new HttpProblem(503, 'Busy', 'Two long sums run already. Try again in a moment.');
  running += 1;
  const worker = new Worker(workerFile, { workerData: { name, input }, execArgv: [] });
  try {
    return await new Promise<Reckoned>((resolve, reject) => {
      const timer = setTimeout(
        () =>
          reject(
            new HttpProblem(
              503,
              'Too long',
              'The sum took longer than half a minute and was stopped. Ask for less.',
            ),
          ),
        LONGEST_MS,
      );
      left?.addEventListener('abort', () => {
        clearTimeout(timer);
        reject(new HttpProblem(499, 'Left', 'Whoever asked has left, the sum was stopped.'));
      });
      worker.once('message', (answer: Reckoned) => {
        clearTimeout(timer);
        resolve(answer);
      });
      worker.once('error', (error) => {
        clearTimeout(timer);
        reject(error);
      });
    });
  } finally {
    running -= 1;
    await worker.terminate();
  }
}

/**
 * Runs any sum for the server: a long one in a thread of its own.
 * @param left aborted when whoever asked has left
 * @throws HttpProblem 503 when too many long ones run already or one takes longer than half a minute
 */
export async function reckonOnServer(name: string, input: unknown, left?: AbortSignal): Promise<Reckoned> {
  return heavy.has(name) ? reckonInThread(name, input, left) : reckon(name, input);
}
