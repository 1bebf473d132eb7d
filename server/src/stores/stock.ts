import { QueryTypes } from 'sequelize';
import {
  sameJson,
  stockAggregate,
  type Entry,
  type Recorder,
  type Reservation,
  type StockCommand,
  type StockState,
} from '@lanternwright/core/record';
import type { Part } from '@lanternwright/core/part';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { refused } from '../http/problem.ts';
import { append, MovedOn } from '../record/append.ts';
import { asColumns, insertRows } from '../record/insert-rows.ts';
import { stockRows } from './rows.ts';

interface Loaded {
  part: Part;
  version: number;
  changedAt: Date;
  changedBy: string;
  cores: number;
  counts: { what: 'place' | 'lent' | 'job'; of: string; quantity: number }[];
  reservations: Reservation[];
}

/** The part's row is locked first: who takes of it waits here, so that the last one is taken once. */
const LOCK = 'select 1 from part where id = $1 for update';
const LOAD = `
  select part, version, changed_at as "changedAt", changed_by as "changedBy", cores,
    (select coalesce(json_agg(json_build_object('what', s.what, 'of', s.of, 'quantity', s.quantity)), '[]')
      from stock s where s.part_id = p.id) as counts,
    (select coalesce(json_agg(json_strip_nulls(json_build_object('id', r.id, 'jobId', r.job_id, 'position', r.position, 'line', r.line,
        'quantity', r.quantity, 'planned', nullif(r.planned, false))) order by r.id), '[]')
      from reservation r where r.part_id = p.id) as reservations
  from part p where id = $1`;

/**
 * A part as it stands, its movements left out: what may happen to it does not hang on them, and a part that moves often
 * has thousands.
 */
async function stateOf(db: Database, id: string): Promise<StockState | null> {
  await db.sequelize.query(LOCK, { bind: [id] });
  const [row] = await db.sequelize.query<Loaded>(LOAD, { type: QueryTypes.SELECT, bind: [id] });
  if (!row) return null;
  const { counts, changedAt, ...rest } = row;
  const of = (what: Loaded['counts'][number]['what']) =>
    Object.fromEntries(counts.filter((c) => c.what === what).map((c) => [c.of, c.quantity]));
  return {
    ...rest,
    changedAt: changedAt.toISOString(),
    ...{ places: of('place'), lent: of('lent'), onJobs: of('job'), movements: [] },
  };
}

const PART_COLUMNS = [
  ...['part', 'version', 'changed_at', 'changed_by', 'kind', 'title', 'bore_mm', 'outside_mm', 'width_mm'],
  ...['on_hand', 'reserved', 'cores'],
];
const UPSERT = `
  insert into part select * from jsonb_populate_recordset(null ::part, $1 ::jsonb)
  on conflict (id) do update set ${PART_COLUMNS.map((c) => `${c} = excluded.${c}`).join(', ')}`;

/** Brings the rows of a part up to date: those that are otherwise than before. */
async function write(db: Database, id: string, before: StockState | null, after: StockState): Promise<void> {
  const rowsOf = (state: StockState) => stockRows(id, stockAggregate.project(state));
  const [old, now] = [before && rowsOf(before), rowsOf(after)];
  await db.sequelize.query(UPSERT, { bind: [asColumns(now.part)] });
  for (const table of ['part_number', 'stock', 'reservation'] as const) {
    if (sameJson(now[table], old?.[table] ?? [])) continue;
    if (old) await db.sequelize.query(`delete from ${table} where part_id = $1`, { bind: [id] });
    await insertRows(db, table, now[table]);
  }
  await insertRows(db, 'stock_movement', now.stock_movement);
}

/** Who records something of the store, when, under which id, and which version they saw. */
export interface StockAsked {
  by: Recorder;
  at: string;
  /** Of the record: sent twice, it is stored once. */
  id: string;
  expected?: number;
}

/**
 * Decides a command on a part of the store, records what follows and brings its rows up to date.
 * @throws HttpProblem 409 when it was changed since `expected`, 422 with why it cannot be
 */
export async function changeStock(
  db: Database,
  partId: string,
  command: StockCommand,
  { by, at, id, expected }: StockAsked,
): Promise<void> {
  await inTransaction(db, async () => {
    const before = await stateOf(db, partId);
    const again = 'select 1 from entry where id = $1 and stream = $2 and stream_id = $3';
    const bind = [id, 'stock', partId];
    if ((await db.sequelize.query(again, { type: QueryTypes.SELECT, bind })).length > 0) return;
    if (expected !== undefined && (before?.version ?? 0) !== expected) throw new MovedOn();
    const decided = stockAggregate.decide(before, command);
    if (!decided.ok) throw refused(decided.reason, decided.field);
    const [body] = decided.bodies;
    if (!body) return;
    const version = (before?.version ?? 0) + 1;
    const entry: Entry<typeof body> = { id, stream: 'stock', streamId: partId, version, at, by, body };
    const after = stockAggregate.fold(before, entry);
    await write(db, partId, before, after);
    await append(db, entry);
  });
}
