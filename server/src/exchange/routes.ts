import { Readable } from 'node:stream';
import { Router } from 'express';
import { exchangeRoutes, meterFileRoutes } from '@lanternwright/contract/exchange';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { fold, isPriced } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import type { RatesService } from '../estimates/rates.ts';
import type { FleetService } from '../fleet/service.ts';
import { HttpProblem } from '../http/problem.ts';
import { serve } from '../http/serve.ts';
import type { Viewer } from '../http/viewer.ts';
import type { PhotosService } from '../jobs/photos.ts';
import type { JobsService } from '../jobs/service.ts';
import type { WorkPool } from '../pool/pool.ts';
import type { SealsService } from '../record/seals.ts';
import type { SettingsService } from '../shop/settings.ts';
import { writeFleetCsv } from './fleet-csv.ts';
import type { fleetImport } from './fleet-import.ts';
import type { MeterFilesService } from './meter-files.ts';

/** How many units of an export are written at a time. */
const UNITS_AT_ONCE = 200;

interface Shop {
  db: Database;
  fleet: FleetService;
  jobs: JobsService;
  settings: SettingsService;
  rates: RatesService;
  seals: SealsService;
  photos: PhotosService;
  pool: WorkPool;
  /** Where the shop is found on its network; undefined where nobody has said. */
  shopAddress: string | undefined;
}

export function exchangeRouter(
  { db, fleet, jobs, settings, rates, seals, photos, pool, shopAddress }: Shop,
  imports: { fleet: ReturnType<typeof fleetImport>; meters: MeterFilesService },
): Router {
  const router = Router();

  /** The fleet file of what somebody may see, a piece at a time. */
  async function* fleetFile(viewer: Viewer): AsyncGenerator<string> {
    const ids = await fleet.ids(viewer);
    yield writeFleetCsv([], 'with-head');
    for (let i = 0; i < ids.length; i += UNITS_AT_ONCE) {
      const wanted = ids.slice(i, i + UNITS_AT_ONCE);
      const [piece, axles, remarks] = await Promise.all([
        fleet.some(wanted),
        fleet.axlesOf(wanted),
        fleet.remarksOf(wanted, viewer),
      ]);
      const found = new Map(piece.map((u) => [u.id, u]));
      const inOrder = wanted.flatMap((id) => found.get(id) ?? []);
      const units = inOrder.map(({ id, owner, name, kind, plate, meterKm: km, hours }) => ({
        owner: owner.name,
        name,
        kind,
        plate,
        meter: {},
        remarks: remarks.get(id) ?? '',
        told: [],
        axles: axles.get(id) ?? [],
        km,
        hours,
      }));
      yield writeFleetCsv(units, 'rows-only');
    }
  }

  serve(router, exchangeRoutes.jobPaper, async ({ params, query, viewer, req, res }) => {
    const detail = await jobs.detail(params.id, viewer);
    const unit = {
      name: detail.unit.name,
      owner: detail.unit.owner.name,
      kind: unitKinds[detail.unit.kind],
      axles: detail.unit.axles,
    };
    if (params.paper === 'estimate' && !isPriced(fold(detail.events)))
      throw new HttpProblem(404, 'No estimate', 'A supervisor writes the estimate or the bill first');
    const { name, address, terms, units: reader, paper, zone } = settings.current();
    const size = query.size ?? paper;
    const { events } = detail;
    const asked = { person: viewer.person.id, takes: 'short' } as const;
    res.type('application/pdf').attachment(`${params.paper}-${detail.number}.pdf`);
    if (params.paper === 'tags') {
      // Where it is printed may be an address that only this machine has.
      const origin = shopAddress ?? `${req.protocol}://${req.get('host') ?? 'localhost'}`;
      return pool.run('paper', { kind: 'tags', events, context: { unit, size, reader, origin } }, asked);
    }
    const { taxNumber, validDays } = await rates.current();
    const last = await db.entry.findOne({
      where: { stream: 'job', streamId: params.id },
      order: [['version', 'DESC']],
    });
    const context = {
      ...{ shop: { name, address, terms, taxNumber, validDays }, unit, number: detail.number },
      hash: last!.hash,
      seal: await seals.sealOver(Number(last!.seq)),
      // Only the record shows them.
      photos: params.paper === 'record' ? await photos.ofJob(fold(events)) : new Map<string, Buffer>(),
      ...{ reader, size, zone },
    };
    return pool.run('paper', { kind: params.paper, events, context }, asked);
  });

  serve(router, exchangeRoutes.preview, ({ body, viewer }) => imports.fleet.preview(body.csv, viewer));
  serve(router, exchangeRoutes.importFleet, ({ body, viewer }) => imports.fleet.bringIn(body.csv, viewer));

  const { meters } = imports;
  serve(router, meterFileRoutes.send, ({ query, body, viewer }) => meters.send(body, query.name, viewer));
  serve(router, meterFileRoutes.one, ({ params }) => meters.one(params.id));
  serve(router, meterFileRoutes.bad, ({ params, viewer, res }) => {
    res.type('text/csv; charset=utf-8').attachment('not-taken.csv');
    return meters.bad(params.id, viewer);
  });
  serve(router, meterFileRoutes.take, ({ params }) => meters.take(params.id));
  serve(router, meterFileRoutes.drop, ({ params }) => meters.drop(params.id));

  serve(router, exchangeRoutes.exportFleet, ({ viewer, res }) => {
    res.type('text/csv; charset=utf-8').attachment('fleet.csv');
    return Readable.from(fleetFile(viewer));
  });
  return router;
}
