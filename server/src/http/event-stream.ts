import type { Response } from 'express';

const HEARTBEAT_MS = 20_000;

/**
 * Makes an answer a stream of server-sent events, kept alive until the browser leaves.
 * @param onClose what ends with it
 */
export function openEventStream(res: Response, onClose: () => void): void {
  res.set({
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-cache, no-transform',
    'X-Accel-Buffering': 'no',
  });
  res.flushHeaders();
  res.write('retry: 1000\n\n');
  const beat = setInterval(() => res.write(': here\n\n'), HEARTBEAT_MS);
  res.on('close', () => {
    clearInterval(beat);
    onClose();
  });
}
