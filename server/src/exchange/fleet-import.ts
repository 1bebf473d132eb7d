import { QueryTypes } from 'sequelize';
import { PREVIEW_ROWS, type FleetPreview } from '@lanternwright/contract/exchange';
import { newUnitSchema } from '@lanternwright/contract/fleet';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import type { FleetService } from '../fleet/service.ts';
import { HttpProblem, refused } from '../http/problem.ts';
import { askingBy, type Viewer } from '../http/viewer.ts';
import type { WorkPool } from '../pool/pool.ts';
import type { Clock } from '../shop/clock.ts';
import type { SheetsService } from '../sheets/service.ts';
import type { FleetAnswer } from './fleet-answer.ts';

type FleetFile = Omit<Extract<FleetAnswer, { ok: true }>, 'ok'>;
type Good = FleetPreview['good'][number];

const keyOf = ({ owner, name }: Pick<Good, 'owner' | 'name'>) => `${owner}\n${name}`.toLowerCase();

function toPreview({ good, bad, badCount }: FleetFile): FleetPreview {
  return {
    good: good.slice(0, PREVIEW_ROWS),
    bad: bad.slice(0, PREVIEW_ROWS),
    goodCount: good.length,
    badCount,
  };
}

/** Bringing a fleet in from a file. It is read on a thread of the pool. */
export function fleetImport(
  db: Database,
  {
    fleet,
    sheets,
    pool,
    clock,
  }: { fleet: FleetService; sheets: SheetsService; pool: WorkPool; clock: Clock },
) {
  /** Which of these units the shop has. */
  async function known(good: readonly Good[]): Promise<Set<string>> {
    const rows = await db.sequelize.query<{ key: string }>(
      `select lower(o.name || E'\\n' || u.name) as key from unit u join owner o on o.id = u.owner_id
       where lower(o.name || E'\\n' || u.name) = any($1 ::text[])`,
      { type: QueryTypes.SELECT, bind: [good.map(keyOf)] },
    );
    return new Set(rows.map((r) => r.key));
  }

  /** Units the shop has already count as bad rows, so that the preview tells what would happen. */
  async function read(csv: string, wanted: 'preview' | 'units', viewer: Viewer): Promise<FleetFile> {
    const answer = await pool.run(
      'fleet-file',
      { csv, sheets: await sheets.newest(), wanted },
      { person: viewer.person.id, takes: 'long' },
    );
    if (!answer.ok) throw refused(answer.reason, 'csv');
    const has = await known(answer.good);
    const isNew = answer.good.map((g) => !has.has(keyOf(g)));
    const there = answer.good.filter((_, i) => !isNew[i]);
    const bad = there.map(({ lines, name, owner }) => ({
      line: lines[0]!,
      name,
      reason: `${owner} has a unit of this name already`,
    }));
    return {
      good: answer.good.filter((_, i) => isNew[i]),
      units: answer.units.filter((_, i) => isNew[i]),
      bad: [...answer.bad, ...bad].sort((a, b) => a.line - b.line),
      badCount: answer.badCount + bad.length,
    };
  }

  return {
    preview: async (csv: string, viewer: Viewer): Promise<FleetPreview> =>
      toPreview(await read(csv, 'preview', viewer)),

    /** Brings the good units in, all of them or none. @throws HttpProblem 422 when there is none */
    async bringIn(csv: string, viewer: Viewer): Promise<FleetPreview> {
      const file = await read(csv, 'units', viewer);
      if (file.good.length === 0)
        throw new HttpProblem(422, 'Nothing to bring in', 'No row of the file is good. Nothing was kept.');
      const units = file.units.map((unit) => newUnitSchema.parse(JSON.parse(unit)));
      await inTransaction(db, () => fleet.bringIn(units, askingBy(clock)(viewer)));
      return toPreview(file);
    },
  };
}
