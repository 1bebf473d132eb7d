import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { partSchema } from '../part/index.ts';
import {
  freeOf,
  onHand,
  replay,
  stockAggregate,
  stockMoves,
  type Movement,
  type StockMove,
} from './index.ts';
import { told } from './testing/told.ts';

const id = '00000000-0000-4000-8000-000000000001';
const job = (n: number) => `00000000-0000-4000-8000-00000000010${n}`;
const part = partSchema.parse({
  ...{ id, kind: 'seal', title: 'Hub seal', number: '47-2210', crossings: ['HS 47 2210'] },
  ...{ price: { currency: 'USD', minor: 4185 }, core: { currency: 'USD', minor: 500 } },
});

/** A part on the list, and ways to tell what happens to it. */
function store() {
  const { tell, entries, now } = told(stockAggregate);
  tell({ kind: 'list', part });
  return {
    tell,
    entries,
    now,
    move: (what: StockMove, quantity: number, more: Partial<Movement> = {}) =>
      tell({ kind: 'move', movement: { what, quantity, place: 'A3', ...more } }),
    reserve: (n: number, quantity: number) =>
      tell({
        kind: 'reserve',
        reservation: { id: job(n), jobId: job(n), position: '2L', line: 'part:hub-seal', quantity },
      }),
  };
}

describe('the stock of a part', () => {
  it('a day in the store: received, kept, used, returned, counted, moved, lent, scrapped', () => {
    const s = store();
    expect(s.move('received', 6)).toBeNull();
    expect(s.reserve(1, 2)).toBeNull();
    expect(freeOf(s.now())).toBe(4);
    expect(s.move('used', 3, { jobId: job(1), position: '2L', line: 'part:hub-seal' })).toBeNull();
    expect(s.now().reservations).toEqual([]);
    expect(s.now().movements.at(-1)).toMatchObject({ price: part.price, change: -3 });
    expect(s.move('returned', 4, { jobId: job(1) })).toBe('This job has used 3 of them');
    expect(s.move('returned', 1, { jobId: job(1) })).toBeNull();
    expect(s.now().cores).toBe(2);
    expect(s.move('core-returned', 3)).toBe('2 old ones wait to go back');
    expect(s.move('counted', 3)).toBe('The record shows 4 at A3. Enter a reason for the difference');
    expect(s.move('counted', 3, { reason: 'One went without a record' })).toBeNull();
    expect(s.move('moved', 1, { to: 'B1' })).toBeNull();
    expect(s.move('lent', 1, { who: 'The yard next door' })).toBeNull();
    expect(s.move('lent-back', 2, { who: 'The yard next door' })).toBe('The yard next door has 1 of them');
    expect(s.move('scrapped', 1)).toBe('Enter a reason');
    expect(s.move('scrapped', 1, { reason: 'Lip cut in its box' })).toBeNull();
    expect(s.now().places).toEqual({ B1: 1 });
    expect(s.move('used', 1, { jobId: job(1) })).toBe('None lies at A3');
  });

  it('what is kept for one job is not taken by another', () => {
    const s = store();
    s.move('received', 3);
    s.reserve(1, 2);
    expect(s.move('used', 2, { jobId: job(2) })).toMatch(/2 of them are kept for other jobs/);
    expect(s.move('used', 1, { jobId: job(2) })).toBeNull();
    expect(s.move('used', 2, { jobId: job(1) })).toBeNull();
    expect(s.tell({ kind: 'end-reservation', id: job(1) })).toBe('No longer reserved');
  });

  it('a price that a browser sends with a use is not the one that is billed', () => {
    const s = store();
    s.move('received', 1, { price: { currency: 'USD', minor: 3000 } });
    s.move('used', 1, { jobId: job(1), price: { currency: 'USD', minor: 1 } });
    expect(s.now().movements.map((m) => m.price?.minor)).toEqual([3000, 4185]);
  });

  it('stock is the sum of its movements, never below zero, and reads back as it was', () => {
    const moves = Object.keys(stockMoves) as StockMove[];
    const command = fc.record({
      what: fc.constantFrom(...moves),
      quantity: fc.nat(6),
      place: fc.constantFrom('A3', 'B1'),
      to: fc.constantFrom('A3', 'B1', 'C2'),
      jobId: fc.constantFrom(job(1), job(2)),
      who: fc.constantFrom('Ann', 'Bo'),
      reason: fc.constant('because'),
    });
    fc.assert(
      fc.property(fc.array(command, { maxLength: 60 }), (list) => {
        const s = store();
        for (const movement of list) s.tell({ kind: 'move', movement });
        const now = s.now();
        for (const counts of [now.places, now.lent, now.onJobs])
          expect(Object.values(counts).every((n) => n > 0)).toBe(true);
        expect(now.movements.reduce((n, m) => n + m.change, 0)).toBe(onHand(now));
        expect(replay(stockAggregate, s.entries)).toEqual(now);
      }),
    );
  });

  it('a record in which more was taken than there was does not read', () => {
    const s = store();
    s.move('received', 1);
    const forged = {
      kind: 'stock-moved',
      movement: { what: 'scrapped', quantity: 2, place: 'A3', reason: 'x' },
    };
    const last = s.entries.at(-1)!;
    expect(() => replay(stockAggregate, [...s.entries, { ...last, version: 3, body: forged }])).toThrow(
      'More was taken than there was',
    );
  });
});
