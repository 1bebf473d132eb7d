import { Router, type Response } from 'express';
import { openEventStream } from '../http/event-stream.ts';
import { HttpProblem } from '../http/problem.ts';
import { personOf } from '../http/serve.ts';
import type { Instrument } from './instrument.ts';

/** The stream of what the instruments say, to every browser that has a step open that can use it. */
export function instrumentsFeed(instrument: Instrument) {
  const open = new Set<Response>();
  const router = Router();
  router.get('/api/instruments/live', (_req, res) => {
    if (!personOf(res)) throw new HttpProblem(401, 'Sign in', 'Sign in first');
    open.add(res);
    openEventStream(res, () => {
      open.delete(res);
      end();
    });
    const end = instrument.listen((message) => res.write(`data: ${JSON.stringify(message)}\n\n`));
  });
  return {
    router,
    stop(): void {
      for (const res of open) res.end();
      instrument.close();
    },
  };
}
