import { defineConfig } from 'vitest/config';

/** Workspace packages are read from their TypeScript source, so that tests never see a stale build. */
const resolve = { conditions: ['source', 'module', 'browser', 'development|production'] };
/** Modules are read once a worker, not once a file: a third of the time. Nothing that a test sets up is left for the next. */
const isolate = false;
const ssr = { resolve: { conditions: ['source', 'module', 'node', 'development|production'] } };

/** A test that takes this long hangs. A machine that is busy is slow, not wrong: tests wait for a state, and this is no wait. */
const HANGS_MS = 120_000;

export default defineConfig({
  test: {
    // One worker a core of the smallest machine; the default leaves a core idle.
    maxWorkers: 2,
    projects: [
      {
        resolve,
        ssr,
        test: {
          name: 'core',
          isolate,
          include: ['core/src/**/*.test.ts', 'contract/src/**/*.test.ts'],
          testTimeout: HANGS_MS,
        },
      },
      {
        resolve,
        ssr,
        test: { name: 'scripts', isolate, include: ['scripts/**/*.test.mjs'], testTimeout: 60_000 },
      },
      {
        resolve,
        ssr,
        test: {
          name: 'server',
          isolate,
          include: ['server/src/**/*.test.ts'],
          globalSetup: ['server/src/testing/scratch-postgres.ts'],
          env: { VALIDATE_ANSWERS: 'yes' },
          testTimeout: HANGS_MS,
          hookTimeout: HANGS_MS,
        },
      },
      // Load and faults, run by their own commands: minutes long, and they want the machine to themselves.
      {
        resolve,
        ssr,
        test: {
          name: 'load',
          include: ['server/src/testing/load/*.load.ts'],
          testTimeout: 600_000,
          hookTimeout: 120_000,
        },
      },
      {
        extends: './web/vite.config.ts',
        test: {
          name: 'web',
          isolate,
          root: './web',
          include: ['src/**/*.test.{ts,tsx}'],
          environment: 'jsdom',
          testTimeout: HANGS_MS,
        },
      },
    ],
  },
});
