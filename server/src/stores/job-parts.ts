import { readinessLines, type Job } from '@lanternwright/core/traveller';
import { standOfLine, type LineStand, type Part } from '@lanternwright/core/part';
import type { JobParts, PartLine } from '@lanternwright/contract/stores';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import type { Clock } from '../shop/clock.ts';
import { NET_USED } from './net-used.ts';
import { PART_LINE } from './search.ts';
import { COMING, type Coming } from './shortages.ts';

/** SQL: parts that fit lines ($2) of sheets ($1); those that another one has replaced only while some lie here. */
const FITTING = `
  select w.sheet, w.line, p.part -> 'dims' as dims, ${PART_LINE},
    array(select m.batch from stock_movement m where m.part_id = p.id and m.what = 'received' and m.batch is not null
      group by m.batch order by max(m.version) desc limit 4) as batches
  from unnest($1 ::text[], $2 ::text[]) as w(sheet, line)
  join part p on p.part -> 'fits' @> jsonb_build_array(jsonb_build_object('sheetId', w.sheet, 'line', w.line))
  where p.on_hand > 0 or p.part ->> 'supersededBy' is null
  order by p.on_hand > p.reserved desc, p.title, p.id`;

/** SQL: for which jobs but one ($1) some parts ($2) are kept, those that come last first; $3 is the shop's zone. */
const KEPT_FOR_OTHERS = `
  select r.id, r.part_id as "partId", r.quantity, j.number as "jobNumber", u.name as unit,
    to_char(b.begins at time zone $3, 'YYYY-MM-DD') as day
  from reservation r join job j on j.id = r.job_id join unit u on u.id = j.unit_id
  left join lateral (select min(lower(during)) as begins from booking
    where job_id = j.id and not cancelled and upper(during) > now()) b on true
  where r.part_id = any($2 ::uuid[]) and r.job_id <> $1 order by b.begins desc nulls last, r.id`;

/** SQL: what is on its way of some parts ($2). */
const COMING_OF = `select c.* from (${COMING}) c where c."partId" = any($2 ::uuid[])`;

const KEPT = `
  select r.id, r.part_id as "partId", r.position, r.line, r.quantity, r.planned, p.part ->> 'number' as number
  from reservation r join part p on p.id = r.part_id where r.job_id = $1 order by r.position, r.line, r.id`;

/** SQL: what a job used and did not return, each at the price it was used at last. */
const USED = `
  select m.part_id as "partId", m.position, coalesce(m.line, '') as line, p.part ->> 'number' as number, p.title,
    ${NET_USED} ::int as quantity,
    (array_agg(case when m.minor is null then null else json_build_object('currency', m.currency, 'minor', m.minor) end
      order by m.version desc))[1] as price,
    (array_agg(m.batch order by m.version desc) filter (where m.what = 'used'))[1] as batch
  from stock_movement m join part p on p.id = m.part_id
  where m.job_id = $1 and m.what in ('used', 'returned')
  group by m.part_id, m.position, m.line, p.part, p.title
  having ${NET_USED} > 0
  order by m.position, number`;

type Fitting = PartLine & { sheet: string; line: string; dims: Part['dims']; batches: string[] };
type At = Pick<JobParts, 'position' | 'line'>;
const isAt = (a: At) => (b: At) => a.position === b.position && a.line === b.line;

/**
 * What a job's routes ask of the store, line by line, with what fits each, what is kept for it and what was used; what
 * was used beside the lists stands last.
 */
export async function jobPartsOf(db: Database, job: Job, clock: Clock): Promise<JobParts[]> {
  const asked = job.wheelEnds.flatMap((w) =>
    readinessLines(w)
      .filter((l) => l.group === 'part' || l.group === 'lubricant')
      .map(({ what, title }) => ({
        position: w.position,
        line: what,
        title: title ?? what,
        sheet: w.sheet.sheetId,
      })),
  );
  const pairs = [...new Map(asked.map((a) => [`${a.sheet} ${a.line}`, a])).values()];
  const fitting = await prepared<Fitting>(db, 'job-parts-fitting', FITTING, [
    pairs.map((p) => p.sheet),
    pairs.map((p) => p.line),
  ]);
  const kept = await prepared<JobParts['kept'][number] & At>(db, 'job-parts-kept', KEPT, [job.id]);
  const used = await prepared<JobParts['used'][number] & At>(db, 'job-parts-used', USED, [job.id]);
  const coming = await prepared<Coming>(db, 'job-parts-coming', COMING_OF, [
    clock.zone(),
    fitting.map((f) => f.id),
  ]);
  const others = await prepared<JobParts['fitting'][number]['keptFor'][number] & { partId: string }>(
    db,
    'job-parts-kept-for-others',
    KEPT_FOR_OTHERS,
    [job.id, fitting.map((f) => f.id), clock.zone()],
  );
  const today = clock.today();
  /** What this job may take for a line: what is free, and what is kept for that line. */
  const standAt = (at: At, fits: readonly Fitting[]): LineStand =>
    standOfLine(
      fits.map(({ id, number, dims, onHand, reserved, places }) => {
        const own = kept.filter(isAt(at)).reduce((n, k) => n + (k.partId === id ? k.quantity : 0), 0);
        return {
          ...{
            number,
            dims,
            free: Math.min(onHand, onHand - reserved + own),
            places: places.map((p) => p.place),
          },
          coming: coming
            .filter((c) => c.partId === id)
            .map(({ orderId, orderNumber, expected }) => ({
              ...{ orderId, orderNumber, expected },
              late: expected < today,
            })),
        };
      }),
    );
  const beside = [...kept, ...used].filter((at) => !asked.some(isAt(at)));
  const besides = [
    ...new Map(beside.map(({ position, line }) => [`${position} ${line}`, { position, line }])).values(),
  ];
  return [...asked, ...besides.map((at) => ({ ...at, title: 'Another part', sheet: '' }))].map(
    ({ position, line, title, sheet }) => {
      const at = { position, line };
      const fits = fitting
        .filter((f) => f.sheet === sheet && f.line === line)
        .map((f) => ({
          ...f,
          keptFor: others
            .filter((o) => o.partId === f.id)
            .map(({ id, jobNumber, unit, quantity, day }) => ({ id, jobNumber, unit, quantity, day })),
        }));
      return {
        ...{ ...at, title, stand: standAt(at, fits), fitting: fits },
        kept: kept
          .filter(isAt(at))
          .map(({ id, partId, number, quantity, planned }) => ({ id, partId, number, quantity, planned })),
        used: used.filter(isAt(at)).map(({ partId, number, title: of, quantity, price, batch }) => ({
          ...{ partId, number, title: of, quantity, price, batch },
        })),
      };
    },
  );
}
