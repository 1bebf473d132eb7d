import { Router } from 'express';
import { estimatesRoutes } from '@lanternwright/contract/estimates';
import type { Database } from '../database/connect.ts';
import { serve } from '../http/serve.ts';
import type { JobsService } from '../jobs/service.ts';
import type { ShopAhead } from '../plan/shop-ahead.ts';
import type { Clock } from '../shop/clock.ts';
import { ownAhead } from './ahead.ts';
import { draftEstimate } from './draft.ts';
import type { RatesService } from './rates.ts';

interface Services {
  db: Database;
  jobs: Pick<JobsService, 'detail'>;
  ahead: Pick<ShopAhead, 'measured'>;
  rates: RatesService;
}

export function estimatesRouter(services: Services, clock: Clock): Router {
  const { rates } = services;
  const router = Router();
  serve(router, estimatesRoutes.rates, () => rates.current());
  serve(router, estimatesRoutes.changeRates, ({ body: { seen, ...wanted } }) => rates.change(wanted, seen));
  serve(router, estimatesRoutes.draft, ({ params, viewer }) => draftEstimate(services, params.id, viewer));
  // An owner's contact sees some owners, never all.
  serve(router, estimatesRoutes.ahead, ({ viewer: { owners } }) =>
    ownAhead(services, owners === 'all' ? [] : owners, clock),
  );
  return router;
}
