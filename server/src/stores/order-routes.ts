import { Router } from 'express';
import Papa from 'papaparse';
import { ordersRoutes, type Order } from '@lanternwright/contract/stores';
import { typedMoney } from '@lanternwright/core/cost';
import { csvCell } from '../exchange/csv-cell.ts';
import { serve } from '../http/serve.ts';
import { askingBy } from '../http/viewer.ts';
import type { WorkPool } from '../pool/pool.ts';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';
import type { SupplierService } from '../supplier/service.ts';
import type { OrdersService } from './orders.ts';

interface Services {
  orders: OrdersService;
  supplier: Pick<SupplierService, 'ask'>;
  settings: SettingsService;
  pool: WorkPool;
}

/** An order as CSV, a line a part. */
function orderCsv({ number, lines }: Order): string {
  const columns = ['order', 'number', 'what', 'quantity', 'price', 'currency'];
  const rows = lines.map((l) => [
    ...[String(number), l.number, l.title, String(l.quantity)],
    ...(l.price ? [typedMoney(l.price.minor, l.price.currency), l.price.currency] : ['', '']),
  ]);
  return `${Papa.unparse({ fields: columns, data: rows.map((row) => row.map(csvCell)) }, { newline: '\r\n' })}\r\n`;
}

export function ordersRouter({ orders, supplier, settings, pool }: Services, clock: Clock): Router {
  const asking = askingBy(clock);
  const router = Router();
  serve(router, ordersRoutes.list, ({ query }) => orders.list(query.status, query.page));
  serve(router, ordersRoutes.proposed, () => orders.proposed());
  serve(router, ordersRoutes.one, ({ params }) => orders.one(params.id));
  serve(router, ordersRoutes.draft, ({ body: { seenVersion, ...order }, viewer }) =>
    orders.draft(order, { ...asking(viewer), expected: seenVersion }),
  );
  serve(router, ordersRoutes.send, async ({ params, body: { seenVersion, ...sent }, viewer }) => {
    const order = await orders.send(params.id, sent, { ...asking(viewer), expected: seenVersion });
    if (!sent.online) return order;
    // Recorded first: a server that dies here sends it when it is back, and the same order twice is one.
    await supplier.ask();
    return orders.one(params.id);
  });
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
  serve(router, ordersRoutes.csv, async ({ params, res }) => {
    const order = await orders.one(params.id);
    res.type('text/csv; charset=utf-8').attachment(`order-${order.number}.csv`);
    return orderCsv(order);
  });
  serve(router, ordersRoutes.pdf, async ({ params, viewer, res }) => {
    const order = await orders.one(params.id);
    const { name, address, paper: size, zone } = settings.current();
    res.type('application/pdf').attachment(`order-${order.number}.pdf`);
    const wanted = { shop: { name, address }, order, size, zone };
    return pool.run('paper', { kind: 'order', order: wanted }, { person: viewer.person.id, takes: 'short' });
  });
  return router;
}
