import { QueryTypes } from 'sequelize';
import { weekSchema, type Week } from '@lanternwright/core/work-plan';
import type { Database } from '../database/connect.ts';
import { MovedOn } from '../record/append.ts';

const SETTING = 'shifts';

const CHANGE = `
  update setting set value = case when $2 ::jsonb = 'null' then value - $1 else value || jsonb_build_object($1, $2 ::jsonb) end
  where name = '${SETTING}' and coalesce(value -> $1, 'null') = $3 ::jsonb returning name`;

/** Hours of their own, of people who do not work when the shop does. */
export function shiftsService(db: Database) {
  return {
    /** By person. */
    async all(): Promise<Map<string, Week>> {
      const row = await db.setting.findByPk(SETTING);
      return new Map(
        Object.entries(row?.value ?? {}).map(([person, week]) => [person, weekSchema.parse(week)]),
      );
    },

    /**
     * @param week null where they work when the shop does
     * @param seen as it was when it was looked at
     * @throws HttpProblem 409 where somebody changed it meanwhile
     */
    async change(person: string, week: Week | null, seen: Week | null): Promise<void> {
      await db.sequelize.query(`insert into setting (name, value) values ($1, '{}') on conflict do nothing`, {
        bind: [SETTING],
      });
      const [changed] = await db.sequelize.query(CHANGE, {
        type: QueryTypes.SELECT,
        bind: [person, JSON.stringify(week), JSON.stringify(seen)],
      });
      if (!changed) throw new MovedOn();
    },
  };
}
export type ShiftsService = ReturnType<typeof shiftsService>;
