import { Router, type Response } from 'express';
import { openEventStream } from '../http/event-stream.ts';
import type { Instrument } from './instrument.ts';

/** The stream of what the instruments say, to every browser that has a step open that can use it. */
export function instrumentsFeed(instrument: Instrument) {
  const open = new Set<Response>();
  const router = Router();
  router.get('/api/instruments/live', (_req, res) => {
    openEventStream(res, () => {
      open.delete(res);
      end();
    });
    open.add(res);
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
