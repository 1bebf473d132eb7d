import { spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { loadavg, tmpdir } from 'node:os';
import { join } from 'node:path';
import { describeTook, main, say, Trouble } from './lib/output.mjs';
import { end, root, run } from './lib/run.mjs';

/** Longest that a start may take before it is given up. */
const MOST_S = 900;
/** What the first page should take, with nothing but Node.js there, on two idle cores; and a second start. */
const WANTED_S = { first: 60, second: 5 };

/**
 * Starts a clone and measures when its page is there, when the shop is behind it, and what it printed of its parts.
 * @param {string} clone
 * @param {string} port
 */
async function start(clone, port) {
  const begun = performance.now();
  const since = () => (performance.now() - begun) / 1000;
  // What `npm start` runs, without npm between, which passes no signal on.
  const child = spawn(process.execPath, ['-r', './scripts/old-node.cjs', 'scripts/start.mjs'], {
    cwd: clone,
    env: { ...process.env, LANTERNWRIGHT_DATA: join(clone, 'data'), PORT: port },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let printed = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (printed += text));
  /** @type {{ page?: number, shop?: number }} */
  const there = {};
  try {
    while (there.shop === undefined) {
      if (since() > MOST_S || child.exitCode !== null) throw new Trouble(`It did not start:\n${printed}`);
      const answer = await fetch(`http://127.0.0.1:${port}/`).catch(() => null);
      if (answer?.headers.get('content-type')?.startsWith('text/html')) there.page ??= since();
      const ready = await fetch(`http://127.0.0.1:${port}/api/ready`).catch(() => null);
      if (ready?.status === 200) there.shop = since();
      else await new Promise((resolve) => setTimeout(resolve, 100));
    }
  } finally {
    await end(child, 'SIGINT');
  }
  return { page: there.page ?? NaN, shop: there.shop, printed };
}

/** How long a fresh clone takes to its first page, part by part, and how long the next start: `npm run first-minute`. */
await main(async () => {
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-first-minute-'));
  // Where root starts it, PostgreSQL is another account, which has to come through.
  chmodSync(home, 0o755);
  const clone = join(home, 'clone');
  const port = process.env['PORT'] ?? '18090';
  try {
    const { code, output } = await run('git', ['clone', '--quiet', root, clone], { quiet: true });
    if (code !== 0) throw new Trouble(output);
    for (const which of /** @type {const} */ (['first', 'second'])) {
      const load = loadavg()[0]?.toFixed(1);
      const { page, shop, printed } = await start(clone, port);
      say(
        `${which} start: page ${describeTook(page)} (wanted: ${WANTED_S[which]} s), shop ${describeTook(shop)}, load before ${load}`,
      );
      for (const line of printed.split('\n'))
        if (/\d s$/.test(line)) say(`  ${line.trim().replaceAll(/(\d+ s … )+/g, '')}`);
    }
  } finally {
    rmSync(home, { recursive: true, force: true });
  }
});
