import { readConfig } from '../config.ts';
import { startSimulator } from './simulator.ts';

const { instruments } = readConfig({
  ...process.env,
  DATABASE_URL: 'postgres://none',
  SESSION_SECRET: 'not used by this one',
});
const simulator = await startSimulator({ socket: instruments.port, page: instruments.port + 1 });
console.log(
  `The instruments speak on 127.0.0.1:${simulator.socketPort}. Turn their knobs at http://127.0.0.1:${simulator.pagePort}. Stop with Ctrl-C.`,
);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void simulator.stop());
