import { describe, expect, it } from 'vitest';
import type { JobParts } from '@lanternwright/contract/stores';
import type { Bill } from '@lanternwright/core/cost';
import { withUsedParts } from './used-parts.ts';

const bill: Bill = {
  currency: 'GBP',
  lines: [
    { group: 'labour', what: 'Hubs', per: 'wheel', quantity: 2, unitMinor: 21_500 },
    { group: 'parts', what: 'Hub seal', per: 'piece', quantity: 2, unitMinor: 0 },
    { group: 'parts', what: 'Cotter', per: 'piece', quantity: 2, unitMinor: 0 },
  ],
  suppliesPercent: 0,
  taxes: [],
};
const needed = (
  position: string,
  used: Partial<JobParts['used'][number]>[],
  line = 'part:hub-seal',
): JobParts => ({
  ...{ position, line, title: 'Hub seal', stand: { state: 'none' }, fitting: [], kept: [] },
  used: used.map((u) => ({
    ...{ partId: 'p', number: '47-2210', title: 'Hub seal of the drive axle', quantity: 1 },
    ...{ price: { currency: 'GBP', minor: 4185 }, batch: null, ...u },
  })),
});

describe('a bill of what a job used', () => {
  it('has each part once, at its price, in the place of what was expected', () => {
    const { lines } = withUsedParts(bill, [needed('2L', [{}]), needed('2R', [{ quantity: 2 }])]);
    expect(lines.map((l) => [l.what, l.quantity, l.unitMinor])).toEqual([
      ['Hubs', 2, 21_500],
      ['Cotter', 2, 0],
      ['Hub seal', 3, 4185],
    ]);
  });

  it('keeps apart what cost otherwise, and leaves a price in another currency open', () => {
    const dearer = needed('2R', [{ title: 'Hub seal, wide', price: { currency: 'GBP', minor: 4410 } }]);
    const foreign = needed('', [{ title: 'Wear sleeve', price: { currency: 'USD', minor: 3600 } }], '');
    const { lines } = withUsedParts(bill, [needed('2L', [{}]), dearer, foreign]);
    expect(lines.slice(2).map((l) => [l.what, l.unitMinor])).toEqual([
      ['Hub seal', 4185],
      ['Hub seal, Hub seal, wide', 4410],
      ['Wear sleeve', 0],
    ]);
  });

  it('stays as it was where nothing came from the store', () => {
    expect(withUsedParts(bill, [needed('2L', [])])).toEqual(bill);
  });
});
