import type { Response } from 'express';
import type { Logger } from 'pino';
import { HttpProblem } from './problem.ts';
import type { Viewer } from './viewer.ts';

const HEARTBEAT_MS = 20_000;
/** Streams of one person at once: a tab has two. */
const MOST_A_PERSON = 40;
/** What may wait for a browser that does not read, bytes. */
const MOST_UNREAD = 1_000_000;

/** What an event may carry besides its data: a name of its own, and where a browser that lost the stream goes on. */
interface EventHead {
  name?: string;
  id?: number;
}

/** One open stream of server-sent events. */
export interface EventStream {
  viewer: Viewer;
  isOpen: () => boolean;
  /** Sends an event; a browser that has left too much unread loses its stream. */
  send: (event: unknown, more?: EventHead) => void;
}

interface Open extends EventStream {
  write: (text: string) => void;
  end: () => void;
}

/**
 * The open streams of this server. One ends when its browser leaves or does not read, and with the right to it.
 * @param stillHolds whether a viewer is still signed in, and as what they were
 */
export function eventStreams(stillHolds: (viewer: Viewer) => Promise<boolean>, log: Logger) {
  const open = new Set<Open>();

  /** Ends a stream whose viewer has lost the right to it; one that cannot be asked about stays till the next beat. */
  async function check(stream: Open): Promise<void> {
    if (!(await stillHolds(stream.viewer))) stream.end();
  }

  return {
    /**
     * Makes an answer a stream of events, kept alive until it ends.
     * @param onClose what ends with it
     * @throws HttpProblem 429 when this person has too many open
     */
    open(res: Response, viewer: Viewer, onClose: () => void): EventStream {
      if ([...open].filter((s) => s.viewer.person.id === viewer.person.id).length >= MOST_A_PERSON)
        throw new HttpProblem(429, 'Too many at once', 'Too many pages are open: close some');
      res.set({
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-cache, no-transform',
        'X-Accel-Buffering': 'no',
      });
      res.flushHeaders();
      const write = (text: string) => {
        if (res.writableLength > MOST_UNREAD) res.destroy();
        else res.write(text);
      };
      const stream: Open = {
        viewer,
        isOpen: () => open.has(stream),
        write,
        send: (event, { name, id } = {}) =>
          write(
            `${name ? `event: ${name}\n` : ''}${id === undefined ? '' : `id: ${id}\n`}data: ${JSON.stringify(event)}\n\n`,
          ),
        end: () => res.end(),
      };
      write('retry: 1000\n\n');
      const beat = setInterval(() => {
        write(': here\n\n');
        check(stream).catch((error: unknown) => log.warn({ err: error }, 'a stream was not checked'));
      }, HEARTBEAT_MS);
      open.add(stream);
      res.on('close', () => {
        clearInterval(beat);
        open.delete(stream);
        onClose();
      });
      return stream;
    },

    /** Looks again at the streams of a person whose rights have changed; at all of them where nobody is named. */
    async recheck(personId?: string): Promise<void> {
      const theirs = [...open].filter((s) => personId === undefined || s.viewer.person.id === personId);
      await Promise.all(theirs.map(check));
    },

    count: () => open.size,

    endAll(): void {
      for (const stream of open) stream.end();
    },
  };
}
export type EventStreams = ReturnType<typeof eventStreams>;
