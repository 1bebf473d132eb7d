import { z } from 'zod';
import { positionSchema } from '../axle-plan/index.ts';
import { workSchema } from '../stack/index.ts';
import { begun, refuse, StreamError, type Aggregate, type Decided } from './aggregate.ts';

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
  /** What is to be done; none where nobody said. */
  works: z
    .array(z.object({ position: positionSchema, work: workSchema }))
    .max(120)
    .default([]),
  note: z.string().trim().max(200).default(''),
});
export type Booking = z.output<typeof bookingSchema>;

const bookingBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('booked'), booking: bookingSchema }),
  z.object({ kind: z.literal('booking-moved'), to: whenAndWho }),
  /** Somebody said that the unit is here; until then it is only expected, whatever the clock says. */
  z.object({ kind: z.literal('booking-came'), at: z.iso.datetime() }),
  /** That it is here was said of the wrong one. */
  z.object({ kind: z.literal('booking-not-here') }),
  /** It did not come: its bay is free. */
  z.object({ kind: z.literal('booking-missed'), at: z.iso.datetime() }),
  /** The job that was opened for it. */
  z.object({ kind: z.literal('booking-job'), jobId: z.uuid() }),
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
  /** When somebody said that it is here; null while it is expected. */
  cameAt: string | null;
  /** When it left its bay; null while nobody said so. */
  leftAt: string | null;
  /** Cancelled because it did not come, and when that was said; else null. */
  missedAt: string | null;
}

export type BookingCommand =
  | { kind: 'book'; booking: Booking }
  | { kind: 'move'; to: z.output<typeof whenAndWho> }
  | { kind: 'come'; at: string }
  | { kind: 'not-here'; at: string }
  | { kind: 'miss'; at: string }
  | { kind: 'open-job'; jobId: string }
  | { kind: 'end'; at: string }
  | { kind: 'lock'; locked: boolean }
  | { kind: 'cancel'; reason: string };

/** A new booking, until somebody says more of it. */
const expected = { locked: false, cancelled: false, cameAt: null, leftAt: null, missedAt: null };

const MOST_DAYS = 60;

function whyNot({ from, until, people, tools }: z.output<typeof whenAndWho>): [string, string] | null {
  const ms = Date.parse(until) - Date.parse(from);
  if (ms <= 0) return ['It must end after it begins', 'until'];
  if (ms > MOST_DAYS * 86_400_000) return [`A booking is for ${MOST_DAYS} days at most`, 'until'];
  if (new Set(people).size !== people.length) return ['Somebody is named twice', 'people'];
  return new Set(tools).size === tools.length ? null : ['A tool is named twice', 'tools'];
}

/** That a unit came, did not come, or left. */
function sayWhereItIs(
  { from, cameAt, leftAt }: BookingState,
  { kind, at }: { kind: 'come' | 'not-here' | 'miss' | 'end'; at: string },
): Decided<BookingBody> {
  if (leftAt !== null) return refuse('It has left already');
  switch (kind) {
    case 'come':
      return cameAt === null
        ? { ok: true, bodies: [{ kind: 'booking-came', at }] }
        : refuse('It is here already');
    case 'not-here':
      return cameAt === null
        ? refuse('It is not marked as arrived')
        : { ok: true, bodies: [{ kind: 'booking-not-here' }] };
    case 'miss':
      if (cameAt !== null) return refuse('It is here: it did come');
      return at < from
        ? refuse('Its time has not come yet: cancel it')
        : { ok: true, bodies: [{ kind: 'booking-missed', at }] };
    case 'end':
      if (cameAt === null) return refuse('It is not marked as arrived. Mark it as arrived first');
      return at <= from
        ? refuse('It has not begun: cancel it')
        : { ok: true, bodies: [{ kind: 'booking-ended', at }] };
  }
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
    if (command.kind === 'open-job') {
      if (booking.jobId !== null) return refuse('A job is open for it already');
      return { ok: true, bodies: [{ kind: 'booking-job', jobId: command.jobId }] };
    }
    if (command.kind !== 'move') return sayWhereItIs(booking, command);
    if (booking.leftAt !== null) return refuse('It has left already');
    const why = whyNot(command.to);
    return why ? refuse(...why) : { ok: true, bodies: [{ kind: 'booking-moved', to: command.to }] };
  },

  fold(state, { version, body }) {
    if (body.kind === 'booked') {
      if (state) throw new StreamError('A booking is made once');
      return { ...body.booking, ...expected, version };
    }
    const booking = { ...begun(state, 'booking'), version };
    switch (body.kind) {
      case 'booking-locked':
        return { ...booking, locked: body.locked };
      case 'booking-cancelled':
        return { ...booking, cancelled: true };
      case 'booking-missed':
        return { ...booking, cancelled: true, missedAt: body.at };
      case 'booking-came':
        return { ...booking, cameAt: body.at };
      case 'booking-not-here':
        return { ...booking, cameAt: null };
      case 'booking-job':
        return { ...booking, jobId: body.jobId };
      case 'booking-ended':
        // Records from before anybody was asked whether it came.
        return { ...booking, until: body.at, cameAt: booking.cameAt ?? booking.from, leftAt: body.at };
      case 'booking-moved':
        return { ...booking, ...body.to };
    }
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
