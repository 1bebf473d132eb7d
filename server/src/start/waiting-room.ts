import { Worker } from 'node:worker_threads';
import type { Said, Told } from './waiting-room-thread.ts';

/** The compiled thread, from the sources and from `dist` alike. */
const thread = new URL('../../dist/start/waiting-room-thread.js', import.meta.url);

/** A page at our address while the server cannot answer yet. */
export interface WaitingRoom {
  port: number;
  /** Says what is done and how far it is. @param percent from 0 to 100 */
  tell: (what: string, percent: number) => void;
  /** Gives the port back. */
  close: () => Promise<void>;
}

/**
 * Opens a page that says what is being done and how far it is, and goes on by itself. It answers from a thread of its
 * own, whatever the main one reckons meanwhile; programs get a 503 with `Retry-After`.
 * @param port 0 for any
 * @throws Error where the port cannot be had
 */
export async function openWaitingRoom({ port, host }: { port: number; host: string }): Promise<WaitingRoom> {
  const worker = new Worker(thread, { workerData: { port, host } });
  const told = (message: Told) => worker.postMessage(message);
  const heard = (kind: Said['kind']) =>
    new Promise<Said>((resolve, reject) => {
      worker.once('error', reject);
      worker.on('message', (said: Said) => {
        if (said.kind === 'failed') reject(new Error(said.message));
        if (said.kind === kind) resolve(said);
      });
    });
  const listening = await heard('listening').catch(async (error: Error) => {
    await worker.terminate();
    throw error;
  });
  return {
    port: listening.kind === 'listening' ? listening.port : port,
    tell: (what, percent) => told({ kind: 'progress', what, percent }),
    close: async () => {
      const closed = heard('closed');
      told({ kind: 'close' });
      await closed;
      await worker.terminate();
    },
  };
}
