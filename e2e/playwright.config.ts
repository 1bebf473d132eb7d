import { defineConfig } from '@playwright/test';
import { chromiumLaunch } from './chromium.mjs';

export default defineConfig({
  testDir: 'tests',
  globalSetup: './start-shop.ts',
  outputDir: 'results',
  timeout: 120_000,
  expect: { timeout: 20_000 },
  workers: 2,
  // One stumble of a busy machine is told and not fatal; a test that fails twice is.
  retries: 1,
  fullyParallel: true,
  reporter: [['list'], ['json', { outputFile: process.env['E2E_REPORT'] ?? 'results/report.json' }]],
  use: {
    launchOptions: chromiumLaunch,
    viewport: { width: 1280, height: 800 },
    actionTimeout: 20_000,
    screenshot: 'only-on-failure',
    contextOptions: { reducedMotion: 'reduce' },
  },
});
