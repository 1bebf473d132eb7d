import { Router } from 'express';
import { exchangeRoutes, type FleetPreview } from '@lanternwright/contract/exchange';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { fold } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import type { FleetService } from '../fleet/service.ts';
import { HttpProblem, refused } from '../http/problem.ts';
import { serve } from '../http/serve.ts';
import type { JobsService } from '../jobs/service.ts';
import type { SheetsService } from '../sheets/service.ts';
import { estimatePaper } from './estimate-paper.ts';
import { servicePaper, travellerPaper, type PaperContext } from './job-paper.ts';
import { tagPaper } from './wheel-end-tag.ts';
import { readFleetCsv, writeFleetCsv, type FleetFile, type Sheets } from './fleet-csv.ts';

function read(csv: string, sheets: Sheets): FleetFile {
  try {
    return readFleetCsv(csv, sheets);
  } catch (error) {
    throw refused(error instanceof Error ? error.message : String(error), 'csv');
  }
}

function toPreview({ good, bad }: FleetFile): FleetPreview {
  return {
    good: good.map(({ lines, unit }) => ({
      lines,
      owner: unit.owner,
      name: unit.name,
      kind: unitKinds[unit.kind],
      axles: unit.axles.length,
    })),
    bad: [...bad].sort((a, b) => a.line - b.line),
  };
}

const write = { traveller: travellerPaper, record: servicePaper, estimate: estimatePaper };

export function exchangeRouter(
  db: Database,
  fleet: FleetService,
  jobs: JobsService,
  sheets: SheetsService,
  sayTime: PaperContext['sayTime'],
): Router {
  const router = Router();

  /** Units the shop has already count as bad rows, so that the preview tells what would happen. */
  async function against(file: FleetFile): Promise<FleetFile> {
    const known = new Set((await fleet.list()).map((u) => `${u.owner.name}\n${u.name}`.toLowerCase()));
    const isKnown = ({ unit }: FleetFile['good'][number]) =>
      known.has(`${unit.owner}\n${unit.name}`.toLowerCase());
    return {
      good: file.good.filter((g) => !isKnown(g)),
      bad: [
        ...file.bad,
        ...file.good.filter(isKnown).map((g) => ({
          line: g.lines[0]!,
          name: g.unit.name,
          reason: `${g.unit.owner} has a unit of this name already`,
        })),
      ],
    };
  }

  serve(router, exchangeRoutes.jobPaper, async ({ params, query, req, res }) => {
    const detail = await jobs.detail(params.id);
    const job = fold(detail.events);
    const unit = {
      name: detail.unit.name,
      owner: detail.unit.owner.name,
      kind: unitKinds[detail.unit.kind],
    };
    res.type('application/pdf').attachment(`${params.paper}-${detail.number}.pdf`);
    const paper = query.size;
    if (params.paper === 'tags')
      return tagPaper(job, { unit, paper, origin: `${req.protocol}://${req.get('host') ?? 'localhost'}` });
    const last = await db.jobEvent.findOne({ where: { jobId: params.id }, order: [['version', 'DESC']] });
    const context = { unit, number: detail.number, hash: last!.hash, sayTime, paper };
    return write[params.paper](job, context);
  });

  serve(router, exchangeRoutes.preview, async ({ body }) =>
    toPreview(await against(read(body.csv, await sheets.newest()))),
  );

  serve(router, exchangeRoutes.importFleet, async ({ body }) => {
    const file = await against(read(body.csv, await sheets.newest()));
    if (file.good.length === 0)
      throw new HttpProblem(422, 'Nothing to bring in', 'No row of the file is good. Nothing was kept.');
    await db.sequelize.transaction(async (transaction) => {
      for (const { unit } of file.good) await fleet.addIn(unit, transaction);
    });
    return toPreview(file);
  });

  serve(router, exchangeRoutes.exportFleet, async ({ res }) => {
    const [summaries, axles] = await Promise.all([fleet.list(), fleet.allAxles()]);
    const units = summaries.map(({ id, owner, name, kind, plate, meterKm: km, hours }) => ({
      owner: owner.name,
      name,
      kind,
      plate,
      meter: {},
      axles: axles.get(id) ?? [],
      km,
      hours,
    }));
    res.type('text/csv; charset=utf-8').attachment('fleet.csv');
    return writeFleetCsv(units);
  });
  return router;
}
