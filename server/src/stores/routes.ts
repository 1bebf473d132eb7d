import { Router } from 'express';
import { ordersRoutes, storesRoutes } from '@lanternwright/contract/stores';
import { serve } from '../http/serve.ts';
import { askingBy } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { OrdersService } from './orders.ts';
import type { StoresService } from './service.ts';

export function storesRouter(stores: StoresService, orders: OrdersService, clock: Clock): Router {
  const asking = askingBy(clock);
  const router = Router();
  ordersRoutesOn(router, orders, asking);
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

function ordersRoutesOn(router: Router, orders: OrdersService, asking: ReturnType<typeof askingBy>): void {
  serve(router, ordersRoutes.list, ({ query }) => orders.list(query.status, query.page));
  serve(router, ordersRoutes.proposed, () => orders.proposed());
  serve(router, ordersRoutes.one, ({ params }) => orders.one(params.id));
  serve(router, ordersRoutes.draft, ({ body: { seenVersion, ...order }, viewer }) =>
    orders.draft(order, { ...asking(viewer), expected: seenVersion }),
  );
  serve(router, ordersRoutes.send, ({ params, body: { seenVersion, ...sent }, viewer }) =>
    orders.send(params.id, sent, { ...asking(viewer), expected: seenVersion }),
  );
  serve(router, ordersRoutes.promise, ({ params, body: { seenVersion, expected }, viewer }) =>
    orders.promise(params.id, expected, { ...asking(viewer), expected: seenVersion }),
  );
  serve(router, ordersRoutes.deliver, ({ params, body: { seenVersion, ...came }, viewer }) =>
    orders.deliver(params.id, came, { ...asking(viewer), expected: seenVersion }),
  );
  serve(router, ordersRoutes.endLine, ({ params, body: { seenVersion, ...ended }, viewer }) =>
    orders.endLine(params.id, ended, { ...asking(viewer), expected: seenVersion }),
  );
  serve(router, ordersRoutes.cancel, ({ params, body: { seenVersion, reason }, viewer }) =>
    orders.cancel(params.id, reason, { ...asking(viewer), expected: seenVersion }),
  );
}
