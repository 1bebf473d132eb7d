import { billSchema, type Bill } from '@lanternwright/core/cost';
import type { Actor, JobOpened, StoredEvent } from '@lanternwright/core/traveller';
import { demoShop } from './scenario.ts';
import { uuidOf } from './random.ts';

/** Invented prices, in the smallest coin. */
const A_WHEEL_END = 9_400;
const A_SEAL = 3_620;

function billOf({ wheelEnds }: JobOpened): Bill {
  const ends = wheelEnds.length;
  const seals = wheelEnds.filter((w) => w.route?.works.includes('seal')).length;
  const labour = {
    group: 'labour',
    what: 'Hubs',
    per: 'wheel',
    quantity: ends,
    unitMinor: A_WHEEL_END,
  } as const;
  const parts = {
    group: 'parts',
    what: 'Hub seal',
    per: 'piece',
    quantity: seals,
    unitMinor: A_SEAL,
  } as const;
  return billSchema.parse({
    currency: demoShop.currency,
    lines: [labour, ...(seals > 0 ? [parts] : [])],
    suppliesPercent: 5,
    taxes: [{ name: 'VAT', percent: 20, on: ['labour', 'parts', 'supplies'] }],
  });
}

/** What a job that is done was billed at, as the last of its records. */
export function demoBill(events: readonly StoredEvent[], supervisor: Actor): StoredEvent {
  const last = events.at(-1)!;
  return {
    ...{ id: uuidOf(`bill of ${last.jobId}`), jobId: last.jobId, version: last.version + 1 },
    at: new Date(Date.parse(last.at) + 20 * 60_000).toISOString(),
    by: supervisor,
    body: { kind: 'bill-written', as: 'actual', bill: billOf(events[0]!.body as JobOpened) },
  };
}
