import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { HttpProblem } from '../http/problem.ts';
import type { InputOf, OutputOf, PoolNews, WorkName } from './worker.ts';

/** The compiled worker: threads run what was built, whether this file itself was or not. */
const worker = new URL('../../dist/pool/worker.js', import.meta.url).href;

/** Threads; one of them is never given to long work. */
const THREADS = 3;
/** Longest a thread works on one task, ms. */
const LONGEST_MS = 30_000;
/** Most tasks that wait, of one person and of all. */
const MOST_WAITING = { person: 8, all: 64 };

interface Task {
  /** Who asked: nobody has more than one thread, and each in turn. */
  person: string;
  takes: 'long' | 'short';
  start: () => void;
}

export interface Asked {
  person: string;
  takes: 'long' | 'short';
  /** Aborted when whoever asked has left: the task is ended. */
  left?: AbortSignal;
  /** Is told how far a task is, 0 to 1. */
  onProgress?: (done: number) => void;
}

const busy = (detail: string) => new HttpProblem(503, 'Busy', detail);

/**
 * The threads for work that would hold the server up. A queue a person, served in turn; nobody has more than one
 * thread, long work never all of them.
 */
export function workPool() {
  const threads = new Piscina({
    filename: worker,
    minThreads: 1,
    maxThreads: THREADS,
    idleTimeout: 60_000,
    // A thread that is ended while it reads an ES module through require takes the whole process down (Node.js 20).
    execArgv: ['--no-experimental-require-module'],
    resourceLimits: { maxOldGenerationSizeMb: 512 },
  });
  const waiting: Task[] = [];
  const running = new Set<Task>();
  /** People in the order in which they had their last turn. */
  const lastTurn = new Map<string, number>();
  let turn = 0;

  function mayRun(task: Task): boolean {
    if (running.size >= THREADS || [...running].some((t) => t.person === task.person)) return false;
    return task.takes === 'short' || [...running].filter((t) => t.takes === 'long').length < THREADS - 1;
  }

  function next(): void {
    for (;;) {
      const able = waiting.filter(mayRun);
      const [first] = able.sort((a, b) => (lastTurn.get(a.person) ?? 0) - (lastTurn.get(b.person) ?? 0));
      if (!first) break;
      waiting.splice(waiting.indexOf(first), 1);
      running.add(first);
      lastTurn.set(first.person, (turn += 1));
      first.start();
    }
    if (waiting.length === 0 && running.size === 0) lastTurn.clear();
  }

  function done(task: Task): void {
    running.delete(task);
    next();
  }

  function whyNotWait(person: string): HttpProblem | null {
    if (waiting.filter((t) => t.person === person).length >= MOST_WAITING.person)
      return new HttpProblem(
        429,
        'Too many at once',
        'Several of yours wait already. Let them finish first.',
      );
    return waiting.length >= MOST_WAITING.all ? busy('Too much waits already. Try again in a moment.') : null;
  }

  async function onThread<N extends WorkName>(
    name: N,
    input: InputOf<N>,
    asked: Asked,
  ): Promise<OutputOf<N>> {
    const { port1, port2 } = new MessageChannel();
    const over = new AbortController();
    let timer: NodeJS.Timeout | undefined;
    port1.on('message', (news: PoolNews) => {
      if (news.kind === 'begun') timer = setTimeout(() => over.abort(), LONGEST_MS);
      else asked.onProgress?.(news.done);
    });
    const signal = AbortSignal.any([over.signal, ...(asked.left ? [asked.left] : [])]);
    try {
      const task = { name, input, port: port2 };
      return (await threads.run(task, { name: 'work', transferList: [port2], signal })) as OutputOf<N>;
    } catch (error) {
      if (asked.left?.aborted) throw new HttpProblem(499, 'Left', 'Whoever asked has left: it was stopped.');
      if (over.signal.aborted)
        throw busy(`It took longer than ${LONGEST_MS / 1000} seconds and was stopped. Try a smaller range.`);
      if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw busy('It needed more memory than it may have and was stopped. Ask for less.');
      throw error;
    } finally {
      clearTimeout(timer);
      port1.close();
    }
  }

  return {
    /**
     * Runs a task when its turn has come.
     * @throws HttpProblem 429 or 503 when too much waits, 503 when it takes too long or too much memory
     */
    async run<N extends WorkName>(name: N, input: InputOf<N>, asked: Asked): Promise<OutputOf<N>> {
      const { person, takes, left } = asked;
      const why = whyNotWait(person);
      if (why) throw why;
      const task: Task = { person, takes, start: () => undefined };
      const begun = new Promise<void>((resolve) => (task.start = resolve));
      waiting.push(task);
      const leave = () => {
        const at = waiting.indexOf(task);
        if (at >= 0) {
          waiting.splice(at, 1);
          running.add(task);
          task.start();
        }
      };
      left?.addEventListener('abort', leave, { once: true });
      next();
      try {
        await begun;
        return await onThread(name, input, asked);
      } finally {
        left?.removeEventListener('abort', leave);
        done(task);
      }
    },

    /** How many run and wait now. */
    load: () => ({ running: running.size, waiting: waiting.length }),

    close: () => threads.destroy(),
  };
}
export type WorkPool = ReturnType<typeof workPool>;
