import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import type { Logger } from 'pino';
import { v5 as uuidFrom } from 'uuid';
import { jobAggregate, program, replay } from '@lanternwright/core/record';
import { partsToKeep, type Job } from '@lanternwright/core/traveller';
import type { JobParts } from '@lanternwright/contract/stores';
import type { Database } from '../database/connect.ts';
import { outsideTransactions } from '../database/transaction-context.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { entriesOf, entriesOfAll } from '../record/append.ts';
import type { Clock } from '../shop/clock.ts';
import { jobPartsOf } from './job-parts.ts';
import { MOST_JOBS } from './shortages.ts';
import { changeStock, type StockAsked } from './stock.ts';

/**
 * Parts are kept for what is booked so many days ahead; for later work they would only be held from what stands in the
 * bay. Common practice, no source.
 */
const KEPT_DAYS = 14;

/** SQL: open jobs, those that stand in a bay first, each with the booking that it comes in with. $1 days ahead. */
const OPEN = `
  select j.id, j.version, b.id as "bookingId" from job j
  left join lateral (select id, lower(during) as day from booking b where b.job_id = j.id and not b.cancelled
    and upper(b.during) > now() and lower(b.during) < now() + make_interval(days => $1) order by 2 limit 1) b on true
  where j.closed_at is null order by b.day nulls first, j.opened_at limit ${MOST_JOBS}`;

/** SQL: lines of sheets that a part fits which somebody may take. */
const FREE = `
  select distinct f ->> 'sheetId' as sheet, f ->> 'line' as line
  from part p cross join jsonb_array_elements(p.part -> 'fits') f where p.on_hand > p.reserved`;

const KEPT = `
  select r.id, r.part_id as "partId", r.job_id as "jobId", r.position, r.line, r.planned, j.closed_at is not null as closed
  from reservation r join job j on j.id = r.job_id where r.planned or j.closed_at is not null`;

/** What a job's wheel ends need, and whether that is since its work went deeper. */
interface Need {
  position: string;
  sheet: string;
  line: string;
  deeper: boolean;
}

function needsOf(job: Job): Need[] {
  const deeper = new Set(job.events.flatMap(({ body: b }) => (b.kind === 'work-added' ? [b.position] : [])));
  return job.wheelEnds.flatMap((w) =>
    partsToKeep(w).map((l) => ({
      ...{ position: w.position, sheet: w.sheet.sheetId, line: l.what, deeper: deeper.has(w.position) },
    })),
  );
}

/**
 * Keeps for a job one of each size that its lines take and that is free, where nothing is kept or used for that line.
 * @param nameOf the record's id of what is kept, or null for a line that is left out; an id that was used keeps nothing
 */
export async function keepWhatIsHere(
  db: Database,
  job: Job,
  nameOf: (line: JobParts, partId: string) => string | null,
  asked: Omit<StockAsked, 'id'> & { planned?: true },
  clock: Clock,
): Promise<void> {
  const { planned, ...by } = asked;
  await inTransaction(db, async () => {
    // One at a time for a job: what two ask for at once is kept once.
    await db.sequelize.query('select 1 from job where id = $1 for no key update', { bind: [job.id] });
    let lines = await jobPartsOf(db, job, clock);
    for (let i = 0; i < lines.length; i++) {
      const at = lines[i]!;
      const { position, line, stand, kept, used, fitting } = at;
      if (stand.state !== 'here' || !line.startsWith('part:') || kept.length + used.length > 0) continue;
      let keeps = false;
      for (const { number } of stand.parts) {
        const partId = fitting.find((f) => f.number === number)!.id;
        const id = nameOf(at, partId);
        if (id === null) continue;
        const reservation = {
          ...{ id, jobId: job.id, position, line, quantity: 1 },
          ...(planned ? { planned } : {}),
        };
        await changeStock(db, partId, { kind: 'reserve', reservation }, { ...by, id });
        keeps = true;
      }
      // What is left once this line has its own.
      if (keeps) lines = await jobPartsOf(db, job, clock);
    }
  });
}

/**
 * Keeps parts by itself: for a job that is booked within two weeks, and for a wheel end on which the work went deeper.
 * What nobody needs any more is free again. What somebody let go stays let go as long as the booking is the same.
 */
export function partsKeeper(db: Database, clock: Clock, log: Logger) {
  const known = new Map<string, { version: number; needs: Need[] }>();
  const ask = <T extends object>(sql: string, bind: unknown[] = []) =>
    db.sequelize.query<T>(sql, { type: QueryTypes.SELECT, bind });

  async function readNeeds(open: readonly { id: string; version: number }[]): Promise<void> {
    const newer = open.filter((j) => known.get(j.id)?.version !== j.version);
    const entries = await entriesOfAll(
      db,
      'job',
      newer.map((j) => j.id),
    );
    const still = new Set(open.map((j) => j.id));
    for (const id of known.keys()) if (!still.has(id)) known.delete(id);
    for (const { id } of newer) {
      const job = replay(jobAggregate, entries.get(id)!);
      if (job) known.set(id, { version: job.version, needs: needsOf(job) });
    }
  }

  async function keep(): Promise<void> {
    const open = await ask<{ id: string; version: number; bookingId: string | null }>(OPEN, [KEPT_DAYS]);
    await readNeeds(open);
    const asked = { by: program, at: clock.now().toISOString() };
    const booked = new Map(open.map((j) => [j.id, j.bookingId]));
    const isNeeded = (jobId: string, at: Pick<Need, 'position' | 'line'>) =>
      known
        .get(jobId)
        ?.needs.some(
          (n) => n.position === at.position && n.line === at.line && (n.deeper || booked.get(jobId)),
        );
    const kept = await ask<
      Pick<Need, 'position' | 'line'> & Record<'id' | 'partId' | 'jobId', string> & { closed: boolean }
    >(KEPT);
    for (const { id, partId, jobId, closed, ...at } of kept)
      if (closed || (open.length < MOST_JOBS && !isNeeded(jobId, at)))
        await changeStock(db, partId, { kind: 'end-reservation', id }, { ...asked, id: randomUUID() });
    const free = new Set((await ask<Pick<Need, 'sheet' | 'line'>>(FREE)).map((f) => `${f.sheet} ${f.line}`));
    for (const { id, bookingId } of open) {
      const isFree = (n: Need) => (n.deeper || bookingId) && free.has(`${n.sheet} ${n.line}`);
      if (!known.get(id)?.needs.some(isFree)) continue;
      const job = replay(jobAggregate, await entriesOf(db, 'job', id));
      if (!job) continue;
      const nameOf = ({ position, line }: JobParts, partId: string) =>
        isNeeded(id, { position, line })
          ? uuidFrom(`kept ${position} ${line} ${partId}`, bookingId ?? id)
          : null;
      await keepWhatIsHere(db, job, nameOf, { ...asked, planned: true }, clock);
    }
  }

  let going: Promise<void> = Promise.resolve();
  let waiting = false;
  return {
    keep,

    /** Keeps soon, once however often it is asked; what fails is done again by the clock. */
    soon(): void {
      if (waiting) return;
      waiting = true;
      const next = () => {
        waiting = false;
        return keep();
      };
      going = outsideTransactions(() =>
        going.then(next).catch((error: unknown) => log.error({ err: error }, 'parts were not kept')),
      );
    },
    settled: () => going,
  };
}
export type PartsKeeper = ReturnType<typeof partsKeeper>;
