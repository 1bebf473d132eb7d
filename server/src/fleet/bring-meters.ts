import { QueryTypes } from 'sequelize';
import {
  meterAggregate,
  readsOf,
  sameJson,
  withReads,
  type BroughtReads,
  type MeterRead,
  type MeterRow,
  type MeterState,
} from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { copyIn, type Row } from '../database/copy-in.ts';
import { entriesOfAll, type Asked } from '../record/append.ts';
import { appendBatch } from '../record/batch.ts';
import { fromBatches, metersOf } from '../record/beginning.ts';
import { refreshDue } from '../plan/refresh-due.ts';

/** What is brought to a unit, in the order of days. */
export interface ForUnit {
  unitId: string;
  distanceIn: BroughtReads['distanceIn'];
  reads: BroughtReads['reads'];
}

/** What came of it. */
export interface Brought {
  /** Readings that are new. */
  kept: number;
  /** Of these and of those from before, how many no longer fit the others. */
  doubtful: number;
  /** Readings that the unit had already, or of which one a day is enough. */
  known: number;
}

export interface Options {
  source: BroughtReads['source'];
  /** Which of a unit's new readings are kept. */
  choose?: (known: readonly (MeterRead | null)[], reads: readonly MeterRead[]) => MeterRead[];
  /** Is told how far it is, 0 to 1; what it throws ends it. */
  onProgress?: (done: number) => void;
}

const UNITS_AT_ONCE = 200;

const LOCK = 'select id from unit where id = any($1 ::uuid[]) order by id for no key update';
const COLUMNS = 'unit_id, nth, date, distance, km, hours, source, total_km, total_hours';
/** Other totals of readings that were there: what was told later made them fit, or not. */
const OTHER_TOTALS = `
  update meter_reading m set total_km = n.total_km, total_hours = n.total_hours
  from (select * from jsonb_to_recordset($1 ::jsonb) as r(u uuid, n integer, k double precision, h double precision))
    as n(unit_id, nth, total_km, total_hours)
  where m.unit_id = n.unit_id and m.nth = n.nth`;

/** The members of a reading by which two are one. */
const keyOf = ({ date, km, hours }: MeterRead) => `${date} ${km} ${hours}`;

async function metersNow(db: Database, ids: readonly string[]): Promise<Map<string, MeterState | null>> {
  const entries = await entriesOfAll(db, 'meter', ids);
  const held = await fromBatches(db, ids);
  return new Map(ids.map((id) => [id, metersOf(entries.get(id)!, held.get(id)!)]));
}

/** One unit's part of a batch, and how its meters stand before and after it; nothing where it has no new reading. */
function partOf(
  before: MeterState | null,
  { unitId, distanceIn, reads }: ForUnit,
  { source, choose }: Options,
): { row: BroughtReads; after: MeterState } | null {
  const has = new Set(before?.reads.flatMap((r) => (r ? [keyOf(r)] : [])));
  const all = readsOf({ source, distanceIn, reads });
  // The same line twice in a file is one reading.
  const fresh = all.filter((r) => !has.has(keyOf(r)) && has.add(keyOf(r)));
  const kept = choose ? choose(before?.reads ?? [], fresh) : fresh;
  if (kept.length === 0) return null;
  const place = new Map(all.map((r, i) => [r, i]));
  const row: BroughtReads = {
    ...{ unitId, after: before?.version ?? 0, source, distanceIn },
    reads: kept.map((r) => reads[place.get(r)!]!),
  };
  return { row, after: withReads(before, kept) };
}

/** Rows that a part adds to the list of readings, and those it makes others of. */
function rowsOf(before: MeterState | null, { row, after }: { row: BroughtReads; after: MeterState }) {
  const first = before?.reads.length ?? 0;
  const was = new Map(before ? meterAggregate.project(before).reads.map((r) => [r.nth, r]) : []);
  const now = meterAggregate.project(after).reads;
  const isDoubtful = (r: MeterRow | undefined) =>
    r !== undefined && ((r.km !== null && r.totalKm === null) || (r.hours !== null && r.totalHours === null));
  return {
    added: now
      .filter((r) => r.nth >= first)
      .map((r): Row => [
        ...[row.unitId, r.nth, r.date, r.distance, r.km, r.hours, r.source, r.totalKm, r.totalHours],
      ]),
    doubtful: now.filter((r) => isDoubtful(r) && !isDoubtful(was.get(r.nth))).length,
    others: now
      .filter((r) => r.nth < first && !sameJson(r, was.get(r.nth)))
      .map((r) => ({ u: row.unitId, n: r.nth, k: r.totalKm, h: r.totalHours })),
  };
}

/** Bringing readings of many units in at once: as one record, whatever they are. */
export function bringMeters(db: Database) {
  /** A page of units at a time: what would be kept of what is brought, and the rows that follow from it. */
  async function* pages(units: readonly ForUnit[], options: Options) {
    for (let i = 0; i < units.length; i += UNITS_AT_ONCE) {
      const page = units.slice(i, i + UNITS_AT_ONCE);
      const states = await metersNow(
        db,
        page.map((u) => u.unitId),
      );
      const parts = page.flatMap((unit) => {
        const before = states.get(unit.unitId)!;
        const part = partOf(before, unit, options);
        return part ? [{ row: part.row, ...rowsOf(before, part) }] : [];
      });
      options.onProgress?.((i + page.length) / units.length);
      yield parts;
    }
  }

  const countOf = (units: readonly ForUnit[], kept: number, doubtful: number): Brought => ({
    kept,
    doubtful,
    known: units.reduce((sum, u) => sum + u.reads.length, 0) - kept,
  });

  return {
    /** What bringing them in would come to. Nothing is changed. */
    async look(units: readonly ForUnit[], options: Options): Promise<Brought> {
      let [kept, doubtful] = [0, 0];
      for await (const parts of pages(units, options)) {
        kept += parts.reduce((sum, p) => sum + p.added.length, 0);
        doubtful += parts.reduce((sum, p) => sum + p.doubtful, 0);
      }
      return countOf(units, kept, doubtful);
    },

    /**
     * Brings them in, in the open transaction: all of them, or where something fails none. Readings of these units that
     * somebody else tells wait so long.
     * @param what kind of batch, as `meter-file`
     */
    async take(units: readonly ForUnit[], what: string, asked: Asked, options: Options): Promise<Brought> {
      const ids = units.map((u) => u.unitId);
      await db.sequelize.query(LOCK, { type: QueryTypes.SELECT, bind: [ids] });
      await db.sequelize.query(
        `create temporary table meters_in on commit drop as select ${COLUMNS} from meter_reading with no data`,
      );
      const rows: BroughtReads[] = [];
      const lines: Row[] = [];
      const others: object[] = [];
      let doubtful = 0;
      for await (const parts of pages(units, options))
        for (const part of parts) {
          rows.push(part.row);
          for (const line of part.added) lines.push(line);
          others.push(...part.others);
          doubtful += part.doubtful;
        }
      if (rows.length > 0) {
        await copyIn(db, `meters_in (${COLUMNS})`, lines);
        await db.sequelize.query(
          `insert into meter_reading (${COLUMNS}) select ${COLUMNS} from meters_in order by unit_id, nth`,
        );
        if (others.length > 0) await db.sequelize.query(OTHER_TOTALS, { bind: [JSON.stringify(others)] });
        await refreshDue(
          db,
          rows.map((r) => r.unitId),
        );
        await appendBatch(db, what, rows, asked);
      }
      return countOf(units, lines.length, doubtful);
    },
  };
}
export type BringMeters = ReturnType<typeof bringMeters>;
