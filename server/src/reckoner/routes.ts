import { Router } from 'express';
import { reckonerRoutes } from '@lanternwright/contract/reckoner';
import { describeCalculation, listCalculations } from '@lanternwright/core/reckoner';
import { notFound } from '../http/problem.ts';
import { serve } from '../http/serve.ts';
import { reckonOnServer } from './heavy.ts';

/** The HTTP door of the reckoner. Bad input has the command line's form: `{ error: { message, issues } }`. */
export function reckonerRouter(): Router {
  const router = Router();
  serve(router, reckonerRoutes.list, () => listCalculations());
  serve(router, reckonerRoutes.describe, ({ params }) => {
    const found = describeCalculation(params.name);
    if (!found) throw notFound('calculation');
    return { ...found, sources: [...found.sources] };
  });
  serve(router, reckonerRoutes.reckon, async ({ params, body, res }) => {
    const { name } = params;
    const left = new AbortController();
    res.on('close', () => left.abort());
    const answer = await reckonOnServer(name, body, left.signal);
    if (answer.ok) return answer.result;
    res.status(answer.reason === 'unknown' ? 404 : 422);
    return { error: answer.error };
  });
  return router;
}
