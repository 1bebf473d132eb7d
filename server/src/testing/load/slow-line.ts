import { connect, createServer, type AddressInfo, type Socket } from 'node:net';
import { Transform } from 'node:stream';

/** A line between a technician and a server that can be slow, and break. */
export interface Line {
  base: string;
  /** How long each piece is held up, ms. */
  slowMs: number;
  /** Breaks whatever goes over it just now. */
  cut(): void;
  close(): void;
}

/** A line to a port of this machine. */
export async function openLine(port: number): Promise<Line> {
  const sockets = new Set<Socket>();
  const line = { slowMs: 0 };
  const holdUp = () =>
    new Transform({
      transform(piece, _encoding, done) {
        if (line.slowMs === 0) done(null, piece);
        else setTimeout(() => done(null, piece), line.slowMs);
      },
    });
  const server = createServer((near) => {
    const far = connect(port, '127.0.0.1');
    for (const [from, to] of [
      [near, far],
      [far, near],
    ] as const) {
      sockets.add(from);
      from.once('close', () => {
        sockets.delete(from);
        to.destroy();
      });
      // The end of a connection is told by its close.
      from.on('error', () => from.destroy());
      from.pipe(holdUp()).pipe(to);
    }
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const cut = () => sockets.forEach((s) => s.destroy());
  return Object.assign(line, {
    base: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    cut,
    close(): void {
      server.close();
      cut();
    },
  });
}
