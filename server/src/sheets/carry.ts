import { QueryTypes } from 'sequelize';
import { CARRIED_AT_ONCE, type Behind, type Carried, type Carry } from '@lanternwright/contract/sheets';
import { sheetSchema, type Sheet } from '@lanternwright/core/procedure';
import { carriedOver, ownFigures } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import type { FleetService } from '../fleet/service.ts';
import { notFound } from '../http/problem.ts';
import { askingBy, type Viewer } from '../http/viewer.ts';
import { MovedOn } from '../record/append.ts';
import type { Clock } from '../shop/clock.ts';
import { overtaken, type SheetsService } from './service.ts';

/** Axles under a unit that go by an earlier revision: $1 the sheet, $2 its newest. */
const BEHIND = `axle a join unit u on u.id = a.unit_id join owner o on o.id = u.owner_id
  where a.taken_out_at is null and a.sheet ->> 'sheetId' = $1 and (a.sheet ->> 'revision') ::int < $2`;

const UNITS = `
  select u.id, u.name, o.name as owner, u.version,
    json_agg(json_build_object('number', a.number, 'sheet', a.sheet) order by a.number) as axles
  from ${BEHIND} group by u.id, o.name order by o.name, u.name, u.id limit ${CARRIED_AT_ONCE}`;

interface Row extends Omit<Behind['units'][number], 'axles'> {
  axles: { number: number; sheet: unknown }[];
}

/** Axles that go by an earlier revision of a sheet, and their way to the newest. */
export function sheetCarrier(
  db: Database,
  { sheets, fleet }: { sheets: SheetsService; fleet: FleetService },
  clock: Clock,
) {
  const asking = askingBy(clock);

  /** Every revision of a sheet by its number, and the newest. @throws HttpProblem 404 */
  async function revisionsOf(sheetId: string): Promise<{ of: Map<number, Sheet>; newest: Sheet }> {
    const entry = (await sheets.list()).find((s) => s.sheetId === sheetId);
    if (!entry) throw notFound('sheet');
    const all = entry.revisions.map((r) => r.sheet);
    return { of: new Map(all.map((s) => [s.revision, s])), newest: all[0]! };
  }

  return {
    async behind(sheetId: string): Promise<Behind> {
      const { of, newest } = await revisionsOf(sheetId);
      const bind = [sheetId, newest.revision];
      const [rows, [count]] = await Promise.all([
        db.sequelize.query<Row>(UNITS, { type: QueryTypes.SELECT, bind }),
        db.sequelize.query<{ total: number }>(`select count(distinct u.id) ::int as total from ${BEHIND}`, {
          type: QueryTypes.SELECT,
          bind,
        }),
      ]);
      const units = rows.map(({ axles, ...unit }) => ({
        ...unit,
        axles: axles.map(({ number, sheet }) => {
          const onAxle = sheetSchema.parse(sheet);
          const from = of.get(onAxle.revision);
          return { number, revision: onAxle.revision, own: from ? ownFigures(onAxle, from).length : 0 };
        }),
      }));
      return { total: count!.total, units };
    },

    /** Each unit by itself: one that somebody changed meanwhile stays as it is. @throws HttpProblem 409 where the sheet was revised since */
    async carry(sheetId: string, { to, units }: Carry, viewer: Viewer): Promise<Carried> {
      const { of, newest } = await revisionsOf(sheetId);
      if (newest.revision !== to) throw overtaken(sheetId);
      const answer: Carried = { carried: 0, left: [] };
      for (const { id, seenVersion } of units) {
        const axles = (await fleet.axles(id)).map((axle) => {
          const from = axle.sheet.sheetId === sheetId ? of.get(axle.sheet.revision) : undefined;
          return from ? { ...axle, sheet: carriedOver(axle.sheet, from, newest) } : axle;
        });
        try {
          await fleet.replaceAxles(id, { seenVersion, axles }, asking(viewer));
          answer.carried += 1;
        } catch (error) {
          if (!(error instanceof MovedOn)) throw error;
          answer.left.push(id);
        }
      }
      return answer;
    },
  };
}
export type SheetCarrier = ReturnType<typeof sheetCarrier>;
