import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import { z } from 'zod';
import { addDays } from '@lanternwright/core/interval';
import { plainNumber, type Price } from '@lanternwright/core/part';
import {
  sentCoreSchema,
  sentOrderSchema,
  type CoreCredit,
  type SentOrder,
  type SupplierStand,
} from '@lanternwright/contract/supplier';

/** A part as the stand-in sells it. */
export interface SoldPart {
  number: string;
  price: Price | null;
  /** What it gives for an old one. */
  core: Price | null;
  /** Days until it is here. */
  days: number;
}

/**
 * What a supplier does wrong now and then: does not answer, answers slowly or nonsense, takes an order and its answer
 * gets lost, is late, sends a part of it, no longer knows a number, asks another price.
 */
const supplierFaults = [
  'outage',
  'slow',
  'garbage',
  'lost-answer',
  'delay',
  'partial',
  'unknown',
  'price',
] as const;
export type SupplierFault = (typeof supplierFaults)[number];

const SLOW_MS = 15_000;
/** By how much it is late, days, and by how much dearer it is. */
const DELAY_DAYS = 7;
const DEARER = 1.12;

const faultSchema = z.object({ fault: z.enum(supplierFaults).nullable() });
const daysSchema = z.object({ days: z.int().min(0).max(400).default(1) });

type Taken = SupplierStand & { sent: SentOrder };

/** The wanted line's part of the catalogue, whatever its gaps and signs. */
const sold = (catalogue: readonly SoldPart[], number: string) =>
  catalogue.find((p) => plainNumber(p.number) === plainNumber(number));

const dearer = (price: Price): Price => ({ ...price, minor: Math.round(price.minor * DEARER) });

/**
 * A stand-in for a supplier's service: plain JSON on loopback, orders by `POST /orders` and `GET /orders/:reference`, old
 * parts by `POST /cores`, faults by `POST /fault`, and days that pass by `POST /days`.
 * @param port 0 takes a free one
 * @param today the day it is there
 */
export async function startSupplier(
  port: number,
  catalogue: readonly SoldPart[],
  today: string,
  secret: string | null = null,
) {
  const orders = new Map<string, Taken>();
  const cores = new Map<string, CoreCredit>();
  let day = today;
  let fault: SupplierFault | null = null;

  function take(sent: SentOrder): Taken {
    const parts = sent.lines.map(({ number }) => (fault === 'unknown' ? undefined : sold(catalogue, number)));
    const days = parts.flatMap((p) => (p ? [p.days] : []));
    const lines = sent.lines.map(({ number }, i) => {
      const price = parts[i]?.price ?? null;
      return {
        ...{ number, unknown: !parts[i], dispatched: 0 },
        price: price && fault === 'price' ? dearer(price) : price,
      };
    });
    const expected = days.length > 0 ? addDays(day, Math.max(...days)) : null;
    return { sent, reference: `S-${7001 + orders.size}`, expected, lines };
  }

  /** What is expected by now leaves the house, half of it where a part is sent. */
  function dispatch(order: Taken): void {
    if (order.expected === null || order.expected > day) return;
    const half = fault === 'partial';
    order.lines = order.lines.map((line, i) => {
      const { quantity } = order.sent.lines[i]!;
      const left = quantity - line.dispatched;
      return line.unknown
        ? line
        : { ...line, dispatched: line.dispatched + (half ? Math.ceil(left / 2) : left) };
    });
    if (order.lines.some((l, i) => !l.unknown && l.dispatched < order.sent.lines[i]!.quantity))
      order.expected = addDays(day, DELAY_DAYS);
  }

  const supplier = {
    port: 0,
    orders: () => [...orders.values()],
    /** Days pass. */
    pass(days: number): void {
      day = addDays(day, days);
      for (const order of orders.values()) dispatch(order);
    },
    /** From now on it does this wrong; whoever is late is it at once. */
    breaks(next: SupplierFault | null): void {
      fault = next;
      if (next !== 'delay') return;
      for (const order of orders.values())
        if (order.expected !== null) order.expected = addDays(order.expected, DELAY_DAYS);
    },
    stop: () => new Promise<void>((resolve) => server.close(() => resolve())),
  };

  const app = express();
  app.use(express.json());
  app.use(['/orders', '/cores'], (req, res, next) => {
    if (secret !== null && req.get('authorization') !== `Bearer ${secret}`)
      return res.status(401).json({ error: 'not known' });
    if (fault === 'outage') return res.status(503).json({ error: 'down for repair' });
    if (fault === 'garbage') return res.send('<p>Welcome</p>');
    return fault === 'slow' ? setTimeout(next, SLOW_MS) : next();
  });
  const standOf = ({ reference, expected, lines }: Taken): SupplierStand => ({ reference, expected, lines });
  app.post('/orders', (req, res) => {
    const sent = sentOrderSchema.safeParse(req.body);
    if (!sent.success) return res.status(422).json({ error: z.prettifyError(sent.error) });
    const order = orders.get(sent.data.id) ?? take(sent.data);
    orders.set(sent.data.id, order);
    return fault === 'lost-answer' ? req.socket.destroy() : res.json(standOf(order));
  });
  app.get('/orders/:reference', (req, res) => {
    const order = supplier.orders().find((o) => o.reference === req.params.reference);
    return order ? res.json(standOf(order)) : res.status(404).json({ error: 'no such order' });
  });
  app.post('/cores', (req, res) => {
    const sent = sentCoreSchema.safeParse(req.body);
    if (!sent.success) return res.status(422).json({ error: z.prettifyError(sent.error) });
    const { id, number } = sent.data;
    const credit = cores.get(id) ?? {
      reference: `C-${301 + cores.size}`,
      credit: sold(catalogue, number)?.core ?? null,
    };
    cores.set(id, credit);
    return fault === 'lost-answer' ? req.socket.destroy() : res.json(credit);
  });
  app.post('/fault', (req, res) => {
    const wanted = faultSchema.safeParse(req.body);
    if (!wanted.success)
      return res.status(422).json({ error: `choose from ${supplierFaults.join(', ')} or null` });
    supplier.breaks(wanted.data.fault);
    return res.json({ fault: wanted.data.fault });
  });
  app.post('/days', (req, res) => {
    const wanted = daysSchema.safeParse(req.body ?? {});
    if (!wanted.success) return res.status(422).json({ error: 'days is a whole number, 0 to 400' });
    supplier.pass(wanted.data.days);
    return res.json({ day });
  });
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  supplier.port = (server.address() as AddressInfo).port;
  return supplier;
}
