import { QueryTypes } from 'sequelize';
import { v5 as uuidFrom } from 'uuid';
import { plainNumber } from '@lanternwright/core/part';
import { openOf, program, type OrderState } from '@lanternwright/core/record';
import type { SupplierService as Stand } from '@lanternwright/contract/supplier';
import type { Database } from '../database/connect.ts';
import { isoTime } from '../database/sql-time.ts';
import { MovedOn } from '../record/append.ts';
import type { Clock } from '../shop/clock.ts';
import type { OrdersService } from '../stores/orders.ts';
import { changeStock } from '../stores/stock.ts';
import { SupplierTrouble, type Supplier } from './supplier.ts';

/** Its row among the services that are asked. */
const NAME = 'supplier';
/** Orders and returns that are asked about at one time. */
const MOST = 200;
/** After so many answers that could not be taken, the rest is asked for another time. */
const MOST_TROUBLES = 3;

const STAND = `
  select ${isoTime('asked_at')} as "askedAt", ${isoTime('answered_at')} as "answeredAt", trouble from feed where name = $1`;

/** SQL: orders that went to the supplier $1 online and are not all here, those first that it has not answered yet. */
const OPEN = `
  select id, number, reference, lines from purchase where status = 'sent' and online and supplier = $1
  order by reference <> '', number limit ${MOST}`;

/** SQL: old parts that went back to the supplier and were not answered yet. */
const CORES = `
  select m.part_id as "partId", m.version, m.quantity, m.place, p.part ->> 'number' as number
  from stock_movement m join part p on p.id = m.part_id
  where m.what = 'core-returned' and m.online and not exists (select 1 from stock_movement c
    where c.part_id = m.part_id and c.what = 'core-credited' and c.return_of = m.version)
  order by m.at limit ${MOST}`;

type OpenOrder = Pick<OrderState, 'number' | 'reference' | 'lines'> & { id: string };
interface OpenCore {
  partId: string;
  version: number;
  quantity: number;
  place: string;
  number: string;
}

/** The supplier that takes orders by itself: sends it what waits, and records what it says of it. */
export function supplierService(
  db: Database,
  supplier: Supplier | null,
  orders: Pick<OrdersService, 'told'>,
  clock: Clock,
) {
  const ask = <T extends object>(sql: string, bind: unknown[]) =>
    db.sequelize.query<T>(sql, { type: QueryTypes.SELECT, bind });

  async function stand(): Promise<Stand> {
    const [row] = await ask<Omit<Stand, 'name'>>(STAND, [NAME]);
    const never = { askedAt: null, answeredAt: null, trouble: null };
    return { name: supplier?.name ?? null, ...(row ?? never) };
  }

  async function order(of: Supplier, { id, number, reference, lines }: OpenOrder): Promise<void> {
    const sent = lines.filter((l) => openOf(l) > 0).map((l) => ({ number: l.number, quantity: l.quantity }));
    const said = reference === '' ? await of.order({ id, number, lines: sent }) : await of.stand(reference);
    const told = lines.flatMap(({ partId, number: ours }) => {
      const line = said.lines.find((l) => plainNumber(l.number) === plainNumber(ours));
      return line ? [{ partId, dispatched: line.dispatched, price: line.price, unknown: line.unknown }] : [];
    });
    await orders.told(id, { ...said, lines: told }, { by: program, at: clock.now().toISOString() });
  }

  async function core(of: Supplier, { partId, version, quantity, place, number }: OpenCore): Promise<void> {
    const { reference, credit } = await of.returnCore({ id: `${partId}:${version}`, number, quantity });
    const movement = {
      ...{ what: 'core-credited' as const, quantity, place, returnOf: version, reference },
      ...(credit ? { price: credit } : {}),
    };
    // One id for it, whichever server records it: it is recorded once.
    await changeStock(
      db,
      partId,
      { kind: 'move', movement },
      { by: program, at: clock.now().toISOString(), id: uuidFrom(`credited ${version}`, partId) },
    );
  }

  async function note(what: 'asked_at' | 'answered_at', trouble: string | null): Promise<void> {
    await db.sequelize.query(
      `insert into feed (name, ${what}, trouble) values ($1, $2, $3)
         on conflict (name) do update set ${what} = excluded.${what}, trouble = excluded.trouble`,
      { bind: [NAME, clock.now().toISOString(), trouble] },
    );
  }

  return {
    stand,

    /** Sends what waits to be sent and asks how the rest stands; what cannot be had is told, and asked for again later. */
    async ask(): Promise<Stand> {
      if (!supplier) return stand();
      const troubles: string[] = [];
      const attempt = async (what: string, work: () => Promise<void>) => {
        if (troubles.length >= MOST_TROUBLES) return;
        try {
          await work();
        } catch (error) {
          // Somebody else was at it that moment: it is asked again.
          if (error instanceof MovedOn) return;
          if (!(error instanceof SupplierTrouble)) throw error;
          troubles.push(`${what}: ${error.message}`);
        }
      };
      for (const open of await ask<OpenOrder>(OPEN, [supplier.name]))
        await attempt(`Order ${open.number}`, () => order(supplier, open));
      for (const open of await ask<OpenCore>(CORES, []))
        await attempt(`Return of ${open.number}`, () => core(supplier, open));
      await note(troubles.length > 0 ? 'asked_at' : 'answered_at', troubles[0] ?? null);
      return stand();
    },
  };
}
export type SupplierService = ReturnType<typeof supplierService>;
