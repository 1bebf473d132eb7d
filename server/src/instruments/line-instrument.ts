import { connect, type Socket } from 'node:net';
import type { InstrumentMessage } from '@lanternwright/contract/instruments';
import { readInstrumentLine } from '@lanternwright/core/gauge';
import type { Instrument } from './instrument.ts';

const RETRY_MS = 1_500;
/** The same line again within this time is a key that bounced, not a second reading. */
const BOUNCE_MS = 250;
/** A line that never ends is cut off, so that garbage cannot fill the memory. */
const LONGEST_LINE = 4096;

/**
 * Instruments behind a socket that speaks lines, one reading each. It is connected to only while somebody
 * listens, tried again after a loss, and tells what it cannot read.
 */
export function lineInstrument({ host, port }: { host: string; port: number }): Instrument {
  const listeners = new Set<(message: InstrumentMessage) => void>();
  let socket: Socket | null = null;
  let connected = false;
  let retry: ReturnType<typeof setTimeout> | undefined;

  const tell = (message: InstrumentMessage) => listeners.forEach((listener) => listener(message));

  function hear(): (chunk: string) => void {
    let rest = '';
    let last = { line: '', at: 0 };
    return (chunk) => {
      const lines = (rest + chunk).split(/\r?\n/);
      rest = (lines.pop() ?? '').slice(-LONGEST_LINE);
      for (const line of lines.filter((l) => l.trim() !== '')) {
        const at = Date.now();
        if (line === last.line && at - last.at < BOUNCE_MS) continue;
        last = { line, at };
        const read = readInstrumentLine(line);
        if (!read.ok) tell({ kind: 'fault', reason: read.reason });
        else {
          const { id, letters, quantity } = read;
          tell({ kind: 'reading', id, letters, quantity, at: new Date(at).toISOString() });
        }
      }
    };
  }

  function lost(): void {
    if (connected) tell({ kind: 'state', connected: false });
    connected = false;
    socket = null;
    clearTimeout(retry);
    if (listeners.size > 0) retry = setTimeout(open, RETRY_MS).unref();
  }

  function open(): void {
    if (socket || listeners.size === 0) return;
    const next = connect({ host, port });
    socket = next;
    next.setEncoding('utf8');
    next.on('connect', () => {
      connected = true;
      tell({ kind: 'state', connected: true });
    });
    next.on('data', hear());
    // Nobody at the other end is no fault: the state says so, and it is tried again.
    next.on('error', () => undefined);
    next.on('close', lost);
  }

  return {
    listen(listener) {
      listeners.add(listener);
      listener({ kind: 'state', connected });
      open();
      return () => {
        listeners.delete(listener);
        if (listeners.size === 0) socket?.destroy();
      };
    },
    close() {
      listeners.clear();
      clearTimeout(retry);
      socket?.destroy();
    },
  };
}
