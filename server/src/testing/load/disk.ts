import { mkdtempSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from '../../../../scripts/lib/run.mjs';

const ROOMY = '4g';
const MOST_TRIES = 50;

/**
 * A folder on a disk of its own, in memory, that can be full. Only whoever may mount has one: for anybody else it is a
 * plain folder, and `fill` is null.
 */
export async function openDisk() {
  const folder = mkdtempSync(join(tmpdir(), 'lanternwright-load-'));
  const mount = (...options: string[]) => run('mount', [...options, folder], { quiet: true });
  const { code } = await mount('-t', 'tmpfs', '-o', `size=${ROOMY},mode=755`, 'tmpfs');
  const own = code === 0;

  const resize = (size: string) => mount('-o', `remount,size=${size}`);

  /** What is written meanwhile may want more than there was a moment ago: then it is asked again. */
  async function shrink(): Promise<void> {
    for (let tries = 1; ; tries++) {
      const { blocks, bfree, bsize } = statfsSync(folder);
      const { code: refused, output } = await resize(String((blocks - bfree) * bsize));
      if (refused === 0) return;
      if (tries === MOST_TRIES) throw new Error(output);
    }
  }

  return {
    folder,
    /** Leaves no room on it, for a while. */
    fill: own
      ? async (ms: number) => {
          await shrink();
          await new Promise((resolve) => setTimeout(resolve, ms));
          await resize(ROOMY);
        }
      : null,
    async close(): Promise<void> {
      if (own) await run('umount', ['-l', folder], { quiet: true });
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
