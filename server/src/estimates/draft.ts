import { estimateOf, type Bill } from '@lanternwright/core/cost';
import { fold, partsByWork } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import type { Viewer } from '../http/viewer.ts';
import type { JobsService } from '../jobs/service.ts';
import type { ShopAhead } from '../plan/shop-ahead.ts';
import { pricesOf } from './prices.ts';
import type { RatesService } from './rates.ts';

interface Services {
  db: Database;
  jobs: Pick<JobsService, 'detail'>;
  ahead: Pick<ShopAhead, 'measured'>;
  rates: RatesService;
}

/** A first estimate of a job from its works. @throws HttpProblem 404 for no such job */
export async function draftEstimate(
  { db, jobs, ahead, rates }: Services,
  id: string,
  viewer: Viewer,
): Promise<Bill> {
  const { events, unit } = await jobs.detail(id, viewer);
  const ends = fold(events).wheelEnds.map((w) => ({
    ...{ position: w.position, works: w.plan.works, sheet: w.sheet.sheetId },
    parts: partsByWork(w),
  }));
  const charged = rates.inCurrency(await rates.current());
  const lines = ends.flatMap(({ sheet, parts }) => parts.map((p) => ({ sheet, line: p.line.what })));
  const [priceOf, measured] = await Promise.all([pricesOf(db, lines, charged.currency), ahead.measured()]);
  const priced = ends.map(({ sheet, parts, ...end }) => ({
    ...end,
    parts: parts.map(({ line, works }) => ({
      ...{ title: line.title ?? line.what, works },
      minor: priceOf({ sheet, line: line.what }),
    })),
  }));
  return estimateOf(priced, { kind: unit.kind, measured, rates: charged });
}
