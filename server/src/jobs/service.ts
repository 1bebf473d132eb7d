import { randomUUID } from 'node:crypto';
import { Op, QueryTypes, Transaction, UniqueConstraintError } from 'sequelize';
import type { z } from 'zod';
import {
  JOBS_A_PAGE,
  type JobDetail,
  type JobSummary,
  type openJobSchema,
  type postEventSchema,
} from '@lanternwright/contract/jobs';
import type { Person } from '@lanternwright/contract/people';
import { axleIndex, type Axle } from '@lanternwright/core/axle-plan';
import { stackOfSheet } from '@lanternwright/core/procedure';
import {
  append,
  decide,
  decideOpening,
  fold,
  sayEvent,
  type Actor,
  type BodyOf,
  type Command,
  type Job,
  type StoredEvent,
  upcast,
  makersFigures,
  wheelEndAt,
} from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import type { FleetService } from '../fleet/service.ts';
import { HttpProblem, notFound, refused } from '../http/problem.ts';
import { ownOnly, seesOwner, type Viewer } from '../http/viewer.ts';
import type { SumsService } from '../reckoner/sums.ts';
import type { Clock } from '../shop/clock.ts';
import { proveReckoning } from './kept-reckoning.ts';
import type { PhotosService } from './photos.ts';
import type { ToolsService } from '../tools/service.ts';
import { eventsOf, store } from './record.ts';

interface Neighbours {
  fleet: FleetService;
  photos: PhotosService;
  tools: ToolsService;
  sums: SumsService;
}

const actorOf = ({ id, name, role }: Person): Actor => ({ id, name, role });

const constraintOf = (error: UniqueConstraintError) => (error.parent as { constraint?: string }).constraint;

const usedId = () => refused('This id was used for a record of another job', 'id');

/** An owner's contact answers in their own name. */
function ownWords(command: Command, { name, role }: Person): Command {
  return command.kind === 'owner-answered' && role === 'owner-contact' ? { ...command, name } : command;
}

/** The newest release of each wheel end of a unit from its other jobs, but for those struck out since. */
const lastReleases = `
  select distinct on (e.body ->> 'position') e.at, e.by, e.body
  from job j join job_event e on e.job_id = j.id
  where j.unit_id = :unitId and j.id <> :jobId and e.body ->> 'kind' = 'wheel-end-released'
    and not exists (
      select 1 from job_event c where c.job_id = j.id and c.body ->> 'corrects' = e.id ::text
    )
  order by e.body ->> 'position', e.at desc`;

const unitInclude = (db: Database) => [
  {
    model: db.unit,
    as: 'unit',
    include: [
      { model: db.owner, as: 'owner' },
      { model: db.axle, as: 'axles' },
    ],
  },
];

/** Opening jobs, recording on them, reading them. */
export function jobsService(db: Database, { fleet, photos, tools, sums }: Neighbours, clock: Clock) {
  async function detail(id: string, viewer: Viewer, transaction?: Transaction): Promise<JobDetail> {
    const row = await db.job.findByPk(id, { include: unitInclude(db), transaction });
    if (!row?.unit?.owner || !seesOwner(viewer, row.unit.owner.id)) throw notFound('job');
    const { unit } = row;
    const axles = [...(unit.axles ?? [])].sort((a, b) => a.number - b.number);
    return {
      number: row.number,
      unit: {
        id: unit.id,
        name: unit.name,
        kind: unit.kind,
        owner: { id: unit.owner!.id, name: unit.owner!.name },
        axles: axles.map(({ role, wheels }) => ({ role, wheels })),
      },
      before: (await fleet.readings(unit.id, transaction)).filter((r) => r.jobId !== id),
      releasedBefore: await releasedBefore(unit.id, id, transaction),
      events: await eventsOf(db, id, transaction),
    };
  }

  async function releasedBefore(
    unitId: string,
    jobId: string,
    transaction?: Transaction,
  ): Promise<JobDetail['releasedBefore']> {
    const rows = await db.sequelize.query<{ at: Date; by: Actor; body: BodyOf<'wheel-end-released'> }>(
      lastReleases,
      { type: QueryTypes.SELECT, replacements: { unitId, jobId }, transaction },
    );
    return rows.map(({ at, by, body: stored }) => {
      const body = upcast(stored) as BodyOf<'wheel-end-released'>;
      return {
        position: body.position,
        at: at.toISOString(),
        by: by.name,
        overridden: body.overridden,
        overrideReason: body.overrideReason ?? null,
      };
    });
  }

  /** Not for key: rows that refer to the unit are written meanwhile, under the lock of the chain. */
  const lockUnit = (id: string, transaction: Transaction) =>
    db.unit.findByPk(id, { transaction, lock: Transaction.LOCK.NO_KEY_UPDATE });

  async function seesUnit(unitId: string, viewer: Viewer): Promise<boolean> {
    const unit = await db.unit.findByPk(unitId, { attributes: ['ownerId'] });
    return unit !== null && seesOwner(viewer, unit.ownerId);
  }

  /** @throws HttpProblem 422 when the id was used meanwhile, on another job */
  async function storeOnce(job: Job, event: StoredEvent, transaction: Transaction): Promise<void> {
    try {
      await store(db, job, event, transaction);
    } catch (error) {
      // Under row-level security PostgreSQL does not say which key it was, only which constraint.
      if (error instanceof UniqueConstraintError && constraintOf(error) === 'job_event_id_key')
        throw usedId();
      throw error;
    }
  }

  /** What others recorded since the sender looked, on the wheel end it is about, as one sentence. */
  function whatChanged(job: Job, seenVersion: number, reason: string, by: Person, command: Command): string {
    const at = 'position' in command ? command.position : undefined;
    const since = job.events.filter(
      ({ version, body, by: who }) =>
        version > seenVersion &&
        who.id !== by.id &&
        (at === undefined || !('position' in body) || body.position === at),
    );
    const last = since.at(-1);
    if (!last) return `${reason}. What you sent was not recorded.`;
    const more = since.length > 1 ? `, the last of ${since.length} records` : '';
    return `${last.by.name} was first${more}: ${sayEvent(job, last)}. ${reason}. What you sent was not recorded.`;
  }

  /** A release that is struck out opens its wheel end again: not while another job works on it. */
  async function holdPosition(job: Job, command: Command, transaction: Transaction): Promise<void> {
    const struck = command.kind === 'correction' && job.events.find((e) => e.id === command.corrects)?.body;
    if (!struck || struck.kind !== 'wheel-end-released') return;
    const { position } = struck;
    const held = await db.wheelEnd.findOne({ where: { unitId: job.unitId, position }, transaction });
    if (held?.openJobId && held.openJobId !== job.id)
      throw refused(`${position} is in another open job by now`, 'command');
  }

  /** A meter put right at intake is put right in the unit's own history as well. */
  async function followCorrection(
    before: Job,
    { body }: StoredEvent,
    transaction: Transaction,
  ): Promise<void> {
    if (body.kind !== 'correction' || body.replacement?.kind !== 'intake') return;
    await fleet.correctMeter(
      before.unitId,
      before.opened.at,
      before.meter,
      body.replacement.meter,
      transaction,
    );
  }

  /** What the maker's sheet said where the shop's had nothing becomes the axle's own, signed with the release. */
  async function keepMakersFigures(job: Job, { body }: StoredEvent, transaction: Transaction): Promise<void> {
    if (body.kind !== 'wheel-end-released') return;
    const released = wheelEndAt(job, body.position)!;
    await fleet.fillSheet(
      { unitId: job.unitId, axle: axleIndex(body.position) + 1, sheetId: released.sheet.sheetId },
      makersFigures(released),
      transaction,
    );
  }

  type Wanted = z.output<typeof openJobSchema>['wheelEnds'][number];

  /** The wheel end as its axle has it now, with how it is built and what is wanted of it. */
  function wheelEndFrom(axles: readonly Axle[], { position, works, alreadyOff, together }: Wanted) {
    const axle = axles[axleIndex(position)];
    if (!axle) throw refused(`The unit has no wheel end ${position}`, 'wheelEnds');
    const { sheet, role } = axle;
    const stack = stackOfSheet(sheet, axle);
    if (!stack)
      throw refused(`Nobody has said how ${position} is built: its sheet has no stack`, 'wheelEnds');
    const route = { rules: 1 as const, stack: [...stack], works, alreadyOff, together };
    return { position, sheet, axle: role, route };
  }

  return {
    detail,

    async list(status: 'open' | 'closed', page: number, viewer: Viewer): Promise<JobSummary[]> {
      const rows = await db.job.findAll({
        where: { closedAt: status === 'open' ? null : { [Op.ne]: null } },
        order: [
          ['openedAt', 'DESC'],
          ['number', 'DESC'],
        ],
        limit: JOBS_A_PAGE,
        offset: (page - 1) * JOBS_A_PAGE,
        include: [
          {
            model: db.unit,
            as: 'unit',
            required: true,
            where: ownOnly(viewer),
            include: [{ model: db.owner, as: 'owner' }],
          },
        ],
      });
      return rows.map((r) => ({
        id: r.id,
        number: r.number,
        title: r.title,
        unit: {
          id: r.unitId,
          name: r.unit!.name,
          kind: r.unit!.kind,
          owner: { id: r.unit!.owner!.id, name: r.unit!.owner!.name },
        },
        openedAt: r.openedAt.toISOString(),
        closedAt: r.closedAt?.toISOString() ?? null,
        wheelEnds: r.wheelEnds,
        stopped: r.stopped,
        estimate: r.estimate,
      }));
    },

    async open(
      input: z.output<typeof openJobSchema>,
      { person }: Viewer,
    ): Promise<{ id: string; number: number }> {
      return inTransaction(db, async (transaction) => {
        const unit = await lockUnit(input.unitId, transaction);
        if (!unit) throw notFound('unit');
        const axles = await fleet.axles(unit.id, transaction);
        const { wheelEnds, ...rest } = input;
        const positions = wheelEnds.map((w) => w.position);
        const decision = decideOpening({
          kind: 'job-opened',
          ...rest,
          wheelEnds: [...wheelEnds]
            .sort((a, b) => (a.position < b.position ? -1 : 1))
            .map((w) => wheelEndFrom(axles, w)),
        });
        if (!decision.ok) throw refused(decision.reason, 'wheelEnds');
        const busy = await db.wheelEnd.findAll({
          where: { unitId: unit.id, position: positions },
          transaction,
        });
        const taken = busy.find((w) => w.openJobId !== null);
        if (taken) throw refused(`${taken.position} is in an open job already`, 'wheelEnds');
        const id = randomUUID();
        const at = clock.now();
        const row = await db.job.create(
          {
            id,
            unitId: unit.id,
            title: input.title,
            version: 0,
            openedAt: at,
            closedAt: null,
            wheelEnds: [],
          },
          { transaction },
        );
        const event: StoredEvent = {
          id: randomUUID(),
          jobId: id,
          version: 1,
          at: at.toISOString(),
          by: actorOf(person),
          body: decision.event,
        };
        await store(db, fold([event]), event, transaction);
        await fleet.recordMeter(unit.id, clock.today(), input.meter, transaction);
        return { id, number: row.number };
      });
    },

    /**
     * Records a command. The sender's id makes it safe to send again: the stored event is returned.
     * A command that no longer fits is answered 409 with the fresh job; one that never did, 422.
     */
    async record(
      jobId: string,
      input: z.output<typeof postEventSchema>,
      viewer: Viewer,
    ): Promise<StoredEvent> {
      const { person } = viewer;
      const about = await db.job.findByPk(jobId, { attributes: ['unitId'] });
      if (!about || !(await seesUnit(about.unitId, viewer))) throw notFound('job');
      const command = await proveReckoning(ownWords(input.command, person), sums, person.id);
      await photos.prove(jobId, command);
      return inTransaction(db, async (transaction) => {
        // The unit first, always: which job has a wheel end open is decided by one at a time.
        await lockUnit(about.unitId, transaction);
        const row = await db.job.findByPk(jobId, { transaction, lock: Transaction.LOCK.NO_KEY_UPDATE });
        if (!row) throw notFound('job');
        const job = fold(await eventsOf(db, jobId, transaction));
        const stored = job.events.find((e) => e.id === input.id);
        if (stored) return stored;
        if (await db.jobEvent.count({ where: { id: input.id }, transaction })) throw usedId();
        await tools.prove(command, job, transaction);
        const decision = decide(job, command, {
          by: actorOf(person),
          today: clock.today(),
          now: clock.now().toISOString(),
        });
        if (!decision.ok) {
          if (input.seenVersion >= job.version) throw refused(decision.reason, 'command');
          throw new HttpProblem(
            409,
            'The job has moved on',
            whatChanged(job, input.seenVersion, decision.reason, person, command),
            {
              extra: { job: await detail(jobId, viewer, transaction) },
            },
          );
        }
        await holdPosition(job, command, transaction);
        const event: StoredEvent = {
          id: input.id,
          jobId,
          version: job.version + 1,
          at: clock.now().toISOString(),
          by: actorOf(person),
          body: decision.event,
        };
        const after = append(job, event);
        await storeOnce(after, event, transaction);
        await followCorrection(job, event, transaction);
        await keepMakersFigures(after, event, transaction);
        return event;
      });
    },
  };
}
export type JobsService = ReturnType<typeof jobsService>;
