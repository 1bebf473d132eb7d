import { bySize, type Part, type Price } from '@lanternwright/core/part';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';

/** SQL: parts that fit lines ($2) of sheets ($1), what lies here first, then the cheapest. */
const PRICED = `
  select w.sheet, w.line, p.part -> 'dims' as dims, p.part -> 'price' as price
  from unnest($1 ::text[], $2 ::text[]) as w(sheet, line)
  join part p on p.part -> 'fits' @> jsonb_build_array(jsonb_build_object('sheetId', w.sheet, 'line', w.line))
  where p.on_hand > 0 or p.part ->> 'supersededBy' is null
  order by p.on_hand > p.reserved desc, (p.part -> 'price' ->> 'minor') ::bigint nulls last, p.id`;

/** A line of a readiness list, at a sheet. */
export interface LineOfSheet {
  sheet: string;
  line: string;
}

interface Priced extends LineOfSheet {
  dims: Part['dims'];
  price: Price | null;
}

/**
 * What parts cost by the line they are for: one of each size that fits, what lies here before what is ordered.
 * @returns the price of a line in the smallest coin; null where no part fits it, or one has no price in this currency
 */
export async function pricesOf(
  db: Database,
  lines: readonly LineOfSheet[],
  currency: string,
): Promise<(of: LineOfSheet) => number | null> {
  const found = await prepared<Priced>(db, 'estimate-prices', PRICED, [
    lines.map((l) => l.sheet),
    lines.map((l) => l.line),
  ]);
  return ({ sheet, line }) => {
    const fitting = found.filter((f) => f.sheet === sheet && f.line === line);
    if (fitting.length === 0) return null;
    const each = bySize(fitting, (f) => f.dims).map(([first]) => first?.price);
    if (each.some((price) => price?.currency !== currency)) return null;
    return each.reduce((sum, price) => sum + (price?.minor ?? 0), 0);
  };
}
