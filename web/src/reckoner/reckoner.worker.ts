import './no-eval.ts';
import { expose } from 'comlink';
import { reckon, type Reckoned } from '@lanternwright/core/reckoner';

const REPORT_EVERY_MS = 100;

const api = {
  /** @param onProgress told now and then what part of a long sum is done */
  reckon(name: string, input: unknown, onProgress: (done: number) => void): Reckoned {
    let told = performance.now();
    return reckon(name, input, ({ done }) => {
      const now = performance.now();
      if (now - told < REPORT_EVERY_MS) return;
      told = now;
      onProgress(done);
    });
  },
};
export type ReckonerWorker = typeof api;

expose(api);
