import { createServer } from 'node:http';
import { afterEach, expect, it } from 'vitest';
import { openWaitingRoom, type WaitingRoom } from './waiting-room.ts';

let room: WaitingRoom | null = null;
const open = async () => (room = await openWaitingRoom({ port: 0, host: '127.0.0.1' }));
afterEach(async () => {
  await room?.close();
  room = null;
});
const at = (port: number, path: string) => fetch(`http://127.0.0.1:${port}${path}`);

it('shows what is done and how far it is, while the main thread reckons', async () => {
  const { port, tell } = await open();
  tell('The demo is being made', 10);
  // Asked from another thread than the one that is busy: the answer has to be there before this one is free again.
  const { Worker } = await import('node:worker_threads');
  const flag = new Int32Array(new SharedArrayBuffer(8));
  const asking = new Worker(
    `const { workerData } = require('node:worker_threads');
     fetch(workerData.url).then((a) => a.text()).then((text) => {
       Atomics.store(workerData.flag, 0, text.includes('The demo is being made: 10 of 100.') ? 1 : 2);
       Atomics.notify(workerData.flag, 0);
     });`,
    { eval: true, workerData: { url: `http://127.0.0.1:${port}/fleet`, flag } },
  );
  // This blocks the main thread until the page was read.
  Atomics.wait(flag, 0, 0, 15_000);
  expect(flag[0]).toBe(1);
  await asking.terminate();
});

it('tells programs to come again, with how far it is', async () => {
  const { port, tell } = await open();
  tell('The demo is being made', 40);
  const answer = await at(port, '/api/ready');
  expect(answer.status).toBe(503);
  expect(answer.headers.get('retry-after')).toBe('2');
  expect(answer.headers.get('content-type')).toBe('application/problem+json');
  expect(await answer.json()).toMatchObject({ code: 'starting', status: 503, percent: 40 });
});

it('gives its port back, so that the server listens on the same one', async () => {
  const { port, close } = await open();
  await at(port, '/');
  await close();
  room = null;
  const server = createServer((_req, res) => res.end('served'));
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  expect(await (await at(port, '/')).text()).toBe('served');
  await new Promise((resolve) => server.close(resolve));
});

it('says so where the port is taken', async () => {
  const { port } = await open();
  await expect(openWaitingRoom({ port, host: '127.0.0.1' })).rejects.toThrow(/EADDRINUSE/);
});
