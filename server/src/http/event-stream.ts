import type { Response } from 'express';
import { HttpProblem } from './problem.ts';
import { personOf } from './serve.ts';

const HEARTBEAT_MS = 20_000;

/**
 * Makes an answer a stream of server-sent events for whoever is signed in, kept alive until the browser leaves.
 * @param onClose what ends with it
 * @throws HttpProblem 401 for anyone else
 */
export function openEventStream(res: Response, onClose: () => void): void {
  if (!personOf(res)) throw new HttpProblem(401, 'Sign in', 'Sign in first');
  res.set({
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-cache, no-transform',
    'X-Accel-Buffering': 'no',
  });
  res.flushHeaders();
  res.write('retry: 1000\n\n');
  const beat = setInterval(() => res.write(': here\n\n'), HEARTBEAT_MS);
  res.on('close', () => {
    clearInterval(beat);
    onClose();
  });
}
