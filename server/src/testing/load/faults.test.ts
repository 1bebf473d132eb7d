import { expect, it } from 'vitest';
import { runFaults } from './faults.ts';

it('two servers and their database are killed, stalled and cut off at work: nothing acknowledged is lost or doubled', async () => {
  const report = await runFaults({ faults: 14, seed: 7, proveEvery: 7 });
  expect(Object.values(report.faults).reduce((a, b) => a + b)).toBe(14);
  expect(report.acknowledged).toBeGreaterThan(20);
  expect(report.proved).toBe(3);
}, 240_000);
