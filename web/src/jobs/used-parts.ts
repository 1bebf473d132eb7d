import type { JobParts } from '@lanternwright/contract/stores';
import type { Bill } from '@lanternwright/core/cost';

type BillLine = Bill['lines'][number];

/**
 * A bill on which stands what the job took from the store, at its prices, in the place of what was only expected; a part
 * is named as the readiness list and the estimate name it. A price in another currency is left open.
 */
export function withUsedParts(bill: Bill, parts: readonly JobParts[]): Bill {
  const used = new Map<string, BillLine>();
  for (const { line, title, used: of } of parts)
    for (const { title: own, quantity, price } of of) {
      const what = line === '' ? own : title;
      const unitMinor = price?.currency === bill.currency ? price.minor : 0;
      const known = used.get(what);
      if (known?.unitMinor === unitMinor) known.quantity += quantity;
      else {
        const name = known ? `${what}, ${own}` : what;
        used.set(name, { group: 'parts', what: name, per: 'piece', quantity, unitMinor });
      }
    }
  const expected = bill.lines.filter((l) => l.group === 'labour' || !used.has(l.what));
  return { ...bill, lines: [...expected, ...used.values()] };
}
