import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startPostgres } from '../scripts/lib/postgres.mjs';
import { end } from '../scripts/lib/run.mjs';
import { startServer } from '../scripts/lib/serve.mjs';

/** The built application with its demo data, on a scratch PostgreSQL, for the whole run. */
export default async function startShop(): Promise<() => Promise<void>> {
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-e2e-'));
  const database = await startPostgres(home, { scratch: true });
  const { startSimulator } = await import('../server/dist/instruments/simulator.js');
  const simulator = await startSimulator({ socket: 0, page: 0 });
  const { startTelematics } = await import('../server/dist/feed/simulator.js');
  const { startMailbox } = await import('../server/dist/morning/mailbox.js');
  const vehicles = ['Telematics 1', 'Stranger 7'];
  const telematics = await startTelematics(
    0,
    vehicles.map((vehicle) => ({ vehicle, km: 81_600, hours: 0, kmADay: 420 })),
  );
  const mailbox = await startMailbox({ smtp: 0, page: 0 });
  const { startSupplier } = await import('../server/dist/supplier/simulator.js');
  const washer = { number: 'LW 318', price: { currency: 'GBP', minor: 690 }, core: null, days: 4 };
  const supplier = await startSupplier(0, [washer], new Date().toISOString().slice(0, 10));
  process.env['SUPPLIER_PAGE'] = `http://127.0.0.1:${supplier.port}`;
  process.env['FEED_URL'] = `http://127.0.0.1:${telematics.port}`;
  process.env['MAILBOX_URL'] = `http://127.0.0.1:${mailbox.pagePort}`;
  process.env['KNOBS_URL'] = `http://127.0.0.1:${simulator.pagePort}`;
  const { child, port } = await startServer({
    INSTRUMENTS: `127.0.0.1:${simulator.socketPort}`,
    DATABASE_URL: database.url,
    SEALS: join(home, 'seals'),
    DATABASE_OWNER_URL: database.ownerUrl,
    PORT: '0',
    SESSION_SECRET: 'for tests only, long enough',
    DEMO: 'yes',
    FEED_URL: `http://127.0.0.1:${telematics.port}`,
    SUPPLIER_URL: `http://127.0.0.1:${supplier.port}`,
    SUPPLIER_NAME: 'Hollow Lane Fasteners',
    SMTP_URL: `smtp://127.0.0.1:${mailbox.smtpPort}`,
    VALIDATE_ANSWERS: 'yes',
  });
  process.env['SHOP_URL'] = `http://127.0.0.1:${port}`;
  return async () => {
    await end(child);
    await simulator.stop();
    await telematics.stop();
    await mailbox.stop();
    await supplier.stop();
    await database.stop();
    rmSync(home, { recursive: true, force: true });
  };
}
