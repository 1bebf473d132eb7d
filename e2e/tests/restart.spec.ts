import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { openShop } from '../helpers/empty-shop.ts';
import { test } from '../helpers/shop.ts';
import { root } from '../../scripts/lib/run.mjs';

/** Children of a process whose command has these words. */
const childrenOf = (pid: number, words: string): number[] =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8')
    .split(' ')
    .filter(Boolean)
    .map(Number)
    .filter((child) => readFileSync(`/proc/${child}/cmdline`, 'utf8').includes(words));

test('the server and the database are killed under open browsers, which go on without a reload', async ({
  browser,
}) => {
  test.setTimeout(180_000);
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-restart-'));
  const env = { ...process.env, PORT: '18380', LANTERNWRIGHT_DATA: home };
  const run = spawn('node', ['scripts/start.mjs', '--empty'], { cwd: root, env });
  let said = '';
  run.stdout.on('data', (text: Buffer) => (said += text.toString()));
  run.stderr.on('data', (text: Buffer) => (said += text.toString()));
  const heard = (words: RegExp) =>
    expect
      .poll(() => (run.exitCode === null ? said : `It ended: ${said}`), { timeout: 60_000 })
      .toMatch(words);
  try {
    await heard(/asked for this code: \d{4}-\d{4}/);
    const url = /is at (http:\S+)\. Stop/.exec(said)![1]!;
    const code = /asked for this code: (\d{4}-\d{4})/.exec(said)![1]!;

    // The first visitor makes the shop theirs.
    const context = await browser.newContext({ serviceWorkers: 'block' });
    const page = await context.newPage();
    await openShop(page, url, code);
    await expect(page.getByText('No bays are named yet.', { exact: false })).toBeVisible();
    await page.getByRole('link', { name: 'Fleet', exact: true }).click();
    await expect(page.getByText('No units yet.', { exact: false })).toBeVisible();
    const other = await context.newPage();
    await other.goto(`${url}/fleet`);
    await expect(other.getByText('No units yet.', { exact: false })).toBeVisible();

    const { layouts } = await import('@lanternwright/core/axle-plan');
    const axles = layouts.find((l) => l.id === 'tractor-2')!.axles;
    const open = async (name: string) => {
      const added = await page.request.post(`${url}/api/fleet/units`, {
        data: { owner: 'Own', name, kind: 'tractor', axles },
      });
      expect(added.ok(), await added.text()).toBe(true);
      const { id: unitId } = (await added.json()) as { id: string };
      const wheelEnds = [{ position: '2L', works: ['seal'] }];
      const job = { unitId, title: 'Seals', complaint: '', reportedBy: '', meter: {}, wheelEnds };
      const opened = await page.request.post(`${url}/api/jobs`, { data: job });
      expect(opened.ok(), await opened.text()).toBe(true);
    };
    for (const [program, sentence] of [
      ['main.js', /The server stopped by itself/],
      ['bin/postgres', /The database stopped by itself/],
    ] as const) {
      const [child] = childrenOf(run.pid!, program);
      process.kill(child!, 'SIGKILL');
      await heard(sentence);
      await expect
        .poll(
          () =>
            page.request.get(`${url}/api/ready`).then(
              (r) => r.status(),
              () => 0,
            ),
          { timeout: 60_000 },
        )
        .toBe(200);
      await open(`After ${program}`);
      // Both browsers hear of it by themselves.
      for (const tab of [page, other])
        await expect(tab.getByText(`After ${program}`).first()).toBeVisible({ timeout: 30_000 });
    }
  } finally {
    if (run.exitCode === null) {
      run.kill('SIGINT');
      await new Promise((resolve) => run.once('exit', resolve));
    }
    rmSync(home, { recursive: true, force: true });
  }
});
