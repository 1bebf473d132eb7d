import { Router, type Response } from 'express';
import { HttpProblem } from '../http/problem.ts';
import { personOf } from '../http/serve.ts';
import type { Instrument } from './instrument.ts';

const HEARTBEAT_MS = 20_000;

/** The stream of what the instruments say, to every browser that has a step open that can use it. */
export function instrumentsFeed(instrument: Instrument) {
  const open = new Set<Response>();
  const router = Router();
  router.get('/api/instruments/live', (_req, res) => {
    if (!personOf(res)) throw new HttpProblem(401, 'Sign in', 'Sign in first');
    res.set({
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-cache, no-transform',
      'X-Accel-Buffering': 'no',
    });
    res.flushHeaders();
    res.write('retry: 1000\n\n');
    open.add(res);
    const end = instrument.listen((message) => res.write(`data: ${JSON.stringify(message)}\n\n`));
    const beat = setInterval(() => res.write(': here\n\n'), HEARTBEAT_MS);
    res.on('close', () => {
      clearInterval(beat);
      open.delete(res);
      end();
    });
  });
  return {
    router,
    stop(): void {
      for (const res of open) res.end();
      instrument.close();
    },
  };
}
