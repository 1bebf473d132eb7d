import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { absenceAggregate, type Absence } from '@lanternwright/core/record';
import type { ToldAbsence } from '@lanternwright/contract/plan';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { isoTime } from '../database/sql-time.ts';
import { notFound, refused } from '../http/problem.ts';
import { change, type Asked } from '../record/append.ts';
import { insertTables } from '../record/insert-rows.ts';
import { kindsOf } from '../record/kinds.ts';
import type { SettingsService } from '../shop/settings.ts';

/** SQL: absences a with whom or what they are of, and its name; of a bay the settings know it. */
export const NAMED_ABSENCES = `absence a left join person p on a.what = 'person' and p.id ::text = a.of
  left join unit u on a.what = 'unit' and u.id ::text = a.of
  left join tool t on a.what = 'tool' and t.id ::text = a.of`;
export const ABSENT_NAME = `coalesce(p.name, u.name, t.tool ->> 'title', '')`;

const BETWEEN = `
  select a.id, a.version, a.what, a.of, a.why, ${isoTime('lower(a.during)')} as from,
    ${isoTime('upper(a.during)')} as until, ${ABSENT_NAME} as name
  from ${NAMED_ABSENCES} where not a.cancelled and a.during && tstzrange($1, $2) order by lower(a.during), a.id limit 2000`;

/** Who and what is away, as it was told. */
export function absencesService(db: Database, settings: SettingsService) {
  const kind = kindsOf(() => undefined).find((k) => k.aggregate.stream === 'absence')!;

  async function write(id: string, command: Parameters<typeof absenceAggregate.decide>[1], asked: Asked) {
    await inTransaction(db, async () => {
      const state = await change(db, absenceAggregate, id, command, asked);
      await db.sequelize.query('delete from absence where id = $1', { bind: [id] });
      await insertTables(db, kind.rowsOf([{ id, state }]));
    });
    return { id };
  }

  async function isThere({ what, of }: Absence): Promise<boolean> {
    if (what === 'bay') return settings.current().bays.some((b) => b.id === of);
    const [row] = await db.sequelize.query(`select 1 from ${what} where id ::text = $1`, {
      type: QueryTypes.SELECT,
      bind: [of],
    });
    return row !== undefined;
  }

  return {
    async between(from: string, until: string): Promise<ToldAbsence[]> {
      const rows = await db.sequelize.query<ToldAbsence>(BETWEEN, {
        type: QueryTypes.SELECT,
        bind: [from, until],
      });
      const bays = new Map(settings.current().bays.map((b) => [b.id, b.name]));
      return rows.map((r) => (r.what === 'bay' ? { ...r, name: bays.get(r.of) ?? 'a bay that is gone' } : r));
    },

    /** @throws HttpProblem 422 for whom or what is not there */
    async tell(absence: Absence, asked: Asked): Promise<{ id: string }> {
      if (!(await isThere(absence))) throw refused(`There is no such ${absence.what}`, 'of');
      return write(randomUUID(), { kind: 'tell', absence }, asked);
    },

    async cancel(id: string, seenVersion: number, asked: Asked): Promise<{ id: string }> {
      const [row] = await db.sequelize.query('select 1 from absence where id = $1', {
        type: QueryTypes.SELECT,
        bind: [id],
      });
      if (!row) throw notFound('absence');
      return write(id, { kind: 'cancel' }, { ...asked, expected: seenVersion });
    },
  };
}
export type AbsencesService = ReturnType<typeof absencesService>;
