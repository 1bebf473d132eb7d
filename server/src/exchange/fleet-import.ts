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

/** SQL: a plate of a unit u, however it is parted. */
const PLATE = `regexp_replace(lower(u.plate), '[\\s-]', '', 'g')`;
const plateOf = ({ plate }: Pick<Good, 'plate'>) => plate.replace(/[\s-]/g, '').toLowerCase();
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
  /** Units that the shop has by these names, or by these plates. */
  async function known(good: readonly Good[]): Promise<{ key: string; plate: string; unit: string }[]> {
    return db.sequelize.query(
      `select lower(o.name || E'\\n' || u.name) as key, ${PLATE} as plate, u.name || ', ' || o.name as unit
       from unit u join owner o on o.id = u.owner_id
       where lower(o.name || E'\\n' || u.name) = any($1 ::text[]) or ${PLATE} = any($2 ::text[])`,
      { type: QueryTypes.SELECT, bind: [good.map(keyOf), good.map(plateOf).filter(Boolean)] },
    );
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
    const names = new Set(has.map((u) => u.key));
    const plates = new Map(has.map((u) => [u.plate, u.unit]));
    const reasons = answer.good.map((g) =>
      names.has(keyOf(g))
        ? `${g.owner} has a unit of this name already`
        : plateOf(g) !== '' && plates.has(plateOf(g))
          ? `${plates.get(plateOf(g))} has the plate ${g.plate}`
          : null,
    );
    const isNew = reasons.map((reason) => reason === null);
    const bad = answer.good.flatMap(({ lines, name }, i) =>
      reasons[i] ? [{ line: lines[0]!, name, reason: reasons[i] }] : [],
    );
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
