import { z } from 'zod';
import { begun, refuse, StreamError, type Aggregate } from './aggregate.ts';

const whenAndWho = z.object({
  bayId: z.string().min(1).max(60),
  people: z.array(z.uuid()).max(6),
  /** Tools that exist once and that it needs. */
  tools: z.array(z.uuid()).max(10).default([]),
  /** ISO 8601, UTC. */
  from: z.iso.datetime(),
  until: z.iso.datetime(),
});

/** A unit in a bay, with who works on it and from when to when. */
export const bookingSchema = whenAndWho.extend({
  unitId: z.uuid(),
  /** The job it is for; null while none is open. */
  jobId: z.uuid().nullable(),
  note: z.string().trim().max(200).default(''),
});
export type Booking = z.output<typeof bookingSchema>;

const bookingBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('booked'), booking: bookingSchema }),
  z.object({ kind: z.literal('booking-moved'), to: whenAndWho }),
  /** It was in the bay and left, before its time or after. */
  z.object({ kind: z.literal('booking-ended'), at: z.iso.datetime() }),
  /** Whether a proposal or a mending may move it. */
  z.object({ kind: z.literal('booking-locked'), locked: z.boolean() }),
  z.object({ kind: z.literal('booking-cancelled'), reason: z.string().min(1).max(200) }),
]);
export type BookingBody = z.output<typeof bookingBodySchema>;

export interface BookingState extends Booking {
  version: number;
  locked: boolean;
  cancelled: boolean;
}

export type BookingCommand =
  | { kind: 'book'; booking: Booking }
  | { kind: 'move'; to: z.output<typeof whenAndWho> }
  | { kind: 'end'; at: string }
  | { kind: 'lock'; locked: boolean }
  | { kind: 'cancel'; reason: string };

const MOST_DAYS = 60;

function whyNot({ from, until, people, tools }: z.output<typeof whenAndWho>): [string, string] | null {
  const ms = Date.parse(until) - Date.parse(from);
  if (ms <= 0) return ['It must end after it begins', 'until'];
  if (ms > MOST_DAYS * 86_400_000) return [`A booking is for ${MOST_DAYS} days at most`, 'until'];
  if (new Set(people).size !== people.length) return ['Somebody is named twice', 'people'];
  return new Set(tools).size === tools.length ? null : ['A tool is named twice', 'tools'];
}

/** A booking of a bay: who, where, from when to when. That two do not clash, the database keeps. */
export const bookingAggregate: Aggregate<
  BookingState,
  BookingCommand,
  BookingBody,
  { booking: BookingState; claims: { what: 'bay' | 'unit' | 'person' | 'tool'; of: string }[] }
> = {
  stream: 'booking',
  upcast: (body) => bookingBodySchema.parse(body),

  decide(state, command) {
    if (command.kind === 'book') {
      if (state) return refuse('This is booked already');
      const why = whyNot(command.booking);
      return why ? refuse(...why) : { ok: true, bodies: [{ kind: 'booked', booking: command.booking }] };
    }
    const booking = begun(state, 'booking');
    if (booking.cancelled) return refuse('This booking was cancelled');
    if (command.kind === 'cancel')
      return { ok: true, bodies: [{ kind: 'booking-cancelled', reason: command.reason }] };
    if (command.kind === 'lock')
      return { ok: true, bodies: [{ kind: 'booking-locked', locked: command.locked }] };
    if (command.kind === 'end')
      return command.at <= booking.from
        ? refuse('It has not begun: cancel it')
        : { ok: true, bodies: [{ kind: 'booking-ended', at: command.at }] };
    const why = whyNot(command.to);
    return why ? refuse(...why) : { ok: true, bodies: [{ kind: 'booking-moved', to: command.to }] };
  },

  fold(state, { version, body }) {
    if (body.kind === 'booked') {
      if (state) throw new StreamError('A booking is made once');
      return { ...body.booking, version, locked: false, cancelled: false };
    }
    const booking = { ...begun(state, 'booking'), version };
    if (body.kind === 'booking-locked') return { ...booking, locked: body.locked };
    if (body.kind === 'booking-cancelled') return { ...booking, cancelled: true };
    return body.kind === 'booking-ended' ? { ...booking, until: body.at } : { ...booking, ...body.to };
  },

  project: (booking) => ({
    booking,
    claims: booking.cancelled
      ? []
      : [
          { what: 'bay', of: booking.bayId },
          { what: 'unit', of: booking.unitId },
          ...booking.people.map((of) => ({ what: 'person' as const, of })),
          ...booking.tools.map((of) => ({ what: 'tool' as const, of })),
        ],
  }),
};
