import { Router, type Response } from 'express';
import { reckonerRoutes } from '@lanternwright/contract/reckoner';
import { describeCalculation, listCalculations } from '@lanternwright/core/reckoner';
import { notFound } from '../http/problem.ts';
import { serve } from '../http/serve.ts';
import type { SumAnswer } from '../pool/worker.ts';
import type { SumsService } from './sums.ts';

const described = new Map<string, NonNullable<ReturnType<typeof describeCalculation>>>();

function describe(name: string) {
  const known = described.get(name) ?? describeCalculation(name);
  if (!known) throw notFound('calculation');
  described.set(name, known);
  return { ...known, sources: [...known.sources] };
}

/** An answer in words of progress: whoever asks for a stream is told how far a long sum is. */
function tell(res: Response) {
  res.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' });
  res.flushHeaders();
  const event = (kind: string, json: string) => res.write(`event: ${kind}\ndata: ${json}\n\n`);
  return {
    progress: (done: number) => event('progress', JSON.stringify({ done })),
    end(answer: SumAnswer) {
      event(
        answer.ok ? 'result' : 'refused',
        answer.ok ? answer.json : JSON.stringify({ error: answer.error }),
      );
      res.end();
    },
  };
}

/**
 * The HTTP door of the reckoner. Bad input has the command line's form: `{ error: { message, issues } }`. With
 * `Accept: text/event-stream` the answer comes as events: `progress`, then `result` or `refused`.
 */
export function reckonerRouter(sums: SumsService): Router {
  const router = Router();
  serve(router, reckonerRoutes.list, () => listCalculations());
  serve(router, reckonerRoutes.describe, ({ params }) => describe(params.name));
  serve(router, reckonerRoutes.reckon, async ({ params, body, viewer, req, res }) => {
    const left = new AbortController();
    res.on('close', () => left.abort());
    const json = typeof body === 'string' ? body : '';
    const asked = { person: viewer.person.id, left: left.signal };
    if (req.accepts(['application/json', 'text/event-stream']) === 'text/event-stream') {
      const stream = tell(res);
      stream.end(await sums.run(params.name, json, { ...asked, onProgress: stream.progress }));
      return null;
    }
    const answer = await sums.run(params.name, json, asked);
    if (answer.ok) {
      res.type('json');
      return answer.json;
    }
    res.status(answer.status);
    return { error: answer.error };
  });
  return router;
}
