import { Router } from 'express';
import { fleetRoutes } from '@lanternwright/contract/fleet';
import { serve } from '../http/serve.ts';
import type { FleetService } from './service.ts';

export function fleetRouter(fleet: FleetService): Router {
  const router = Router();
  serve(router, fleetRoutes.list, ({ viewer }) => fleet.list(viewer));
  serve(router, fleetRoutes.unit, ({ params, viewer }) => fleet.unit(params.id, viewer));
  serve(router, fleetRoutes.history, ({ params, query, viewer }) =>
    fleet.history(params.id, query.position, viewer),
  );
  serve(router, fleetRoutes.add, ({ body }) => fleet.add(body));
  serve(router, fleetRoutes.replaceAxles, ({ params, body }) => fleet.replaceAxles(params.id, body.axles));
  serve(router, fleetRoutes.owners, ({ viewer }) => fleet.owners(viewer));
  return router;
}
