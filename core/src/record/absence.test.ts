import { expect, it } from 'vitest';
import { absenceAggregate, type Absence } from './absence.ts';
import { bookingAggregate, bookingSchema } from './booking.ts';

const id = '018f0000-0000-4000-8000-000000000001';
const absence: Absence = {
  ...{ what: 'person', of: id, why: 'Leave' },
  ...{ from: '2027-01-04T08:00:00Z', until: '2027-01-06T08:00:00Z' },
};
const { decide, fold } = absenceAggregate;
const entry = <B>(version: number, body: B) => ({
  ...{ id, stream: 'absence' as const, streamId: id, version, at: absence.from, body },
  by: { id, name: 'I. Okonedo', role: 'supervisor' as const },
});
const told = fold(null, entry(1, { kind: 'absence-told' as const, absence }));

it('an absence is told once, ended while it lasts, or taken back', () => {
  expect(decide(null, { kind: 'tell', absence }).ok).toBe(true);
  expect(decide(told, { kind: 'tell', absence })).toMatchObject({ ok: false });
  expect(decide(null, { kind: 'tell', absence: { ...absence, until: absence.from } })).toMatchObject({
    ok: false,
    field: 'until',
  });
  expect(decide(null, { kind: 'tell', absence: { ...absence, until: '2029-01-06T08:00:00Z' } }).ok).toBe(
    false,
  );
  expect(decide(told, { kind: 'end', at: '2027-01-04T08:00:00Z' })).toMatchObject({ ok: false });
  expect(decide(told, { kind: 'end', at: '2027-01-07T08:00:00Z' })).toMatchObject({ ok: false });
  expect(decide(told, { kind: 'end', at: '2027-01-05T08:00:00Z' }).ok).toBe(true);
  const ended = fold(told, entry(2, { kind: 'absence-ended' as const, at: '2027-01-05T08:00:00Z' }));
  expect(ended).toMatchObject({ until: '2027-01-05T08:00:00Z', version: 2, cancelled: false });
  const back = fold(ended, entry(3, { kind: 'absence-cancelled' as const }));
  expect(back.cancelled).toBe(true);
  expect(decide(back, { kind: 'cancel' })).toMatchObject({ ok: false, reason: 'This was taken back' });
  expect(() => fold(told, entry(2, { kind: 'absence-told' as const, absence }))).toThrow(/once/);
});

it('a booking from before tools and locks is read as one without, and a tool is claimed', () => {
  const old = bookingAggregate.upcast({
    kind: 'booked',
    booking: {
      ...{ bayId: 'b', people: [], unitId: id, jobId: null, note: '' },
      ...{ from: absence.from, until: absence.until },
    },
  });
  const state = bookingAggregate.fold(null, { ...entry(1, old), stream: 'booking' });
  expect(state).toMatchObject({ tools: [], locked: false });
  const booking = bookingSchema.parse({ ...state, tools: [id] });
  const claims = bookingAggregate.project({ ...state, ...booking }).claims;
  expect(claims).toContainEqual({ what: 'tool', of: id });
  expect(
    bookingAggregate.decide(null, { kind: 'book', booking: { ...booking, tools: [id, id] } }),
  ).toMatchObject({
    ok: false,
    field: 'tools',
  });
  const locked = bookingAggregate.fold(state, {
    ...entry(2, { kind: 'booking-locked' as const, locked: true }),
    stream: 'booking',
  });
  expect(locked).toMatchObject({ locked: true, version: 2, bayId: 'b' });
});
