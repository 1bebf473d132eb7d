import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { startPostgres } from '../../../scripts/lib/postgres.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    /** The superuser's password, and where the server and the owner of the tables find the scratch PostgreSQL. */
    postgres: { port: number; password: string; url: string; ownerUrl: string };
  }
}

/** One scratch PostgreSQL for the whole run; every test file makes a database of its own in it. */
export async function setup(project: TestProject): Promise<() => Promise<void>> {
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-test-'));
  const { port, password, url, ownerUrl, stop } = await startPostgres(home, { scratch: true });
  project.provide('postgres', { port, password, url, ownerUrl });
  return async () => {
    await stop();
    rmSync(home, { recursive: true, force: true });
  };
}
