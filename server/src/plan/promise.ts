import { QueryTypes } from 'sequelize';
import { axleNumber, type PlacedAxle } from '@lanternwright/core/axle-plan';
import { dayBegins, describeWorks, visitTime } from '@lanternwright/core/work-plan';
import type { PromiseAsked, ProposalResult } from '@lanternwright/contract/plan';
import type { Database } from '../database/connect.ts';
import { placedAxles } from '../fleet/axle-sql.ts';
import { notFound, refused } from '../http/problem.ts';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';
import { partsNotHere } from '../stores/parts-ready.ts';
import { UNIT_HEAD } from './bookings.ts';
import { inHours, type PlanMaker } from './make-plan.ts';
import type { ShopAhead, UnitHead } from './shop-ahead.ts';

const UNIT = `
  select ${UNIT_HEAD} as unit,
    ${placedAxles('u.id')} as axles,
    exists (select 1 from booking b where b.unit_id = u.id and not b.cancelled and b.left_at is null
      and upper(b.during) > $2 ::timestamptz) as booked
  from unit u join owner o on o.id = u.owner_id where u.id = $1`;

type Runs = Parameters<PlanMaker['promise']>[1];

/** Looks for the time that can be promised for some work on a unit: with its parts, people, bays and hours. */
export function promiseMaker(
  db: Database,
  {
    maker,
    ahead,
    settings,
  }: { maker: PlanMaker; ahead: ShopAhead; settings: Pick<SettingsService, 'current'> },
  clock: Clock,
) {
  /** @throws HttpProblem 404 for no such unit, 422 where it is booked, or has no such wheel end */
  async function wantedOf({ unitId, works }: PromiseAsked) {
    const [row] = await db.sequelize.query<{ unit: UnitHead; axles: PlacedAxle[]; booked: boolean }>(UNIT, {
      type: QueryTypes.SELECT,
      bind: [unitId, clock.now().toISOString()],
    });
    if (!row) throw notFound('unit');
    if (row.booked)
      throw refused(`${row.unit.name} is booked already. Move that booking instead.`, 'promise.unitId');
    const ends = [...new Set(works.map((w) => w.position))].map((position) => {
      const axle = row.axles.find((a) => a.number === axleNumber(position));
      if (!axle) throw refused(`${row.unit.name} has no wheel end ${position}`, 'promise.works');
      return { position, axle, works: works.filter((w) => w.position === position).map((w) => w.work) };
    });
    return { unit: row.unit, ends };
  }

  return {
    /** @throws HttpProblem as `wantedOf` */
    mustBeAble: async (asked: PromiseAsked): Promise<void> => void (await wantedOf(asked)),

    async make(asked: PromiseAsked, runs: Runs): Promise<ProposalResult> {
      const { zone } = settings.current();
      const { unit, ends } = await wantedOf(asked);
      const [parts, measured] = await Promise.all([partsNotHere(db, ends, clock), ahead.measured()]);
      const time = visitTime(ends, unit.kind, measured);
      const lastPart = parts
        .flatMap((p) => p.by ?? [])
        .sort()
        .at(-1);
      const found = await maker.promise(
        {
          visit: { id: unit.id, unitId: unit.id, minutes: time.usual, people: 1, tools: [], weight: 1 },
          notBefore: lastPart === undefined ? 0 : dayBegins(lastPart, zone, 0),
          by: asked.by === null ? null : dayBegins(asked.by, zone, 1),
        },
        runs,
      );
      const rest = { gap: null, visitsSaved: 0 };
      if (!found)
        return {
          ...{ rows: [], ...rest, promise: { by: asked.by, holds: 'late', parts } },
          unplaced: [{ unit, why: 'No time in the next twelve weeks has a technician and a bay free.' }],
        };
      const { holds, moved, to, because } = found;
      const lateDays = asked.by === null ? 0 : maker.daysAfter(asked.by, Date.parse(to.until));
      const own = {
        ...{
          unit,
          jobId: null,
          bookingId: null,
          seenVersion: null,
          tools: [],
          works: asked.works,
          was: null,
        },
        ...{ to, because, lateDays, what: describeWorks(asked.works), hours: inHours(time) },
      };
      return { rows: [own, ...moved], unplaced: [], ...rest, promise: { by: asked.by, holds, parts } };
    },
  };
}
export type PromiseMaker = ReturnType<typeof promiseMaker>;
