import { expect, it } from 'vitest';
import type { Entry } from './entry.ts';
import { bookingAggregate, type BookingBody, type BookingCommand, type BookingState } from './booking.ts';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const at = (hour: string) => `2026-12-01T${hour}:00.000Z`;

const booking = {
  ...{ bayId: 'b1', people: [], tools: [], from: at('08:00'), until: at('12:00') },
  ...{ unitId: id(1), jobId: null, works: [{ position: '2L', work: 'seal' as const }], note: '' },
};

const decide = (state: BookingState, command: BookingCommand) => bookingAggregate.decide(state, command);

function after(...bodies: BookingBody[]): BookingState {
  return [{ kind: 'booked' as const, booking }, ...bodies].reduce<BookingState | null>((state, body, i) => {
    const entry = { version: i + 1, body } as Entry<BookingBody>;
    return bookingAggregate.fold(state, entry);
  }, null)!;
}

it('a unit is here when somebody says so, and not by the clock', () => {
  expect(after().cameAt).toBeNull();
  const come = decide(after(), { kind: 'come', at: at('09:10') });
  expect(come).toEqual({ ok: true, bodies: [{ kind: 'booking-came', at: at('09:10') }] });
  const here = after({ kind: 'booking-came', at: at('09:10') });
  expect(here).toMatchObject({ cameAt: at('09:10'), leftAt: null, from: at('08:00') });
  expect(decide(here, { kind: 'come', at: at('09:20') })).toMatchObject({ reason: 'It is here already' });
  expect(decide(here, { kind: 'miss', at: at('09:20') })).toMatchObject({
    reason: 'It is here: it did come',
  });
});

it('what did not come frees its bay, once its time has come', () => {
  expect(decide(after(), { kind: 'miss', at: at('07:59') })).toMatchObject({
    reason: 'Its time has not come yet: cancel it',
  });
  expect(decide(after(), { kind: 'miss', at: at('08:00') }).ok).toBe(true);
  const missed = after({ kind: 'booking-missed', at: at('10:00') });
  expect(missed).toMatchObject({ cancelled: true, missedAt: at('10:00') });
  expect(bookingAggregate.project(missed).claims).toEqual([]);
  expect(decide(missed, { kind: 'come', at: at('10:05') })).toMatchObject({
    reason: 'This booking was cancelled',
  });
});

it('only what came leaves, and it leaves once', () => {
  expect(decide(after(), { kind: 'end', at: at('11:00') })).toMatchObject({
    reason: 'It is not marked as arrived. Mark it as arrived first',
  });
  const early = after({ kind: 'booking-came', at: at('07:00') });
  expect(decide(early, { kind: 'end', at: at('08:00') })).toMatchObject({
    reason: 'It has not begun: cancel it',
  });
  expect(decide(early, { kind: 'end', at: at('08:01') }).ok).toBe(true);
  const left = after({ kind: 'booking-came', at: at('08:00') }, { kind: 'booking-ended', at: at('11:00') });
  expect(left).toMatchObject({ until: at('11:00'), leftAt: at('11:00') });
  expect(decide(left, { kind: 'end', at: at('11:30') })).toMatchObject({ reason: 'It has left already' });
  expect(decide(left, { kind: 'come', at: at('11:30') })).toMatchObject({ reason: 'It has left already' });
});

it('what was said of the wrong unit is taken back, until it left', () => {
  expect(decide(after(), { kind: 'not-here', at: at('09:00') })).toMatchObject({
    reason: 'It is not marked as arrived',
  });
  const here = after({ kind: 'booking-came', at: at('08:00') });
  expect(decide(here, { kind: 'not-here', at: at('09:00') }).ok).toBe(true);
  expect(after({ kind: 'booking-came', at: at('08:00') }, { kind: 'booking-not-here' }).cameAt).toBeNull();
  const left = after({ kind: 'booking-came', at: at('08:00') }, { kind: 'booking-ended', at: at('11:00') });
  expect(decide(left, { kind: 'not-here', at: at('12:00') })).toMatchObject({ ok: false });
  const { bayId, people, tools, from, until } = booking;
  const to = { bayId, people, tools, from, until };
  expect(decide(left, { kind: 'move', to })).toMatchObject({ reason: 'It has left already' });
});

it('what left before anybody was asked whether it came had come by its hour', () => {
  expect(after({ kind: 'booking-ended', at: at('11:00') })).toMatchObject({
    cameAt: at('08:00'),
    leftAt: at('11:00'),
  });
});

it('a booking has one job, and keeps its works', () => {
  const state = after({ kind: 'booking-job', jobId: id(7) });
  expect(state).toMatchObject({ jobId: id(7), works: [{ position: '2L', work: 'seal' }] });
  expect(decide(state, { kind: 'open-job', jobId: id(8) })).toMatchObject({
    reason: 'A job is open for it already',
  });
  expect(
    bookingAggregate.upcast({ kind: 'booked', booking: { ...booking, works: undefined } }),
  ).toMatchObject({ booking: { works: [] } });
});
