import { Router } from 'express';
import { jobsRoutes } from '@lanternwright/contract/jobs';
import { serve } from '../http/serve.ts';
import type { JobsService } from './service.ts';

export function jobsRouter(jobs: JobsService): Router {
  const router = Router();
  serve(router, jobsRoutes.list, ({ query }) => jobs.list(query.status));
  serve(router, jobsRoutes.job, ({ params }) => jobs.detail(params.id));
  serve(router, jobsRoutes.open, ({ body, person }) => jobs.open(body, person));
  serve(router, jobsRoutes.postEvent, ({ params, body, person }) => jobs.record(params.id, body, person));
  return router;
}
