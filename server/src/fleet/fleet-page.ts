import {
  standingStates,
  UNITS_A_PAGE,
  type FleetPage,
  type FleetQuery,
  type UnitSummary,
} from '@lanternwright/contract/fleet';
import type { Database } from '../database/connect.ts';
import { keptWhileStill } from '../database/kept-while-still.ts';
import { named, prepared } from '../database/prepared.ts';
import { jsonWith, type JsonText } from '../http/serve.ts';
import type { Viewer } from '../http/viewer.ts';
import { wordsFound } from './find-words.ts';
import { ON_ITS_UNIT, UNIT_SUMMARY } from './summary.ts';

const SOME = `select ${UNIT_SUMMARY} as unit from unit u join owner o on o.id = u.owner_id where u.id = any($1 ::uuid[])
  order by u.name collate natural_order, u.id`;

const IN_STATE = (state: string) => `exists (
  select 1 from wheel_end w join axle a on a.id = w.axle_id and a.taken_out_at is null
  where w.unit_id = u.id and w.state = ${state})`;
const NOT_MEASURED = `exists (
  select 1 from axle a where a.unit_id = u.id and a.taken_out_at is null
    and (select count(*) from wheel_end w where w.axle_id = a.id and w.state <> 'not-measured') < 2)`;

/** Values that a statement is bound to, each with its place. */
export function places() {
  const values: unknown[] = [];
  return { values, bound: (value: unknown) => `$${values.push(value)}` };
}

/** No condition: every owner's units, whatever they are. */
const EVERYTHING = 'true';

/** What is asked for, as a condition on a unit `u`. */
function conditionOf(
  { search, owner, kind, state }: Omit<FleetQuery, 'page'>,
  owners: Viewer['owners'],
  bound: (value: unknown) => string,
): string {
  const where: string[] = [];
  if (owners !== 'all') where.push(`u.owner_id = any(${bound(owners)} ::uuid[])`);
  if (owner) where.push(`u.owner_id = ${bound(owner)} ::uuid`);
  if (kind) where.push(`u.kind = ${bound(kind)}`);
  if (state === 'not-measured') where.push(NOT_MEASURED);
  else if (state) where.push(IN_STATE(bound(state)));
  if (search.trim() !== '') where.push(wordsFound(search, bound));
  return where.length > 0 ? where.join(' and ') : EVERYTHING;
}

/** So many units that fit are found once and shown by their ids; more are cheaper to find again than to carry. */
const FEW = 500;

/** SQL: how many units of each owner fit, owners by name. @param more what else is asked of each owner's units */
export const countsSql = (where: string, more = '') => `
  select o.id, c.* from (select u.owner_id, count(*) ::int as units ${more} from unit u where ${where} group by 1) c
  join owner o on o.id = c.owner_id order by o.name collate natural_order, o.id`;
const WHICH = `, (array_agg(u.id))[1:${FEW + 1}] as ids`;

/** SQL: units that fit, of some owners, from each so many after so many, as JSON. @param parts names owners, skips and takes */
export const unitsSql = (where: string, parts: readonly string[]) => `
  select coalesce(json_agg(${UNIT_SUMMARY} order by part.nth, u.place), '[]') ::text as units
  from unnest(${parts[0]} ::uuid[], ${parts[1]} ::int[], ${parts[2]} ::int[]) with ordinality as part(owner, skip, take, nth)
  join owner o on o.id = part.owner
  cross join lateral (
    select u.*, row_number() over () as place from (
      select u.* from unit u where u.owner_id = part.owner and ${where}
      order by u.name collate natural_order, u.id offset part.skip limit part.take) u) u`;

/** The owners that a page goes over, and what of each stands on it. */
export function partsOf(counts: readonly { id: string; units: number }[], from: number, size: number) {
  const parts = { owners: [] as string[], skips: [] as number[], takes: [] as number[] };
  let before = 0;
  for (const { id, units } of counts) {
    const skip = Math.max(0, from - before);
    const take = Math.min(units - skip, from + size - before - skip);
    before += units;
    if (take <= 0) continue;
    parts.owners.push(id);
    parts.skips.push(skip);
    parts.takes.push(take);
  }
  return parts;
}

export const STANDING = `
  select (select count(*) from unit) ::int as units,
    (select coalesce(json_object_agg(state, n), '{}') from (
      select w.state, count(*) as n from wheel_end w
      where w.state = any($1 ::text[])
        and ${ON_ITS_UNIT('w')}
      group by w.state) s) as standing`;

type Counts = { id: string; units: number; ids?: string[] }[];

/** The fleet a page at a time, by owner and name. */
export function fleetPages(db: Database) {
  const countsOf = (from: Database, where: string, values: readonly unknown[]): Promise<Counts> =>
    prepared(from, ...named('fleet-counts', countsSql(where, WHICH)), [...values]);
  const standingOf = async (from: Database) =>
    (await prepared<FleetPage['fleet']>(from, 'fleet-standing', STANDING, [standingStates]))[0]!;
  const [allCounts, standing] = [
    keptWhileStill((from) => prepared<Counts[number]>(from, 'fleet-all-counts', countsSql(EVERYTHING), [])),
    keptWhileStill(standingOf),
  ];

  return {
    async page(query: FleetQuery, viewer: Viewer, from = db): Promise<JsonText> {
      const { values, bound } = places();
      const where = conditionOf(query, viewer.owners, bound);
      const [counts, fleet] = await Promise.all([
        where === EVERYTHING ? allCounts(from) : countsOf(from, where, values),
        viewer.owners === 'all' ? standing(from) : standingOf(from),
      ]);
      const { owners, skips, takes } = partsOf(counts, (query.page - 1) * UNITS_A_PAGE, UNITS_A_PAGE);
      const total = counts.reduce((sum, c) => sum + c.units, 0);
      const few = where !== EVERYTHING && total <= FEW ? places() : null;
      const fits = few ? `u.id = any(${few.bound(counts.flatMap((c) => c.ids ?? []))} ::uuid[])` : where;
      const parts = [owners, skips, takes].map(few?.bound ?? bound);
      const sql = unitsSql(fits, parts);
      const [row] = await prepared<{ units: string }>(
        from,
        ...named('fleet-units', sql),
        few?.values ?? values,
      );
      const shown = new Set(owners);
      const ofOwner = Object.fromEntries(counts.filter((c) => shown.has(c.id)).map((c) => [c.id, c.units]));
      return jsonWith({ total, ofOwner, fleet } satisfies Omit<FleetPage, 'units'>, { units: row!.units });
    },

    /** These units, as lists show them, by name. */
    some: async (ids: readonly string[]) =>
      (await prepared<{ unit: UnitSummary }>(db, 'fleet-some', SOME, [ids])).map((row) => row.unit),
  };
}
