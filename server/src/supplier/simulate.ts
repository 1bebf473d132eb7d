import { readConfig } from '../config.ts';
import { demoParts } from '../demo/parts.ts';
import { startSupplier } from './simulator.ts';

const config = readConfig({
  ...process.env,
  DATABASE_URL: 'postgres://none',
  SESSION_SECRET: 'not used by this one',
});
const { url, name, secret } = config.supplier ?? {
  ...{ url: 'http://127.0.0.1:7630', name: 'Quayside Bearings', secret: null },
};
// What the demo's own store buys of it.
const catalogue = demoParts()
  .filter((part) => part.supplier === name)
  .map(({ number, price, core, leadDays }) => ({ number, price, core, days: leadDays ?? 7 }));
const today = new Date().toISOString().slice(0, 10);
const supplier = await startSupplier(Number(new URL(url).port), catalogue, today, secret);
console.log(
  `${name} sells ${catalogue.length} parts on http://127.0.0.1:${supplier.port}/orders. ` +
    `A day passes by: POST /days. It goes wrong by: POST /fault {"fault": "outage"}. Stop with Ctrl-C.`,
);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void supplier.stop());
