import { readConfig } from '../config.ts';
import { demoPeople } from '../demo/scenario.ts';
import { generateDemo } from '../demo/generate.ts';
import { startTelematics } from './simulator.ts';

const DAY_MS = 86_400_000;
/** The vehicles drive on so often. */
const EVERY_MS = 60_000;

const config = readConfig({
  ...process.env,
  DATABASE_URL: 'postgres://none',
  SESSION_SECRET: 'not used by this one',
});
const today = new Date().toISOString().slice(0, 10);
const people = demoPeople.map(({ name, role }, i) => ({
  id: `00000000-0000-4000-8000-00000000000${i}`,
  name,
  role,
}));
// The demo's own fleet, each unit by its plate, from where its meters stand.
const vehicles = generateDemo(people, today).units.flatMap(({ plate, meters }) => {
  const last = meters.at(-1);
  const first = meters[0];
  if (plate === '' || last?.km == null || first?.km == null || meters.length < 2) return [];
  const days = (Date.parse(last.date) - Date.parse(first.date)) / DAY_MS;
  return [{ vehicle: plate, km: last.km, hours: last.hours ?? 0, kmADay: (last.km - first.km) / days }];
});
const port = Number(new URL(config.feed.url ?? 'http://127.0.0.1:7620').port);
const telematics = await startTelematics(port, vehicles, config.feed.secret);
telematics.drive(0);
const drives = setInterval(() => telematics.drive(EVERY_MS / DAY_MS), EVERY_MS);
console.log(
  `The feed of ${vehicles.length} vehicles speaks on http://127.0.0.1:${telematics.port}/readings. ` +
    `A day passes by: POST /drive. It goes wrong by: POST /fault {"fault": "outage"}. Stop with Ctrl-C.`,
);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    clearInterval(drives);
    void telematics.stop();
  });
