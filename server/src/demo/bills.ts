import { billSchema, estimateOf, type Bill } from '@lanternwright/core/cost';
import type { UnitKind } from '@lanternwright/core/axle-plan';
import {
  fold,
  partsByWork,
  type Actor,
  type JobOpened,
  type StoredEvent,
} from '@lanternwright/core/traveller';
import { demoParts } from './parts.ts';
import { demoRates, demoShop } from './scenario.ts';
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

/** What an owner is asked before a job goes on, as the last of its records so far. */
export function demoEstimate(events: readonly StoredEvent[], kind: UnitKind, supervisor: Actor): StoredEvent {
  const last = events.at(-1)!;
  const job = fold(events);
  const store = demoParts();
  const ends = job.wheelEnds.map((w) => ({
    ...{ position: w.position, works: w.plan.works },
    parts: partsByWork(w).map(({ line, works }) => {
      const part = store.find((p) =>
        p.fits.some((f) => f.sheetId === w.sheet.sheetId && f.line === line.what),
      );
      return { title: line.title ?? line.what, works, minor: part?.price?.minor ?? null };
    }),
  }));
  const { hour, suppliesPercent, taxes } = demoRates;
  const rates = {
    ...{ currency: hour.currency, hourMinor: hour.minor, suppliesPercent },
    taxes: taxes.map((tax) => ({ ...tax, on: [...tax.on] })),
  };
  return {
    ...{ id: uuidOf(`estimate of ${last.jobId}`), jobId: last.jobId, version: last.version + 1 },
    at: new Date(Date.parse(last.at) + 10 * 60_000).toISOString(),
    by: supervisor,
    body: {
      kind: 'bill-written',
      as: 'estimate',
      bill: billSchema.parse(estimateOf(ends, { kind, measured: [], rates })),
    },
  };
}
