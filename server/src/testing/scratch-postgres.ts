import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { startPostgres } from '../../../scripts/lib/postgres.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    /** Superuser and application password of the scratch PostgreSQL. */
    postgres: { port: number; password: string };
  }
}

/** One scratch PostgreSQL for the whole run; every test file makes a database of its own in it. */
export async function setup(project: TestProject): Promise<() => Promise<void>> {
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-test-'));
  const { port, password, stop } = await startPostgres(home, { scratch: true });
  project.provide('postgres', { port, password });
  return async () => {
    await stop();
    rmSync(home, { recursive: true, force: true });
  };
}
