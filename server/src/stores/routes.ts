import { Router } from 'express';
import { plainNumber } from '@lanternwright/core/part';
import { storesRoutes } from '@lanternwright/contract/stores';
import { supplierRoutes } from '@lanternwright/contract/supplier';
import { serve } from '../http/serve.ts';
import { askingBy } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { WorkPool } from '../pool/pool.ts';
import type { SettingsService } from '../shop/settings.ts';
import { ordersRouter } from './order-routes.ts';
import type { SupplierService } from '../supplier/service.ts';
import type { OrdersService } from './orders.ts';
import type { StoresService } from './service.ts';

interface Services {
  stores: StoresService;
  orders: OrdersService;
  supplier: SupplierService;
  settings: SettingsService;
  pool: WorkPool;
}

export function storesRouter({ stores, orders, supplier, settings, pool }: Services, clock: Clock): Router {
  const asking = askingBy(clock);
  const router = Router();
  router.use(ordersRouter({ orders, supplier, settings, pool }, clock));
  serve(router, supplierRoutes.stand, () => supplier.stand());
  serve(router, supplierRoutes.ask, () => supplier.ask());
  serve(router, storesRoutes.parts, ({ query: { text, kind, page } }) =>
    stores.find(text, kind ?? null, page),
  );
  serve(router, storesRoutes.byMeasure, ({ query }) => stores.byMeasure(query));
  serve(router, storesRoutes.part, ({ params, viewer }) => stores.part(params.id, viewer));
  serve(router, storesRoutes.list, ({ body: { seenVersion, part }, viewer }) =>
    stores.list(part, { ...asking(viewer), expected: seenVersion }, viewer),
  );
  serve(router, storesRoutes.move, async ({ params, body: { recordId: id, movement }, viewer }) => {
    const part = await stores.move(params.id, movement, { ...asking(viewer), id }, viewer);
    if (movement.what !== 'core-returned') return part;
    await supplier.ask();
    return stores.part(params.id, viewer);
  });
  serve(router, storesRoutes.use, ({ params, body: { recordId: id, movement, instead }, viewer }) =>
    stores.move(params.id, movement, { ...asking(viewer), id }, viewer, instead),
  );
  serve(router, storesRoutes.batch, ({ params, query }) => stores.batch(params.id, query.batch));
  serve(router, storesRoutes.jobParts, ({ params, viewer }) => stores.ofJob(params.id, viewer));
  serve(router, storesRoutes.reserve, async ({ params, body: { reservation }, viewer }) => {
    await stores.reserve(params.id, reservation, asking(viewer), viewer);
    return { ok: true as const };
  });
  serve(router, storesRoutes.reserveAll, ({ params, viewer }) =>
    stores.reserveAll(params.id, asking(viewer), viewer),
  );
  serve(router, storesRoutes.endReservation, async ({ params, viewer }) => {
    await stores.endReservation(params, asking(viewer), viewer);
    return { ok: true as const };
  });
  serve(router, storesRoutes.day, () => stores.day());
  serve(router, storesRoutes.shortages, () => stores.shortages());
  serve(router, storesRoutes.unitCosts, ({ params }) =>
    stores.costsOf(params.id, settings.current().currency),
  );
  serve(router, storesRoutes.labels, async ({ params, query: { copies }, viewer, res }) => {
    const { part, places } = await stores.part(params.id, viewer);
    const { name: shop, paper: size } = settings.current();
    res.type('application/pdf').attachment(`labels-${plainNumber(part.number)}.pdf`);
    const { number, title } = part;
    const labels = {
      ...{ part: { number, title }, places: places.map((p) => p.place) },
      ...{ copies, shop, at: clock.now(), size },
    };
    return pool.run('paper', { kind: 'labels', labels }, { person: viewer.person.id, takes: 'short' });
  });
  return router;
}
