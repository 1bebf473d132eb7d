import { Router } from 'express';
import { storesRoutes } from '@lanternwright/contract/stores';
import { serve } from '../http/serve.ts';
import { askingBy } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { StoresService } from './service.ts';

export function storesRouter(stores: StoresService, clock: Clock): Router {
  const asking = askingBy(clock);
  const router = Router();
  serve(router, storesRoutes.parts, ({ query: { text, kind, page } }) =>
    stores.find(text, kind ?? null, page),
  );
  serve(router, storesRoutes.byMeasure, ({ query }) => stores.byMeasure(query));
  serve(router, storesRoutes.part, ({ params, viewer }) => stores.part(params.id, viewer));
  serve(router, storesRoutes.list, ({ body: { seenVersion, part }, viewer }) =>
    stores.list(part, { ...asking(viewer), expected: seenVersion }, viewer),
  );
  serve(router, storesRoutes.move, ({ params, body: { recordId: id, movement }, viewer }) =>
    stores.move(params.id, movement, { ...asking(viewer), id }, viewer),
  );
  serve(router, storesRoutes.use, ({ params, body: { recordId: id, movement }, viewer }) =>
    stores.move(params.id, movement, { ...asking(viewer), id }, viewer),
  );
  serve(router, storesRoutes.jobParts, ({ params, viewer }) => stores.ofJob(params.id, viewer));
  serve(router, storesRoutes.reserve, async ({ params, body: { reservation }, viewer }) => {
    await stores.reserve(params.id, reservation, asking(viewer), viewer);
    return { ok: true as const };
  });
  serve(router, storesRoutes.endReservation, async ({ params, viewer }) => {
    await stores.endReservation(params, asking(viewer), viewer);
    return { ok: true as const };
  });
  serve(router, storesRoutes.shortages, () => stores.shortages());
  return router;
}
