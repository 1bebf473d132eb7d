import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { startPostgres } from '../../scripts/lib/postgres.mjs';
import { end } from '../../scripts/lib/run.mjs';
import { startServer } from '../../scripts/lib/serve.mjs';

/** The first visitor of an empty shop makes it theirs, with the code that its start says. */
export async function openShop(page: Page, url: string, code: string): Promise<void> {
  await page.goto(url);
  await page.getByLabel('Code').fill(code);
  await page.getByLabel('Your name').fill('A. Founder');
  await page.getByLabel('User name').fill('founder');
  await page.getByLabel('New password').fill('four wet bearings');
  await page.getByRole('button', { name: 'Open the shop' }).click();
}

/** An empty shop on a database of its own, for as long as `use` takes. @param code of the first person */
export async function withEmptyShop(code: string, use: (url: string) => Promise<void>): Promise<void> {
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-empty-'));
  const database = await startPostgres(home, { scratch: true });
  try {
    const { child, port } = await startServer({
      ...{ DATABASE_URL: database.url, DATABASE_OWNER_URL: database.ownerUrl, SEALS: join(home, 'seals') },
      ...{ PORT: '0', SESSION_SECRET: 'for tests only, long enough', DEMO: 'no', FIRST_CODE: code },
      VALIDATE_ANSWERS: 'yes',
    });
    try {
      await use(`http://127.0.0.1:${port}`);
    } finally {
      await end(child);
    }
  } finally {
    await database.stop();
    rmSync(home, { recursive: true, force: true });
  }
}
