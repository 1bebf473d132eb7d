import { z } from 'zod';
import { placeNameSchema, priceSchema, type Price } from '../part/index.ts';
import { begun, refuse, StreamError, type Aggregate } from './aggregate.ts';
import { sameJson } from './canonical.ts';

/** One part of an order, as it was listed when it was ordered. */
const orderLineSchema = z.object({
  partId: z.uuid(),
  number: z.string().min(1).max(40),
  title: z.string().min(1).max(120),
  quantity: z.int().min(1).max(10_000),
  /** Of one, as it was expected; null where nobody knows. */
  price: priceSchema.nullable(),
});
export type OrderLine = z.output<typeof orderLineSchema>;

const supplier = z.string().trim().min(1, 'enter the supplier').max(80);
const reason = z.string().trim().min(1, 'enter a reason').max(200);

/** What came of a part: sound ones, which lie on the shelf, and those that came damaged, which are still to come. */
const deliveredLineSchema = z
  .object({
    partId: z.uuid(),
    quantity: z.int().min(0).max(10_000),
    damaged: z.int().min(1).max(10_000).optional(),
    place: placeNameSchema.optional(),
    /** What the maker printed on them. */
    batch: z.string().trim().min(1).max(40).optional(),
  })
  .refine((l) => l.quantity + (l.damaged ?? 0) > 0, 'nothing came of it');

const orderBodySchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('order-drafted'),
    number: z.int().min(1),
    supplier,
    lines: z.array(orderLineSchema).min(1, 'there is no part on it').max(200),
  }),
  z.object({
    kind: z.literal('order-sent'),
    /** The day it should be here, as the supplier says; null where they do not. */
    expected: z.iso.date().nullable(),
    /** The supplier's own number for it; empty where there is none, or it is not known yet. */
    reference: z.string().trim().max(80),
    /** To the supplier's own service, which answers it. */
    online: z.boolean().optional(),
  }),
  /** What the supplier's service says of it: how many of each left their house, at which price of one. */
  z.object({
    kind: z.literal('order-told'),
    expected: z.iso.date().nullable(),
    reference: z.string().trim().min(1).max(80),
    lines: z.array(
      z.object({ partId: z.uuid(), dispatched: z.int().min(0).max(10_000), price: priceSchema.nullable() }),
    ),
  }),
  z.object({ kind: z.literal('order-promised'), expected: z.iso.date() }),
  z.object({
    kind: z.literal('order-delivered'),
    /** Where all of it was put, in records of an earlier program. */
    place: placeNameSchema.optional(),
    /** The supplier’s number of what came with it. */
    note: z.string().trim().min(1).max(80).optional(),
    lines: z.array(deliveredLineSchema).min(1),
  }),
  /** What is not delivered any more: unknown to the supplier, or not made. */
  z.object({ kind: z.literal('order-line-ended'), partId: z.uuid(), reason }),
  z.object({ kind: z.literal('order-cancelled'), reason }),
]);
export type OrderBody = z.output<typeof orderBodySchema>;

export const orderStates = {
  draft: 'Not sent yet',
  sent: 'On its way',
  done: 'All of it came',
  cancelled: 'Cancelled',
} as const;
export type OrderStatus = keyof typeof orderStates;

export interface OrderState {
  number: number;
  supplier: string;
  status: OrderStatus;
  lines: readonly (OrderLine & {
    delivered: number;
    ended: string | null;
    /** How many of it came damaged, so far; left out where none did. */
    damaged?: number;
    /** What the supplier's service says of it, once it has. */
    told?: { dispatched: number; price: Price | null };
  })[];
  expected: string | null;
  reference: string;
  /** It goes to the supplier's own service. */
  online: boolean;
  sentAt: string | null;
  version: number;
  changedAt: string;
  changedBy: string;
  reason: string | null;
}

/** How a line stands with the supplier. */
interface ToldLine {
  partId: string;
  dispatched: number;
  price: Price | null;
  /** They know no such number. */
  unknown: boolean;
}

export type OrderCommand =
  | { kind: 'draft'; number: number; supplier: string; lines: OrderLine[] }
  | { kind: 'send'; expected: string | null; reference: string; online?: boolean }
  | { kind: 'told'; expected: string | null; reference: string; lines: readonly ToldLine[] }
  | { kind: 'promise'; expected: string }
  | { kind: 'deliver'; note?: string; lines: z.output<typeof deliveredLineSchema>[] }
  | { kind: 'end-line'; partId: string; reason: string }
  | { kind: 'cancel'; reason: string };

/** How many of a line are still to come. */
export const openOf = ({ quantity, delivered, ended }: OrderState['lines'][number]): number =>
  ended === null ? quantity - delivered : 0;

/** What one is paid at: as the supplier says, or else as it was listed when it was ordered. */
export const paidFor = ({ price, told }: OrderState['lines'][number]): Price | null => told?.price ?? price;

const isDone = (lines: OrderState['lines']) => lines.every((line) => openOf(line) === 0);

function whyNotDelivered(
  order: OrderState,
  lines: readonly { partId: string; quantity: number; damaged?: number | undefined }[],
) {
  if (new Set(lines.map((l) => l.partId)).size < lines.length) return 'A part is named twice';
  for (const { partId, quantity, damaged = 0 } of lines) {
    const line = order.lines.find((l) => l.partId === partId);
    if (!line) return 'That part is not on this order';
    if (quantity + damaged > openOf(line))
      return `${openOf(line) || 'None'} of ${line.number} ${openOf(line) === 1 ? 'is' : 'are'} still to come`;
  }
  return null;
}

/** What of a supplier's answer is new; of an order that is done with, nothing is. */
function heard(
  order: OrderState,
  { expected, reference, lines }: Extract<OrderCommand, { kind: 'told' }>,
): OrderBody[] {
  if (order.status !== 'sent') return [];
  const told = order.lines.flatMap(({ partId, told: known }) => {
    const line = lines.find((l) => l.partId === partId && !l.unknown) ?? known;
    return line ? [{ partId, dispatched: line.dispatched, price: line.price }] : [];
  });
  const before = order.lines.flatMap(({ partId, told: known }) => (known ? [{ partId, ...known }] : []));
  const same = order.expected === expected && order.reference === reference && sameJson(told, before);
  const unknown = lines.flatMap(({ partId, unknown: strange }) => {
    const line = order.lines.find((l) => l.partId === partId);
    // Once they have taken it they do not forget it: that would be a fault of theirs, and no reason to give it up.
    return strange && line && !line.told && openOf(line) > 0 ? [partId] : [];
  });
  return [
    ...(same ? [] : [{ kind: 'order-told' as const, expected, reference, lines: told }]),
    ...unknown.map((partId) => ({ kind: 'order-line-ended' as const, partId, reason: UNKNOWN })),
  ];
}
const UNKNOWN = 'the supplier knows no such number';

/** An order of parts: written, sent, promised for a day, delivered in one or several parts. */
export const orderAggregate: Aggregate<OrderState, OrderCommand, OrderBody, OrderState> = {
  stream: 'order',
  upcast: (body) => orderBodySchema.parse(body),

  decide(state, command) {
    if (command.kind === 'draft') {
      const { supplier: from, lines } = command;
      if (!state) return { ok: true, bodies: [{ ...command, kind: 'order-drafted' }] };
      if (state.status !== 'draft') return refuse('It was sent already: what it says stays');
      const before = state.lines.map((l) => orderLineSchema.parse(l));
      return state.supplier === from && sameJson(before, lines)
        ? { ok: true, bodies: [] }
        : { ok: true, bodies: [{ kind: 'order-drafted', number: state.number, supplier: from, lines }] };
    }
    const order = begun(state, 'order');
    if (order.status === 'cancelled')
      return command.kind === 'told' ? { ok: true, bodies: [] } : refuse('This order was cancelled');
    switch (command.kind) {
      case 'send': {
        const { expected, reference, online } = command;
        return order.status === 'draft'
          ? { ok: true, bodies: [{ kind: 'order-sent', expected, reference, ...(online && { online }) }] }
          : refuse('It was sent already');
      }
      case 'told':
        return { ok: true, bodies: heard(order, command) };
      case 'cancel':
        return order.lines.some((l) => l.delivered > 0)
          ? refuse('A part of it came: end the lines that do not come any more')
          : { ok: true, bodies: [{ kind: 'order-cancelled', reason: command.reason }] };
    }
    if (order.status !== 'sent') return refuse('Not ordered yet');
    switch (command.kind) {
      case 'promise':
        return { ok: true, bodies: [{ kind: 'order-promised', expected: command.expected }] };
      case 'deliver': {
        const { lines, note } = command;
        const why = whyNotDelivered(order, lines);
        if (why) return refuse(why, 'lines');
        return { ok: true, bodies: [{ kind: 'order-delivered', ...(note ? { note } : {}), lines }] };
      }
      case 'end-line': {
        const { partId, reason: why } = command;
        const line = order.lines.find((l) => l.partId === partId);
        return line && openOf(line) > 0
          ? { ok: true, bodies: [{ kind: 'order-line-ended', partId, reason: why }] }
          : refuse('Nothing of that is still to come');
      }
    }
  },

  fold(state, { version, at, by, body }) {
    const trace = { version, changedAt: at, changedBy: by.name };
    if (body.kind === 'order-drafted') {
      const lines = body.lines.map((line) => ({ ...line, delivered: 0, ended: null }));
      const empty = { status: 'draft' as const, expected: null, reference: '', sentAt: null, reason: null };
      return { ...empty, online: false, ...trace, number: body.number, supplier: body.supplier, lines };
    }
    const order = { ...begun(state, 'order'), ...trace };
    switch (body.kind) {
      case 'order-sent':
        return {
          ...order,
          ...{ status: 'sent', expected: body.expected, reference: body.reference, sentAt: at },
          online: body.online ?? false,
        };
      case 'order-told': {
        const lines = order.lines.map((line) => {
          const found = body.lines.find((l) => l.partId === line.partId);
          return found ? { ...line, told: { dispatched: found.dispatched, price: found.price } } : line;
        });
        return { ...order, lines, expected: body.expected, reference: body.reference };
      }
      case 'order-promised':
        return { ...order, expected: body.expected };
      case 'order-cancelled':
        return { ...order, status: 'cancelled', reason: body.reason };
      case 'order-delivered':
      case 'order-line-ended': {
        const came = (id: string) =>
          body.kind === 'order-delivered' ? body.lines.find((l) => l.partId === id) : undefined;
        const lines = order.lines.map((l) => ({
          ...l,
          delivered: l.delivered + (came(l.partId)?.quantity ?? 0),
          ...(came(l.partId)?.damaged ? { damaged: (l.damaged ?? 0) + came(l.partId)!.damaged! } : {}),
          ended: body.kind === 'order-line-ended' && body.partId === l.partId ? body.reason : l.ended,
        }));
        if (lines.some((l) => l.delivered > l.quantity)) throw new StreamError('More came than was ordered');
        return { ...order, lines, status: isDone(lines) ? 'done' : order.status };
      }
    }
  },

  project: (order) => order,
};
