import { QueryTypes } from 'sequelize';
import type { Database } from '../database/connect.ts';

const columnOf = (name: string) => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** Rows as JSON whose members are named as the columns are. */
export function asColumns(rows: readonly object[]): string {
  return JSON.stringify(
    rows.map((row) => Object.fromEntries(Object.entries(row).map(([k, v]) => [columnOf(k), v]))),
  );
}

/**
 * Inserts rows in one statement, their members named as columns are in camel case; members that are no column are left
 * out. An owner that is there already stays.
 */
export async function insertRows(db: Database, table: string, rows: readonly object[]): Promise<void> {
  if (rows.length > 0) await insertTables(db, { [table]: asColumns(rows) });
}

/** The same for several tables in their order; their rows are as `asColumns` writes them. */
export async function insertTables(db: Database, tables: Readonly<Record<string, string>>): Promise<void> {
  for (const [table, rows] of Object.entries(tables))
    await db.sequelize.query(
      `insert into ${table} select * from jsonb_populate_recordset(null ::${table}, $1 ::jsonb)
       ${table === 'owner' ? 'on conflict do nothing' : ''}`,
      { type: QueryTypes.RAW, bind: [rows] },
    );
}
