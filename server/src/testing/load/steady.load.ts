import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { measure, quantile, say } from './measure.ts';
import { openLoadShop } from './shop.ts';
import { must, openWork, record, type Sent } from './technician.ts';

const MINUTES = Number(process.env['MINUTES'] ?? 10);
/** Of so many recordings one is looked at; 0: none. */
const LOOKED_AT = Number(process.env['LOOKED_AT'] ?? 5);
const CLIENTS = 10;

/** Memory of a process that is in use, MB. */
function memoryOf(pid: number): number {
  return Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;
}

it(`works on for ${MINUTES} minutes in the same memory`, async () => {
  // Memory that V8 may take and has not cleared away yet is no leak: it is given little.
  process.env['NODE_OPTIONS'] = '--max-old-space-size=320';
  const shop = await openLoadShop({ servers: 1, technicians: CLIENTS });
  const pid = shop.running[0]!.child.pid!;
  const samples: number[] = [];
  const recorded: number[] = [];
  const sampling = setInterval(() => samples.push(memoryOf(pid)), 1_000);
  try {
    const queues: Sent[][] = shop.technicians.map(() => []);
    const figures = await measure(shop.technicians, MINUTES * 60, async (caller, i) => {
      const queue = queues[i]!;
      if (queue.length === 0) queue.push(...(await openWork(caller)));
      const sent = queue.shift()!;
      const before = performance.now();
      expect((await record(caller, sent)).status).toBe(200);
      recorded.push(performance.now() - before);
      // Somebody looks at what was recorded.
      if (LOOKED_AT > 0 && queue.length % LOOKED_AT === 0)
        await must(caller, 'GET', `/api/jobs/${sent.jobId}`);
    });
    say(`recordings, one of ${LOOKED_AT} looked at`, figures);
    const [p50, p95] = [quantile(recorded, 0.5), quantile(recorded, 0.95)];
    say('  the recordings among them', { aSecond: figures.aSecond, p50, p95 });
  } finally {
    clearInterval(sampling);
    await shop.close();
  }
  const third = Math.floor(samples.length / 3);
  const [middle, last] = [samples.slice(third, 2 * third), samples.slice(2 * third)];
  const [before, after] = [quantile(middle, 0.5), quantile(last, 0.5)];
  console.log(
    `memory: ${before.toFixed(0)} MB in the second third, ${after.toFixed(0)} MB in the last, ${Math.max(...samples).toFixed(0)} MB at most`,
  );
  expect(after / before).toBeLessThan(1.15);
}, 7_200_000);
