import { QueryTypes } from 'sequelize';
import type { Database } from '../database/connect.ts';

/** A table whose rows follow from the record. */
interface Table {
  name: string;
  key: readonly string[];
  /** The columns that follow from the record, key included. */
  columns: readonly string[];
  /** `update`: a row also holds what is no part of the record, so none is made or removed. `add`: none is removed. */
  only?: 'update' | 'add';
}

/** Every table that follows from the record; one comes after those it refers to. */
export const tables: readonly Table[] = [
  { name: 'owner', key: ['id'], columns: ['id', 'name'], only: 'add' },
  {
    name: 'unit',
    key: ['id'],
    columns: ['id', 'owner_id', 'name', 'kind', 'plate', 'version', 'duty', 'remarks'],
  },
  {
    name: 'axle',
    key: ['id'],
    columns: ['id', 'unit_id', 'number', 'role', 'wheels', 'brake', 'sheet', 'taken_out_at'],
  },
  {
    name: 'meter_reading',
    key: ['unit_id', 'nth'],
    columns: ['unit_id', 'nth', 'date', 'distance', 'km', 'hours', 'source', 'total_km', 'total_hours'],
  },
  {
    name: 'service_told',
    key: ['unit_id', 'nth'],
    columns: ['unit_id', 'nth', 'axle_id', 'position', 'date', 'works'],
  },
  {
    name: 'meter_swap',
    key: ['unit_id', 'nth'],
    columns: ['unit_id', 'nth', 'date', 'of', 'why', 'last', 'first', 'after'],
  },
  {
    name: 'tool',
    key: ['id'],
    columns: [
      ...['id', 'code', 'tool', 'changed_at', 'changed_by', 'retired_at', 'version', 'holder', 'recalls'],
      ...['missing', 'certificates'],
    ],
  },
  {
    name: 'sheet_revision',
    key: ['sheet_id', 'revision'],
    columns: ['sheet_id', 'revision', 'sheet', 'at', 'by', 'note'],
  },
  {
    name: 'job',
    key: ['id'],
    columns: [
      ...['id', 'number', 'unit_id', 'title', 'version', 'opened_at', 'closed_at'],
      ...['wheel_ends', 'stopped', 'estimate', 'leaves', 'deferred'],
    ],
  },
  {
    name: 'reading',
    key: ['job_id', 'position', 'round'],
    columns: [
      ...['job_id', 'position', 'round', 'unit_id', 'axle_id', 'end_play_mm', 'range_mm', 'cycles'],
      ...['verdict', 'at', 'by_name', 'km', 'final'],
    ],
  },
  {
    name: 'follow_up',
    key: ['job_id', 'position', 'kind', 'nth'],
    columns: [
      ...['job_id', 'position', 'kind', 'nth', 'unit_id', 'axle_id', 'what', 'from_km', 'by_km', 'by_hours'],
      ...['by_date', 'done_at', 'wants_reading'],
    ],
  },
  {
    name: 'service_done',
    key: ['job_id', 'position'],
    columns: ['job_id', 'position', 'unit_id', 'axle_id', 'date', 'works', 'minutes'],
  },
  {
    name: 'due',
    key: ['axle_id', 'position', 'work'],
    columns: [
      ...['axle_id', 'position', 'work', 'unit_id', 'last_on', 'due_on', 'earliest', 'latest', 'due_by'],
      'missing',
      'shortened',
    ],
  },
  { name: 'unit_due', key: ['unit_id'], columns: ['unit_id', 'due_on', 'earliest', 'unknown'] },
  {
    name: 'wheel_end',
    key: ['axle_id', 'position'],
    columns: [
      ...['unit_id', 'axle_id', 'position', 'verdict', 'end_play_mm', 'read_at', 'read_km', 'open_job_id'],
      ...['out_of_service', 'assembly'],
    ],
  },
  {
    name: 'booking',
    key: ['id'],
    columns: [
      ...['id', 'unit_id', 'job_id', 'bay_id', 'during', 'people', 'tools', 'note', 'locked', 'cancelled'],
      ...['version', 'works', 'came_at', 'left_at', 'missed_at'],
    ],
  },
  {
    name: 'booking_claim',
    key: ['booking_id', 'what', 'of'],
    columns: ['booking_id', 'what', 'of', 'during'],
  },
  {
    name: 'absence',
    key: ['id'],
    columns: ['id', 'what', 'of', 'during', 'why', 'cancelled', 'version'],
  },
  {
    name: 'part',
    key: ['id'],
    columns: [
      ...[
        'id',
        'part',
        'version',
        'changed_at',
        'changed_by',
        'kind',
        'title',
        'bore_mm',
        'outside_mm',
        'width_mm',
      ],
      ...['on_hand', 'reserved', 'cores'],
    ],
  },
  { name: 'part_number', key: ['part_id', 'plain'], columns: ['part_id', 'plain', 'number', 'own'] },
  { name: 'stock', key: ['part_id', 'what', 'of'], columns: ['part_id', 'what', 'of', 'quantity'] },
  {
    name: 'reservation',
    key: ['id'],
    columns: ['id', 'part_id', 'job_id', 'position', 'line', 'quantity', 'planned'],
  },
  {
    name: 'stock_movement',
    key: ['part_id', 'version'],
    columns: [
      ...['part_id', 'version', 'at', 'by_name', 'what', 'quantity', 'change', 'place', 'to_place', 'who'],
      ...['job_id', 'position', 'line', 'reason', 'order_id', 'currency', 'minor'],
      ...['online', 'return_of', 'reference', 'batch'],
    ],
  },
  {
    name: 'purchase',
    key: ['id'],
    columns: [
      ...['id', 'number', 'supplier', 'status', 'lines', 'expected', 'reference', 'sent_at', 'version'],
      ...['changed_at', 'changed_by', 'reason', 'online'],
    ],
  },
  {
    name: 'person',
    key: ['id'],
    columns: ['id', 'name', 'role', 'version', 'switched_off_at'],
    only: 'update',
  },
  { name: 'person_owner', key: ['person_id', 'owner_id'], columns: ['person_id', 'owner_id'] },
];

const list = (columns: readonly string[]) => columns.map((c) => `"${c}"`).join(', ');
const rowOf = (from: string, columns: readonly string[]) =>
  `(${columns.map((c) => `${from}."${c}"`).join(', ')})`;

async function run(db: Database, sql: string): Promise<void> {
  await db.sequelize.query(sql);
}

/**
 * Opens empty tables beside the working ones, for this transaction. A temporary table hides the one it is named after:
 * whatever this transaction reads or writes under its name, it reads and writes beside.
 */
export async function openBeside(db: Database): Promise<void> {
  for (const { name, key, columns } of tables) {
    await run(
      db,
      `create temporary table ${name} on commit drop as select ${list(columns)} from public.${name} with no data`,
    );
    await run(db, `create unique index on pg_temp.${name} (${list(key)})`);
    if (columns.includes('unit_id') && key[0] !== 'unit_id')
      await run(db, `create index on pg_temp.${name} (unit_id)`);
  }
  await run(db, 'create index on pg_temp.reading (axle_id, position)');
}

/** Counts what stands in the tables beside, so that they are read by their indexes. */
export async function countBeside(db: Database): Promise<void> {
  for (const { name } of tables) await run(db, `analyze pg_temp.${name}`);
}

/** The working rows of a stream that is set aside stay as they are. */
export async function keepWorking(
  db: Database,
  table: string,
  column: string,
  ids: readonly string[],
): Promise<void> {
  const { columns } = tables.find((t) => t.name === table)!;
  await db.sequelize.query(
    `insert into pg_temp.${table} select ${list(columns)} from public.${table} where "${column}" ::text = any($1 ::text[])
     on conflict do nothing`,
    { bind: [ids] },
  );
}

/** What of a table differs from the one beside it, as the key of a row that does; null where nothing does. */
export async function firstDifference(db: Database): Promise<{ table: string; key: string } | null> {
  for (const { name, key, columns, only } of tables) {
    const missing = `select ${list(columns)} from pg_temp.${name} except select ${list(columns)} from public.${name}`;
    const extra = `select ${list(columns)} from public.${name} except select ${list(columns)} from pg_temp.${name}`;
    // An owner whose only unit went with a file that was never kept is no fault.
    const sql = only === 'add' ? missing : `(${missing}) union all (${extra})`;
    const [found] = await db.sequelize.query<{ key: string }>(
      `select concat_ws(' ', ${list(key)}) as key from (${sql}) d limit 1`,
      { type: QueryTypes.SELECT },
    );
    if (found) return { table: name, key: found.key };
  }
  return null;
}

/** Takes the tables beside away: the working ones are seen again. */
export async function closeBeside(db: Database): Promise<void> {
  await run(db, `drop table ${tables.map((t) => `pg_temp.${t.name}`).join(', ')}`);
}

/** Puts what stands beside in the place of the working rows; only rows that differ are touched. */
export async function swapIn(db: Database): Promise<void> {
  for (const { name, key, only } of [...tables].reverse()) {
    if (only) continue;
    const same = key.map((k) => `t."${k}" = w."${k}"`).join(' and ');
    await run(
      db,
      `delete from public.${name} w where not exists (select 1 from pg_temp.${name} t where ${same})`,
    );
  }
  for (const { name, key, columns, only } of tables) {
    const rest = columns.filter((c) => !key.includes(c));
    const differs = `${rowOf('w', rest)} is distinct from`;
    const set = rest.map((c) => `"${c}" = t."${c}"`).join(', ');
    const same = key.map((k) => `t."${k}" = w."${k}"`).join(' and ');
    if (rest.length > 0)
      await run(
        db,
        `update public.${name} w set ${set} from pg_temp.${name} t where ${same} and ${differs} ${rowOf('t', rest)}`,
      );
    if (only !== 'update')
      await run(
        db,
        `insert into public.${name} (${list(columns)}) select ${list(columns)} from pg_temp.${name} t
         where not exists (select 1 from public.${name} w where ${same})`,
      );
  }
}
