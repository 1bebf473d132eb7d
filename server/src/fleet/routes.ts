import { Router } from 'express';
import { fleetRoutes } from '@lanternwright/contract/fleet';
import { serve } from '../http/serve.ts';
import type { FleetService } from './service.ts';

export function fleetRouter(fleet: FleetService): Router {
  const router = Router();
  serve(router, fleetRoutes.list, () => fleet.list());
  serve(router, fleetRoutes.unit, ({ params }) => fleet.unit(params.id));
  serve(router, fleetRoutes.history, ({ params, query }) => fleet.history(params.id, query.position));
  serve(router, fleetRoutes.add, ({ body }) => fleet.add(body));
  serve(router, fleetRoutes.replaceAxles, ({ params, body }) => fleet.replaceAxles(params.id, body.axles));
  serve(router, fleetRoutes.owners, () => fleet.owners());
  return router;
}
