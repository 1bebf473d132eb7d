import { QueryTypes } from 'sequelize';
import { firstHourSteps, type FirstHour } from '@lanternwright/contract/shop';
import type { Database } from '../database/connect.ts';
import type { SettingsService } from './settings.ts';

// No more of a table is counted than is asked for.
const COUNTS = `select
  (select count(*)::int from (select 1 from person where switched_off_at is null limit ${firstHourSteps.people}) p) as people,
  (select count(*)::int from (select 1 from tool limit ${firstHourSteps.tools}) t) as tools,
  (select count(*)::int from (select 1 from unit limit ${firstHourSteps.units}) u) as units,
  (select count(*)::int from (select 1 from job limit ${firstHourSteps.jobs}) j) as jobs`;

/** How much of what a new shop sets up first is there, up to what is wanted of each. */
export async function firstHour(db: Database, settings: SettingsService): Promise<FirstHour> {
  const [counts] = await db.sequelize.query<Omit<FirstHour, 'settings' | 'bays'>>(COUNTS, {
    type: QueryTypes.SELECT,
  });
  const { week, bays } = settings.current();
  return { ...counts!, settings: week.some((day) => day.length > 0) ? 1 : 0, bays: bays.length };
}
