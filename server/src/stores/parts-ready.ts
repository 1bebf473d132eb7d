import { QueryTypes } from 'sequelize';
import type { PlacedAxle } from '@lanternwright/core/axle-plan';
import { addDays } from '@lanternwright/core/interval';
import { bySize, type Part } from '@lanternwright/core/part';
import type { Work } from '@lanternwright/core/stack';
import { linesOfWork } from '@lanternwright/core/traveller';
import type { PartNotHere } from '@lanternwright/contract/plan';
import type { Database } from '../database/connect.ts';
import type { Clock } from '../shop/clock.ts';
import { COMING, type Coming } from './shortages.ts';

/** Parts that fit one of these lines of these sheets, with how many are free. $1 sheets, $2 lines. */
const FREE = `
  select p.id, p.part, p.on_hand - p.reserved as free, array_agg(w.sheet || ' ' || w.line) as lines
  from unnest($1 ::text[], $2 ::text[]) w(sheet, line)
  join part p on p.part -> 'fits' @> jsonb_build_array(jsonb_build_object('sheetId', w.sheet, 'line', w.line))
  where p.part ->> 'supersededBy' is null or p.on_hand > 0
  group by p.id`;

interface Free {
  id: string;
  part: Part;
  free: number;
  lines: string[];
}

/** When so many of a part can be had that are not here: from what is on order, else ordered today. */
function readyOn(
  { id, part, free }: Free,
  wanted: number,
  coming: readonly Coming[],
  today: string,
): Pick<PartNotHere, 'by' | 'how'> {
  let count = free;
  // What is late has no day that could be counted on.
  for (const c of coming.filter((x) => x.partId === id && x.expected >= today)) {
    count += c.quantity;
    if (count >= wanted) return { by: c.expected, how: 'on-order' };
  }
  return part.leadDays === null
    ? { by: null, how: 'unknown' }
    : { by: addDays(today, part.leadDays), how: 'to-order' };
}

/**
 * What works on some wheel ends need of the store and is not free there, with the day on which it can be had.
 * @returns a line a part; lines of a sheet that no part of the store fits are not known to it
 */
export async function partsNotHere(
  db: Database,
  ends: readonly { axle: PlacedAxle; works: readonly Work[] }[],
  clock: Clock,
): Promise<PartNotHere[]> {
  const wanted = new Map<string, number>();
  for (const { axle, works } of ends)
    for (const line of linesOfWork(axle, works))
      if (line.group === 'part') {
        const key = `${axle.sheet.sheetId} ${line.what}`;
        wanted.set(key, (wanted.get(key) ?? 0) + 1);
      }
  const keys = [...wanted.keys()].map((key) => key.split(' ', 2) as [string, string]);
  const ask = <T extends object>(sql: string, bind: unknown[]) =>
    db.sequelize.query<T>(sql, { type: QueryTypes.SELECT, bind });
  const parts = await ask<Free>(FREE, [keys.map(([sheet]) => sheet), keys.map(([, line]) => line)]);
  const coming = await ask<Coming>(COMING, [clock.zone()]);
  return [...wanted].flatMap(([key, quantity]) => {
    const fitting = parts.filter((p) => p.lines.includes(key));
    // Of each size one is taken: of those that fit, the one that is here soonest.
    return bySize(fitting, (p) => p.part.dims).flatMap((same) => {
      if (same.some((p) => p.free >= quantity)) return [];
      const [soonest] = same
        .map((p) => ({ title: p.part.title, quantity, ...readyOn(p, quantity, coming, clock.today()) }))
        .sort((a, b) => (a.by ?? '9999').localeCompare(b.by ?? '9999'));
      return soonest ? [soonest] : [];
    });
  });
}
