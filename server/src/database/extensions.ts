import type { Database } from './connect.ts';

/**
 * Puts what the schema needs of PostgreSQL's own extensions into a schema of theirs: it outlives a demo that is set
 * aside, and stands before a backup is restored. `pg_trgm` compares texts by three signs in a row; it is trusted, so that
 * the role that owns the database may make it.
 */
export async function ensureExtensions({ sequelize }: Database): Promise<void> {
  await sequelize.query(
    `create schema if not exists trigrams;
     create extension if not exists pg_trgm schema trigrams;
     grant usage on schema trigrams to public`,
  );
}
