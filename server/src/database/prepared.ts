import { createHash } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import type { Client } from 'pg';
import { currentTransaction } from './transaction-context.ts';

interface Pooled {
  getConnection(): Promise<Client>;
  releaseConnection(connection: Client): void;
}

/**
 * Reads by a statement that PostgreSQL plans once a connection and not at every call: planning a page that reads many
 * tables under row-level security takes it longer than reading them. In the open transaction, where there is one.
 * @param name of the statement, the same text every time
 */
export async function prepared<Row>(
  { sequelize }: { sequelize: Sequelize },
  name: string,
  text: string,
  values: unknown[],
): Promise<Row[]> {
  const open = currentTransaction(sequelize) as { connection?: Client } | null;
  // Sequelize's own pool, which its types do not show.
  const pool = (sequelize as unknown as { connectionManager: Pooled }).connectionManager;
  const connection = open?.connection ?? (await pool.getConnection());
  try {
    const { rows } = await connection.query({ name, text, values });
    return rows as Row[];
  } finally {
    if (!open) pool.releaseConnection(connection);
  }
}

/** A statement whose text hangs on what is asked, under a name of its own. */
export const named = (what: string, sql: string): [name: string, sql: string] => [
  `${what} ${createHash('md5').update(sql).digest('hex')}`,
  sql,
];
