import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import {
  askProposalSchema,
  promiseAskedSchema,
  type AskProposal,
  type Proposal,
} from '@lanternwright/contract/plan';
import type { Place, ShopPlanInput } from '@lanternwright/core/shop-plan';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { isoTime } from '../database/sql-time.ts';
import { HttpProblem, notFound, refused } from '../http/problem.ts';
import type { Viewer } from '../http/viewer.ts';
import type { WorkPool } from '../pool/pool.ts';
import type { Asked } from '../record/append.ts';
import type { Clock } from '../shop/clock.ts';
import type { BookingsService, Change } from './bookings.ts';
import type { PlanMaker } from './make-plan.ts';
import type { PromiseMaker } from './promise.ts';

/** A running plan of which nothing was heard so long went with its server. */
const LOST_MS = 60_000;

interface Row extends Proposal {
  askedBy: string;
  wanted: unknown;
  touchedAt: string;
}

const ROW = `
  select id, kind, asked_by as "askedBy", ${isoTime('asked_at')} as "askedAt", state, done, wanted, result,
    ${isoTime('touched_at')} as "touchedAt"
  from proposal where id = $1`;

interface Neighbours {
  maker: PlanMaker;
  promises: PromiseMaker;
  bookings: BookingsService;
  pool: WorkPool;
  /** Has a plan made in the background, in the open transaction. */
  enqueue: (id: string) => Promise<void>;
}

/** Plans that are asked for, made in the background, and accepted in whole or in part. */
export function proposalsService(
  db: Database,
  { maker, promises, bookings, pool, enqueue }: Neighbours,
  clock: Clock,
) {
  async function row(id: string): Promise<Row> {
    const [found] = await db.sequelize.query<Row>(ROW, { type: QueryTypes.SELECT, bind: [id] });
    if (!found) throw notFound('plan');
    const lost = found.state === 'running' && Date.now() - Date.parse(found.touchedAt) > LOST_MS;
    return lost ? { ...found, state: 'failed' } : found;
  }

  /** @returns whether it is still wanted */
  async function tell(id: string, done: number): Promise<boolean> {
    const rows = await db.sequelize.query(
      `update proposal set done = $2, touched_at = now() where id = $1 and state = 'running' returning id`,
      { type: QueryTypes.SELECT, bind: [id, done] },
    );
    return rows.length > 0;
  }

  return {
    /** @throws HttpProblem 422 where the settings lack bays, hours or people */
    async ask(asked: AskProposal, { person }: Viewer): Promise<{ id: string }> {
      await maker.mustBeAble();
      if (asked.promise) await promises.mustBeAble(promiseAskedSchema.parse(asked.promise));
      const id = randomUUID();
      await inTransaction(db, async () => {
        await db.sequelize.query(
          `insert into proposal (id, kind, asked_by, asked_at, state, wanted)
           values ($1, $2, $3, $4, 'waiting', $5 ::jsonb)`,
          { bind: [id, asked.kind, person.id, clock.now().toISOString(), JSON.stringify(asked)] },
        );
        await db.sequelize.query(`delete from proposal where asked_at < now() - interval '14 days'`);
        await enqueue(id);
      });
      return { id };
    },

    async one(id: string): Promise<Proposal> {
      const { kind, askedAt, state, done, result } = await row(id);
      return { id, kind, askedAt, state, done, result };
    },

    async stop(id: string): Promise<{ id: string }> {
      await row(id);
      await db.sequelize.query(
        `update proposal set state = 'stopped' where id = $1 and state in ('waiting', 'running')`,
        { bind: [id] },
      );
      return { id };
    },

    /** Makes a plan that was asked for; called by the queue. */
    async run(id: string): Promise<void> {
      const [taken] = await db.sequelize.query<{ askedBy: string; wanted: unknown }>(
        `update proposal set state = 'running', touched_at = now()
         where id = $1 and state in ('waiting', 'running') returning asked_by as "askedBy", wanted`,
        { type: QueryTypes.SELECT, bind: [id] },
      );
      if (!taken) return;
      const wanted = askProposalSchema.parse(taken.wanted);
      const left = new AbortController();
      let told = 0;
      const asked = {
        ...{ person: taken.askedBy, takes: 'long' as const, left: left.signal },
        onProgress(done: number) {
          if (Date.now() - told < 300) return;
          told = Date.now();
          tell(id, done).then(
            (still) => still || left.abort(),
            () => left.abort(),
          );
        },
      };
      try {
        const planFor = (seconds: number) => (shop: ShopPlanInput) =>
          pool.run('plan', { shop, seconds }, asked);
        const mendWith = (shop: ShopPlanInput, places: Place[]) => pool.run('mend', { shop, places }, asked);
        const result = wanted.promise
          ? await promises.make(wanted.promise, { plan: planFor(1), mendWith })
          : wanted.kind === 'mend'
            ? await maker.mend(mendWith)
            : await maker.propose(wanted, planFor(wanted.seconds));
        await db.sequelize.query(
          `update proposal set state = 'ready', done = 1, result = $2 ::jsonb where id = $1 and state = 'running'`,
          { bind: [id, JSON.stringify(result)] },
        );
      } catch (error) {
        if (left.signal.aborted) return;
        await db.sequelize.query(`update proposal set state = 'failed' where id = $1 and state = 'running'`, {
          bind: [id],
        });
        throw error;
      }
    },

    /**
     * Books what is proposed for some units, all of it or nothing.
     * @throws HttpProblem 409 in words where somebody booked meanwhile
     */
    async accept(id: string, units: readonly string[], asked: Asked): Promise<{ booked: number }> {
      const { result, state } = await row(id);
      if (state !== 'ready' || !result) throw new HttpProblem(409, 'Not ready', 'This plan is not ready');
      const chosen = result.rows.filter((r) => units.includes(r.bookingId ?? r.unit.id));
      if (chosen.length === 0) throw refused('None of these is in this plan', 'units');
      // The time that is promised is free only once the others have moved.
      if (result.promise && chosen.length < result.rows.length)
        throw refused('This is accepted as a whole: the booking and all that moves for it', 'units');
      const changes = chosen.map((r): Change => {
        const { bayId, people, from, until } = r.to;
        const to = { bayId, people, from, until, tools: r.tools };
        const booking = { ...to, unitId: r.unit.id, jobId: r.jobId, works: r.works ?? [], note: '' };
        return r.bookingId !== null && r.seenVersion !== null
          ? { id: r.bookingId, command: { kind: 'move', to }, booking, expected: r.seenVersion }
          : { id: randomUUID(), command: { kind: 'book', booking }, booking };
      });
      await bookings.changeAll(changes, asked);
      return { booked: changes.length };
    },
  };
}
export type ProposalsService = ReturnType<typeof proposalsService>;
