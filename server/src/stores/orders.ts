import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { describePart, type Part } from '@lanternwright/core/part';
import { orderAggregate, paidFor, type OrderCommand, type OrderLine } from '@lanternwright/core/record';
import {
  ORDERS_A_PAGE,
  type Delivered,
  type Order,
  type Proposed,
  type Shortage,
} from '@lanternwright/contract/stores';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { isoTime } from '../database/sql-time.ts';
import { notFound, refused } from '../http/problem.ts';
import { change, type Asked } from '../record/append.ts';
import { insertTables } from '../record/insert-rows.ts';
import { kindsOf } from '../record/kinds.ts';
import type { Clock } from '../shop/clock.ts';
import { changeStock } from './stock.ts';

/** Any number that nothing else in this database locks: orders are numbered one at a time. */
const NUMBER_LOCK = 618_003;

/** SQL: orders as they stand; $1 is today. */
const ORDER = `
  select id, number, supplier, status, lines, to_char(expected, 'YYYY-MM-DD') as expected,
    coalesce(status = 'sent' and expected < $1 ::date, false) as late, reference, online, ${isoTime('sent_at')} as "sentAt",
    version, ${isoTime('changed_at')} as "changedAt", changed_by as "changedBy", reason
  from purchase`;

/** SQL: where most of each of these parts ($1) lies. */
const PLACES = `
  select distinct on (part_id) part_id as id, of as place from stock
  where what = 'place' and part_id = any($1 ::uuid[]) order by part_id, quantity desc, of`;

/** SQL: parts that are low with what of them is ordered and has not come, drafts as well. */
const LOW = `
  with coming as (
    select (l ->> 'partId') ::uuid as id, sum((l ->> 'quantity') ::int - (l ->> 'delivered') ::int) ::int as n
    from purchase, jsonb_array_elements(lines) l
    where status in ('draft', 'sent') and l ->> 'ended' is null group by 1
  )
  select p.part, p.on_hand - p.reserved as free, coalesce(c.n, 0) as coming from part p left join coming c on c.id = p.id
  where p.part ->> 'supersededBy' is null
    and p.on_hand - p.reserved + coalesce(c.n, 0) <= (p.part ->> 'reorderLevel') ::int`;

/** Orders of parts: what to order, what is on its way, what came. */
export function ordersService(
  db: Database,
  shortages: () => Promise<Shortage[]>,
  /** The supplier that takes orders by itself, by its name; null where none does. */
  online: string | null,
  clock: Clock,
) {
  const kind = kindsOf(() => undefined).find((k) => k.aggregate.stream === 'order')!;
  const ask = <T extends object>(sql: string, bind: unknown[]) =>
    db.sequelize.query<T>(sql, { type: QueryTypes.SELECT, bind });

  async function one(id: string): Promise<Order> {
    const [order] = await ask<Order>(`${ORDER} where id = $2`, [clock.today(), id]);
    if (!order) throw notFound('order');
    const places = await ask<{ id: string; place: string }>(PLACES, [order.lines.map((l) => l.partId)]);
    const placeOf = new Map(places.map((p) => [p.id, p.place]));
    return { ...order, lines: order.lines.map((l) => ({ ...l, place: placeOf.get(l.partId) ?? null })) };
  }

  /** Decides a command on an order, in the open transaction. */
  async function decide(id: string, command: OrderCommand, asked: Asked): Promise<void> {
    const state = await change(db, orderAggregate, id, command, asked);
    await db.sequelize.query('delete from purchase where id = $1', { bind: [id] });
    await insertTables(db, kind.rowsOf([{ id, state }]));
  }

  async function tell(id: string, command: OrderCommand, asked: Asked): Promise<Order> {
    await one(id);
    await inTransaction(db, () => decide(id, command, asked));
    return one(id);
  }

  async function linesOf(wanted: readonly { partId: string; quantity: number }[]): Promise<OrderLine[]> {
    const rows = await ask<{ part: Part }>('select part from part where id = any($1 ::uuid[])', [
      wanted.map((l) => l.partId),
    ]);
    return wanted.map(({ partId, quantity }, i) => {
      const part = rows.find((r) => r.part.id === partId)?.part;
      if (!part) throw refused('There is no such part', `lines.${i}.partId`);
      return { partId, number: part.number, title: part.title, quantity, price: part.price };
    });
  }

  return {
    one,

    list(status: 'open' | 'closed', page: number): Promise<Order[]> {
      const states = status === 'open' ? ['draft', 'sent'] : ['done', 'cancelled'];
      return ask<Order>(`${ORDER} where status = any($2 ::text[]) order by number desc limit $3 offset $4`, [
        clock.today(),
        states,
        ORDERS_A_PAGE,
        (page - 1) * ORDERS_A_PAGE,
      ]);
    },

    /** What to order of whom: what will be short, and what is low up to twice the level it is ordered at. */
    async proposed(): Promise<Proposed[]> {
      const short = await shortages();
      const low = await ask<{ part: Part; free: number; coming: number }>(LOW, []);
      const parts = new Map(low.map((l) => [l.part.id, l.part]));
      for (const { part } of await ask<{ part: Part }>('select part from part where id = any($1 ::uuid[])', [
        short.map((s) => s.part.id),
      ]))
        parts.set(part.id, part);
      const lines = [...parts.values()].map((part) => {
        const missing = short.find((s) => s.part.id === part.id);
        const at = low.find((l) => l.part.id === part.id);
        const upTo = at ? 2 * Math.max(1, part.reorderLevel ?? 0) - at.free - at.coming : 0;
        return {
          ...{ partId: part.id, number: part.number, title: describePart(part), price: part.price },
          ...{ quantity: Math.max(missing?.missing ?? 0, upTo), missing: missing?.missing ?? 0 },
          ...{ shortOn: missing?.shortOn ?? null, orderBy: missing?.orderBy ?? null },
          ...{ low: at ? { free: at.free, coming: at.coming } : null, supplier: part.supplier },
        };
      });
      const wanted = lines.filter((l) => l.quantity > 0);
      return [...new Set(wanted.map((l) => l.supplier))].sort().map((supplier) => ({
        supplier,
        lines: wanted
          .filter((l) => l.supplier === supplier)
          .sort((a, b) => (a.orderBy ?? '9').localeCompare(b.orderBy ?? '9')),
      }));
    },

    /** Writes an order, or changes one that was not sent. @throws HttpProblem 422 for no such part */
    async draft(
      {
        id,
        supplier,
        lines,
      }: { id: string; supplier: string; lines: { partId: string; quantity: number }[] },
      asked: Asked,
    ): Promise<Order> {
      const wanted = await linesOf(lines);
      await inTransaction(db, async () => {
        await db.sequelize.query(`select pg_advisory_xact_lock(${NUMBER_LOCK})`);
        const [next] = await ask<{ number: number }>(
          'select coalesce(max(number), 0) + 1 as number from purchase',
          [],
        );
        await decide(id, { kind: 'draft', number: next!.number, supplier, lines: wanted }, asked);
      });
      return one(id);
    },

    /** @throws HttpProblem 422 where it is to go online, and its supplier takes none so */
    async send(
      id: string,
      body: { expected: string | null; reference: string; online: boolean },
      asked: Asked,
    ): Promise<Order> {
      const { supplier } = await one(id);
      if (body.online && supplier !== online) throw refused(`${supplier} takes no orders online`, 'online');
      return tell(
        id,
        { kind: 'send', ...(body.online ? { ...body, expected: null, reference: '' } : body) },
        asked,
      );
    },

    /** Records how an order stands with its supplier, where that is news. */
    told: (id: string, stand: Omit<Extract<OrderCommand, { kind: 'told' }>, 'kind'>, asked: Asked) =>
      tell(id, { kind: 'told', ...stand }, asked),

    promise: (id: string, expected: string, asked: Asked) => tell(id, { kind: 'promise', expected }, asked),
    endLine: (id: string, body: { partId: string; reason: string }, asked: Asked) =>
      tell(id, { kind: 'end-line', ...body }, asked),
    cancel: (id: string, reason: string, asked: Asked) => tell(id, { kind: 'cancel', reason }, asked),

    /** What came goes onto the shelf with it, or none of it does. @throws HttpProblem 422 where nobody says where */
    async deliver(id: string, { note, lines: came }: Delivered, asked: Asked): Promise<Order> {
      const order = await one(id);
      const lines = came.map(({ partId, quantity, damaged, place, batch }, i) => {
        const line = order.lines.find((l) => l.partId === partId);
        if (!line) throw refused('That part is not on this order', `lines.${i}.partId`);
        const at = place ?? line.place ?? undefined;
        if (!at && quantity > 0)
          throw refused('None of it lies anywhere yet: say where it goes', `lines.${i}.place`);
        return {
          ...{ partId, quantity },
          ...(damaged > 0 ? { damaged } : {}),
          ...(at && quantity > 0 ? { place: at } : {}),
          ...(batch ? { batch } : {}),
        };
      });
      await inTransaction(db, async () => {
        await decide(id, { kind: 'deliver', ...(note ? { note } : {}), lines }, asked);
        // In one order always, so that two deliveries do not wait for each other.
        for (const { partId, quantity, place, batch } of lines.sort((a, b) =>
          a.partId.localeCompare(b.partId),
        )) {
          if (!place) continue;
          const line = order.lines.find((l) => l.partId === partId);
          const price = line && paidFor(line);
          const movement = {
            ...{ what: 'received' as const, quantity, place, orderId: id },
            ...(batch ? { batch } : {}),
            ...(note ? { reference: note } : {}),
            ...(price ? { price } : {}),
          };
          const { by, at } = asked;
          await changeStock(db, partId, { kind: 'move', movement }, { by, at, id: randomUUID() });
        }
      });
      return one(id);
    },
  };
}
export type OrdersService = ReturnType<typeof ordersService>;
