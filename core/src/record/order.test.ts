import { describe, expect, it } from 'vitest';
import { openOf, orderAggregate, paidFor, replay } from './index.ts';
import { told } from './testing/told.ts';

const part = (n: number) => `00000000-0000-4000-8000-00000000020${n}`;
const line = (n: number, quantity: number) => ({
  ...{ partId: part(n), number: `47-22${n}0`, title: 'Hub seal', quantity, price: null },
});

function order() {
  const { tell, entries, now } = told(orderAggregate);
  const draft = (...lines: ReturnType<typeof line>[]) =>
    tell({ kind: 'draft', number: 1, supplier: 'Quayside', lines });
  const deliver = (n: number, quantity: number) =>
    tell({ kind: 'deliver', lines: [{ partId: part(n), quantity, place: 'A3' }] });
  return { tell, draft, deliver, entries, now };
}

describe('an order', () => {
  it('is written, changed, sent, promised anew, comes in two parts, and one part of it never', () => {
    const o = order();
    expect(o.draft(line(1, 4), line(2, 2))).toBeNull();
    expect(o.draft(line(1, 5), line(2, 2))).toBeNull();
    expect(o.deliver(1, 1)).toBe('Not ordered yet');
    expect(o.tell({ kind: 'send', expected: '2026-12-03', reference: 'Q-88' })).toBeNull();
    expect(o.draft(line(1, 9))).toBe('It was sent already: what it says stays');
    expect(o.tell({ kind: 'send', expected: null, reference: '' })).toBe('It was sent already');
    expect(o.tell({ kind: 'promise', expected: '2026-12-08' })).toBeNull();
    expect(o.deliver(1, 3)).toBeNull();
    expect(o.deliver(1, 3)).toBe('2 of 47-2210 are still to come');
    expect(o.deliver(3, 1)).toBe('That part is not on this order');
    expect(o.tell({ kind: 'cancel', reason: 'no' })).toMatch(/A part of it came/);
    expect(o.deliver(1, 2)).toBeNull();
    expect(o.now()).toMatchObject({ status: 'sent', expected: '2026-12-08', reference: 'Q-88' });
    expect(o.tell({ kind: 'end-line', partId: part(2), reason: 'Unknown number' })).toBeNull();
    expect(o.now().status).toBe('done');
    expect(o.now().lines.map(openOf)).toEqual([0, 0]);
    expect(o.tell({ kind: 'end-line', partId: part(2), reason: 'again' })).toBe('Not ordered yet');
    expect(replay(orderAggregate, o.entries)).toEqual(o.now());
  });

  it('of which nothing came is cancelled; what is written twice is recorded once', () => {
    const o = order();
    o.draft(line(1, 4));
    o.draft(line(1, 4));
    expect(o.entries).toHaveLength(1);
    expect(o.tell({ kind: 'cancel', reason: 'Found some' })).toBeNull();
    expect(o.tell({ kind: 'send', expected: null, reference: '' })).toBe('This order was cancelled');
  });

  it('is heard of from the supplier’s service: what is news is recorded once, what they do not know ends', () => {
    const o = order();
    o.draft(line(1, 4), line(2, 2));
    const price = { currency: 'USD', minor: 4690 };
    const stand = (dispatched: number) => ({
      ...{ kind: 'told' as const, expected: '2026-12-04', reference: 'S-7001' },
      lines: [
        { partId: part(2), dispatched: 0, price: null, unknown: true },
        { partId: part(1), dispatched, price, unknown: false },
      ],
    });
    // It was not sent to them yet: what they say is about something else.
    expect(o.tell(stand(0))).toBeNull();
    expect(o.entries).toHaveLength(1);
    o.tell({ kind: 'send', expected: null, reference: '', online: true });
    expect(o.tell(stand(0))).toBeNull();
    expect(o.now()).toMatchObject({
      ...{ online: true, reference: 'S-7001', expected: '2026-12-04', status: 'sent' },
      lines: [{ told: { dispatched: 0, price } }, { ended: 'the supplier knows no such number' }],
    });
    const recorded = o.entries.length;
    o.tell(stand(0));
    expect(o.entries).toHaveLength(recorded);
    // A number they took once and do not know the next day is a fault of theirs.
    o.tell({
      ...stand(0),
      lines: [{ partId: part(1), dispatched: 0, price: null, unknown: true }],
    });
    expect(o.now().lines[0]).toMatchObject({ ended: null, told: { price } });
    expect(o.entries).toHaveLength(recorded);
    o.tell(stand(3));
    expect(o.now().lines[0]).toMatchObject({ told: { dispatched: 3 }, delivered: 0 });
    // One is paid at what they ask now, where they say so.
    expect(o.now().lines.map(paidFor)).toEqual([price, null]);
    o.deliver(1, 4);
    o.tell(stand(4));
    expect(o.now().status).toBe('done');
    expect(o.entries).toHaveLength(recorded + 2);
    expect(replay(orderAggregate, o.entries)).toEqual(o.now());
  });

  it('a record in which more came than was ordered does not read', () => {
    const o = order();
    o.draft(line(1, 1));
    o.tell({ kind: 'send', expected: null, reference: '' });
    const body = { kind: 'order-delivered', place: 'A3', lines: [{ partId: part(1), quantity: 2 }] };
    const forged = { ...o.entries[1]!, version: 3, body };
    expect(() => replay(orderAggregate, [...o.entries, forged])).toThrow('More came than was ordered');
  });
});
