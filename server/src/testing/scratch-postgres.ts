import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { startPostgres } from '../../../scripts/lib/postgres.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    /** Superuser's and application's passwords of the scratch PostgreSQL. */
    postgres: { port: number; password: string; appPassword: string };
  }
}

/** One scratch PostgreSQL for the whole run; every test file makes a database of its own in it. */
export async function setup(project: TestProject): Promise<() => Promise<void>> {
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-test-'));
  const { port, password, appPassword, stop } = await startPostgres(home, { scratch: true });
  project.provide('postgres', { port, password, appPassword });
  return async () => {
    await stop();
    rmSync(home, { recursive: true, force: true });
  };
}
