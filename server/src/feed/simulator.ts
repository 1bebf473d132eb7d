import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import { z } from 'zod';
import type { FeedReading } from '@lanternwright/contract/feed';

/** A vehicle that the stand-in speaks for. */
export interface SimulatedVehicle {
  vehicle: string;
  km: number;
  hours: number;
  kmADay: number;
}

/** What a real feed does wrong now and then. */
const feedFaults = ['outage', 'slow', 'repeat', 'late', 'out-of-order', 'reset', 'garbage', 'ahead'] as const;
export type FeedFault = (typeof feedFaults)[number];

const A_PAGE = 500;
const DAY_MS = 86_400_000;
const SLOW_MS = 15_000;

const faultSchema = z.object({ fault: z.enum(feedFaults).nullable(), vehicle: z.string().optional() });

/**
 * A stand-in for a telematics service: plain JSON on loopback, readings by `GET /readings?after=`, faults by
 * `POST /fault`, and time that passes by `POST /drive`.
 * @param port 0 takes a free one
 */
export async function startTelematics(
  port: number,
  fleet: readonly SimulatedVehicle[],
  secret: string | null = null,
) {
  const vehicles = fleet.map((v) => ({ ...v }));
  const told: unknown[] = [];
  let fault: FeedFault | null = null;
  let nth = 0;
  /** How many of them somebody has. */
  let handed = 0;

  function tell(at: Date, of: SimulatedVehicle): void {
    const reading: FeedReading = {
      ...{ id: `r-${(nth += 1)}`, vehicle: of.vehicle, at: at.toISOString() },
      odometerKm: Math.round(of.km * 10) / 10,
      engineHours: Math.round(of.hours * 10) / 10,
    };
    if (fault === 'garbage') told.push({ ...reading, odometerKm: 'many' }, 'no reading');
    else if (fault === 'ahead')
      told.push({ ...reading, at: new Date(at.getTime() + 30 * DAY_MS).toISOString() });
    else told.push(reading);
    if (fault === 'repeat') told.push(reading, { ...reading });
    // What was told before is told again now.
    if (fault === 'late' && told.length > 1) told.push(told[Math.floor(told.length / 2)]);
    // What was handed out stands where it stood.
    if (fault === 'out-of-order' && told.length - handed > 1) told.push(...told.splice(-2).reverse());
  }

  const telematics = {
    port: 0,
    /** The vehicles drive on, and tell it. @param days how long, @param until when that ends */
    drive(days: number, until = new Date()): void {
      for (const v of vehicles) {
        v.km += v.kmADay * days;
        v.hours += (v.kmADay / 60) * days;
        tell(until, v);
      }
    },
    /** From now on it does this wrong; one odometer goes back at once. */
    breaks(next: FeedFault | null, vehicle?: string): void {
      fault = next === 'reset' ? null : next;
      if (next !== 'reset') return;
      const one = vehicles.find((v) => v.vehicle === vehicle) ?? vehicles[0];
      if (one) one.km = 12;
    },
    stop: () => new Promise<void>((resolve) => server.close(() => resolve())),
  };

  const app = express();
  app.use(express.json());
  app.use((req, res, next) => {
    if (req.path === '/readings' && secret !== null && req.get('authorization') !== `Bearer ${secret}`)
      res.status(401).json({ error: 'not known' });
    else next();
  });
  app.get('/readings', (req, res) => {
    if (fault === 'outage') return res.status(503).json({ error: 'down for repair' });
    const after = Math.max(0, Number(req.query['after'] ?? 0) || 0);
    const readings = told.slice(after, after + A_PAGE);
    const next = after + readings.length;
    handed = Math.max(handed, next);
    const answer = () => res.json({ readings, next: String(next), more: next < told.length });
    return fault === 'slow' ? setTimeout(answer, SLOW_MS) : answer();
  });
  app.post('/fault', (req, res) => {
    const wanted = faultSchema.safeParse(req.body);
    if (!wanted.success)
      return res.status(422).json({ error: `choose from ${feedFaults.join(', ')} or null` });
    telematics.breaks(wanted.data.fault, wanted.data.vehicle);
    return res.json({ fault: wanted.data.fault });
  });
  app.post('/drive', (req, res) => {
    telematics.drive(z.object({ days: z.number().min(0).max(400).default(1) }).parse(req.body ?? {}).days);
    res.json({ told: told.length });
  });
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  telematics.port = (server.address() as AddressInfo).port;
  return telematics;
}
