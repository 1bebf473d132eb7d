import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import { changedFiles, foldersWithTests } from './changed.mjs';
import { root } from './run.mjs';

describe('what changed', () => {
  it('is tested by the tests of its folder, or of the nearest above that has any', () => {
    expect(foldersWithTests(['core/src/cost/bill.ts', 'core/src/cost/money.ts'])).toEqual(['core/src/cost/']);
    expect(foldersWithTests(['web/src/people/testing/session.ts'])).toEqual(['web/src/people/']);
    expect(foldersWithTests(['scripts/lib/run.mjs'])).toEqual(['scripts/lib/']);
    // A file beside all the sources of a workspace is tested by whoever uses it.
    expect(foldersWithTests(['docs/architecture.md', 'server/src/main.ts'])).toEqual([]);
  });

  /** @type {string | undefined} */
  let folder;
  afterEach(() => folder && rmSync(folder, { recursive: true }));
  it('counts a file that is not in any commit yet', async () => {
    folder = mkdtempSync(join(root, 'scripts', 'changed-'));
    const file = join(folder, 'new.mjs');
    writeFileSync(file, '');
    expect(await changedFiles()).toContain(file.slice(root.length));
  });
});
