import { defineConfig } from '@playwright/test';
import { chromiumLaunch } from '../chromium.mjs';

/** Takes the pictures of docs/screenshots from a demo shop that runs already. */
export default defineConfig({
  testDir: '.',
  outputDir: '../results',
  timeout: 600_000,
  reporter: 'list',
  use: { launchOptions: chromiumLaunch, actionTimeout: 20_000 },
});
