import type { stockAggregate } from '@lanternwright/core/record';

/** Rows of a part of the store, by their tables: what a change writes, and what a rebuild comes to. */
export function stockRows(
  id: string,
  { part, numbers, counts, reservations, movements }: ReturnType<typeof stockAggregate.project>,
) {
  return {
    part: [part],
    part_number: numbers.map((n) => ({ ...n, partId: id })),
    stock: counts.map((c) => ({ ...c, partId: id })),
    reservation: reservations.map((r) => ({ ...r, planned: r.planned ?? false, partId: id })),
    stock_movement: movements.map(({ to, price, ...m }) => ({
      ...m,
      ...{ partId: id, toPlace: to, currency: price?.currency, minor: price?.minor },
    })),
  };
}
