import { Router } from 'express';
import { fleetRoutes } from '@lanternwright/contract/fleet';
import { serve } from '../http/serve.ts';
import { askingBy } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { FleetService } from './service.ts';

export function fleetRouter(fleet: FleetService, clock: Clock): Router {
  const asking = askingBy(clock);
  const router = Router();
  serve(router, fleetRoutes.list, ({ viewer }) => fleet.list(viewer));
  serve(router, fleetRoutes.unit, ({ params, viewer }) => fleet.unit(params.id, viewer));
  serve(router, fleetRoutes.history, ({ params, query, viewer }) =>
    fleet.history(params.id, query.position, viewer),
  );
  serve(router, fleetRoutes.add, ({ body, viewer }) => fleet.add(body, asking(viewer)));
  serve(router, fleetRoutes.replaceAxles, ({ params, body, viewer }) =>
    fleet.replaceAxles(params.id, body, asking(viewer)),
  );
  serve(router, fleetRoutes.owners, ({ viewer }) => fleet.owners(viewer));
  return router;
}
