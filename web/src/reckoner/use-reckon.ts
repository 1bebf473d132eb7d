import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { Reckoned } from '@lanternwright/core/reckoner';
import { fileHere } from '../offline/load-part.ts';
import type { ReckonerWorker } from './reckoner.worker.ts';
import workerFile from './reckoner.worker.ts?worker&url';

const PAUSE_MS = 60;

interface Runner {
  worker: Worker;
  remote: Remote<ReckonerWorker>;
  busy: boolean;
}

/** One worker for all sums; it is ended and made anew when a run is no longer wanted. */
let runner: Runner | null = null;

function stopRunner(): void {
  runner?.worker.terminate();
  runner = null;
}

function idleRunner(): Runner {
  if (runner && !runner.busy) return runner;
  stopRunner();
  const worker = new Worker(workerFile, { type: 'module' });
  // The proxy is kept with its worker: comlink shuts the worker's door when the last proxy is gone.
  runner = { worker, remote: wrap<ReckonerWorker>(worker), busy: false };
  return runner;
}

interface Running {
  key: string;
  /** Part of the work that is done, 0 to 1; null until the sum has told. */
  done: number | null;
  stopped: boolean;
}

export interface Reckoning {
  answer: Reckoned | null;
  running: boolean;
  /** Part of a long sum that is done, 0 to 1. */
  done: number | null;
  /** The person stopped it; new input starts anew. */
  stopped: boolean;
  stop: () => void;
}

/** Recomputes as one types, off the page's thread. A run that is overtaken by new input is ended. */
export function useReckon(name: string, input: unknown): Reckoning {
  const [state, setState] = useState<{ key: string; answer: Reckoned } | null>(null);
  const [run, setRun] = useState<Running | null>(null);
  const key = JSON.stringify([name, input]);
  useEffect(() => {
    let wanted = true;
    const reckonNow = async () => {
      await fileHere(workerFile);
      if (!wanted) return;
      const [sum, value] = JSON.parse(key) as [string, unknown];
      const mine = idleRunner();
      mine.busy = true;
      const report = proxy((done: number) => {
        if (wanted) setRun((r) => (r?.key === key && r.stopped ? r : { key, done, stopped: false }));
      });
      const answer = await mine.remote.reckon(sum, value, report);
      mine.busy = false;
      if (wanted) setState({ key, answer });
    };
    const timer = setTimeout(() => void reckonNow(), PAUSE_MS);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [key]);
  const current = run?.key === key ? run : null;
  // The last answer of the same sum stays in sight while the next is on its way.
  const same = state && (JSON.parse(state.key) as [string])[0] === name;
  const stop = () => {
    stopRunner();
    setRun({ key, done: null, stopped: true });
  };
  return {
    answer: same ? state.answer : null,
    running: state?.key !== key,
    done: current?.done ?? null,
    stopped: current?.stopped ?? false,
    stop,
  };
}
