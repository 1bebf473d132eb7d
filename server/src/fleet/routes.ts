import { Router } from 'express';
import { fleetRoutes, meterRoutes } from '@lanternwright/contract/fleet';
import type { StandbyReads } from '../database/standby.ts';
import { serve } from '../http/serve.ts';
import { askingBy } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { FleetService } from './service.ts';

export function fleetRouter(fleet: FleetService, clock: Clock, standby: StandbyReads): Router {
  const asking = askingBy(clock);
  const router = Router();
  serve(router, fleetRoutes.list, ({ req, query, viewer }) =>
    standby.read(req, viewer, (from) => fleet.page(query, viewer, from)),
  );
  serve(router, fleetRoutes.overview, ({ req, query, viewer }) =>
    standby.read(req, viewer, (from) => fleet.overview(query.page, viewer, from)),
  );
  serve(router, fleetRoutes.find, ({ query, viewer }) => fleet.find(query.text, viewer));
  serve(router, fleetRoutes.unit, ({ params, viewer }) => fleet.unit(params.id, viewer));
  serve(router, fleetRoutes.history, ({ params, query, viewer }) =>
    fleet.history.lines(params.id, query, viewer),
  );
  serve(router, fleetRoutes.visits, ({ params, query, viewer }) =>
    fleet.history.visits(params.id, query, viewer),
  );
  serve(router, fleetRoutes.add, ({ body, viewer }) => fleet.add(body, asking(viewer)));
  serve(router, fleetRoutes.replaceAxles, ({ params, body, viewer }) =>
    fleet.replaceAxles(params.id, body, asking(viewer)),
  );
  serve(router, meterRoutes.page, ({ params, query, viewer }) =>
    fleet.meters.page(params.id, query.page, viewer),
  );
  serve(router, meterRoutes.add, ({ params, body, viewer }) =>
    fleet.meters.add(params.id, body, asking(viewer)),
  );
  serve(router, meterRoutes.swap, ({ params, body, viewer }) =>
    fleet.meters.swap(params.id, body, asking(viewer)),
  );
  serve(router, meterRoutes.correct, ({ params, body, viewer }) =>
    fleet.meters.correct(params.id, body, asking(viewer)),
  );
  serve(router, fleetRoutes.tellService, ({ params, body, viewer }) =>
    fleet.tellService(params.id, body, asking(viewer)),
  );
  serve(router, fleetRoutes.tellServices, ({ body, viewer }) => fleet.tellServices(body, asking(viewer)));
  serve(router, fleetRoutes.setDuty, ({ params, body, viewer }) =>
    fleet.setDuty(params.id, body, asking(viewer)),
  );
  serve(router, fleetRoutes.setRemarks, ({ params, body, viewer }) =>
    fleet.setRemarks(params.id, body, asking(viewer)),
  );
  serve(router, fleetRoutes.owners, ({ viewer }) => fleet.owners(viewer));
  return router;
}
