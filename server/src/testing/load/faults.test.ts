import { expect, it } from 'vitest';
import { runFaults } from './faults.ts';

it('two servers, their database, disk, clocks and lines fail at work, a standby takes over: nothing acknowledged is lost or doubled', async () => {
  const report = await runFaults({ faults: 24, seed: 7, verifyEvery: 8 });
  expect(Object.values(report.faults).reduce((a, b) => a + b)).toBe(24);
  expect(report.acknowledged).toBeGreaterThan(20);
  // They did go wrong.
  expect(report.unanswered).toBeGreaterThan(0);
  expect(report.failed).toBeGreaterThan(0);
  expect(report.proved).toBe(4);
}, 240_000);
