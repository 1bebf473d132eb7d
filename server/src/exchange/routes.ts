import { Readable } from 'node:stream';
import { Router } from 'express';
import { exchangeRoutes } from '@lanternwright/contract/exchange';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { fold } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import type { FleetService } from '../fleet/service.ts';
import { serve } from '../http/serve.ts';
import type { Viewer } from '../http/viewer.ts';
import type { JobsService } from '../jobs/service.ts';
import type { SealsService } from '../record/seals.ts';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';
import { estimatePaper } from './estimate-paper.ts';
import { writeFleetCsv } from './fleet-csv.ts';
import type { fleetImport } from './fleet-import.ts';
import { servicePaper, travellerPaper } from './job-paper.ts';
import { tagPaper } from './wheel-end-tag.ts';

const write = { traveller: travellerPaper, record: servicePaper, estimate: estimatePaper };

/** How many units of an export are written at a time. */
const UNITS_AT_ONCE = 200;

interface Shop {
  db: Database;
  fleet: FleetService;
  jobs: JobsService;
  settings: SettingsService;
  clock: Clock;
  seals: SealsService;
}

export function exchangeRouter(
  { db, fleet, jobs, settings, clock, seals }: Shop,
  imports: ReturnType<typeof fleetImport>,
): Router {
  const router = Router();

  /** The fleet file of what somebody may see, a piece at a time. */
  async function* fleetFile(viewer: Viewer): AsyncGenerator<string> {
    const summaries = await fleet.list(viewer);
    yield writeFleetCsv([], 'with-head');
    for (let i = 0; i < summaries.length; i += UNITS_AT_ONCE) {
      const piece = summaries.slice(i, i + UNITS_AT_ONCE);
      const axles = await fleet.axlesOf(piece.map((u) => u.id));
      const units = piece.map(({ id, owner, name, kind, plate, meterKm: km, hours }) => ({
        owner: owner.name,
        name,
        kind,
        plate,
        meter: {},
        axles: axles.get(id) ?? [],
        km,
        hours,
      }));
      yield writeFleetCsv(units, 'rows-only');
    }
  }

  serve(router, exchangeRoutes.jobPaper, async ({ params, query, viewer, req, res }) => {
    const detail = await jobs.detail(params.id, viewer);
    const job = fold(detail.events);
    const unit = {
      name: detail.unit.name,
      owner: detail.unit.owner.name,
      kind: unitKinds[detail.unit.kind],
    };
    res.type('application/pdf').attachment(`${params.paper}-${detail.number}.pdf`);
    const paper = query.size ?? settings.current().paper;
    if (params.paper === 'tags')
      return tagPaper(job, { unit, paper, origin: `${req.protocol}://${req.get('host') ?? 'localhost'}` });
    const last = await db.entry.findOne({
      where: { stream: 'job', streamId: params.id },
      order: [['version', 'DESC']],
    });
    const { say: sayTime } = clock;
    const { name, address } = settings.current();
    const context = {
      shop: { name, address },
      unit,
      number: detail.number,
      hash: last!.hash,
      seal: await seals.sealOver(Number(last!.seq)),
      sayTime,
      paper,
    };
    return write[params.paper](job, context);
  });

  serve(router, exchangeRoutes.preview, ({ body, viewer }) => imports.preview(body.csv, viewer));
  serve(router, exchangeRoutes.importFleet, ({ body, viewer }) => imports.bringIn(body.csv, viewer));

  serve(router, exchangeRoutes.exportFleet, ({ viewer, res }) => {
    res.type('text/csv; charset=utf-8').attachment('fleet.csv');
    return Readable.from(fleetFile(viewer));
  });
  return router;
}
