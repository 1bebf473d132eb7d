import { expect, it } from 'vitest';
import { runFaults } from './faults.ts';

const FAULTS = Number(process.env['FAULTS'] ?? 1_000);
const SEED = Number(process.env['SEED'] ?? 620);

it(`keeps every acknowledged record through ${FAULTS} faults`, async () => {
  const report = await runFaults({ faults: FAULTS, seed: SEED });
  console.log(JSON.stringify({ seed: SEED, ...report }, null, 2));
  expect(report.acknowledged).toBeGreaterThan(FAULTS / 10);
}, 7_200_000);
