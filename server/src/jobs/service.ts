import { randomUUID } from 'node:crypto';
import { Op, QueryTypes, Transaction } from 'sequelize';
import type { z } from 'zod';
import {
  JOBS_A_PAGE,
  type JobDetail,
  type joinJobSchema,
  type openJobSchema,
  type postEventSchema,
} from '@lanternwright/contract/jobs';
import type { Person } from '@lanternwright/contract/people';
import { sideSchema } from '@lanternwright/core/assembly';
import { axleAt, axleNumber, type PlacedAxle } from '@lanternwright/core/axle-plan';
import { stackOfSheet } from '@lanternwright/core/procedure';
import {
  append,
  beganCorrected,
  decide,
  decideJoining,
  decideOpening,
  deferredWorks,
  fold,
  describeEvent,
  describeRefusal,
  type Refusal,
  type Actor,
  type Command,
  type Job,
  type StoredEvent,
  type WheelEnd,
  lastVerdict,
  makersFigures,
  wheelEndAt,
  wheelEndEver,
} from '@lanternwright/core/traveller';
import { sameJson, servicesOf, type ServiceRow } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { prepared } from '../database/prepared.ts';
import type { FleetService } from '../fleet/service.ts';
import { HttpProblem, notFound, refused } from '../http/problem.ts';
import { JsonText } from '../http/serve.ts';
import { personOf, seesOwner, type Viewer } from '../http/viewer.ts';
import type { SumsService } from '../reckoner/sums.ts';
import type { Clock } from '../shop/clock.ts';
import { refreshDue } from '../plan/refresh-due.ts';
import { MovedOn } from '../record/append.ts';
import type { BookingsService } from '../plan/bookings.ts';
import type { PartsKeeper } from '../stores/keeping.ts';
import { insertRows } from '../record/insert-rows.ts';
import type { SealsService } from '../record/seals.ts';
import { jobsBefore } from './before.ts';
import { CLOSED_JOBS, OPEN_JOBS } from './job-lines.ts';
import { isInLaterJob, nextOn } from './next-on.ts';
import { verifyReckoning } from './recorded-reckoning.ts';
import type { PhotosService } from './photos.ts';
import type { ToolsService } from '../tools/service.ts';
import { eventsOf, foldedJobs, store, type Folded, type Projected } from './record.ts';

/** By whom, and when, something is asked. */
type Asked = Pick<StoredEvent, 'by' | 'at'>;

/** Others on the same job can be first this often; then somebody is told. */
const MOST_TRIES = 12;

interface Neighbours {
  seals: SealsService;
  fleet: FleetService;
  photos: PhotosService;
  tools: ToolsService;
  sums: SumsService;
  keeper: Pick<PartsKeeper, 'soon'>;
  bookings: Pick<BookingsService, 'openJobFor'>;
}

export const actorOf = ({ id, name, role }: Person): Actor => ({ id, name, role });

/** An owner's contact answers in their own name. */
function ownWords(command: Command, { name, role }: Person): Command {
  return command.kind === 'owner-answered' && role === 'owner-contact' ? { ...command, name } : command;
}

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

/** A command that the job does not take. */
const notTaken = (refusal: Refusal, job: Job | null, path: string) =>
  refused(describeRefusal(refusal, job), path, { code: refusal.code });

/** Opening jobs, recording on them, reading them. */
export function jobsService(
  db: Database,
  { fleet, photos, tools, sums, seals, keeper, bookings }: Neighbours,
  clock: Clock,
) {
  const folded = foldedJobs(db);

  async function detail(id: string, viewer: Viewer): Promise<JobDetail> {
    const row = await db.job.findByPk(id, { include: unitInclude(db) });
    if (!row?.unit?.owner || !seesOwner(viewer, row.unit.owner.id)) throw notFound('job');
    const { unit, wheelEnds } = row;
    const own = new Set(wheelEnds.map((w) => w.axleId));
    const numbers = new Set(wheelEnds.map((w) => axleNumber(w.position)));
    // The axles as this job knows them; besides, those that stand under the unit now.
    const axles = (unit.axles ?? [])
      .filter((a) => own.has(a.id) || (a.takenOutAt === null && !numbers.has(a.number)))
      .sort((a, b) => a.number - b.number);
    const known = new Set([...own, ...axles.map((a) => a.id)]);
    const readings = await fleet.readings(unit.id, [...known]);
    const seen = folded.known(id)?.job;
    // What was recorded here last is not read and checked anew, as long as it is the last.
    const events = seen?.version === row.version ? seen.events : await eventsOf(db, id);
    return {
      number: row.number,
      unit: {
        id: unit.id,
        name: unit.name,
        kind: unit.kind,
        owner: { id: unit.owner!.id, name: unit.owner!.name },
        axles: axles.map(({ number, role, wheels }) => ({ number, role, wheels })),
      },
      before: readings.filter((r) => r.jobId !== id),
      ...(await jobsBefore(db, unit.id, id, own)),
      events: [...events],
    };
  }

  /** Not for key: rows that refer to the unit are written meanwhile, under the lock of the chain. */
  const lockUnit = (id: string, transaction: Transaction) =>
    db.unit.findByPk(id, { transaction, lock: Transaction.LOCK.NO_KEY_UPDATE });

  async function nextNumber(): Promise<number> {
    const [row] = await db.sequelize.query<{ number: number }>(
      `select nextval(pg_get_serial_sequence('job', 'number'))::int as number`,
      { type: QueryTypes.SELECT },
    );
    return row!.number;
  }

  /** What others recorded since the sender looked, on the wheel end it is about, as one sentence. */
  function whatChanged(job: Job, seenVersion: number, reason: string, by: Actor, command: Command): string {
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
    return `${last.by.name} was first${more}: ${describeEvent(job, last, null)}. ${reason}. What you sent was not recorded.`;
  }

  /**
   * A release that is struck out opens its wheel end again, and so does work on one that was left out: not while another
   * job works on it.
   */
  async function holdPosition(job: Job, command: Command): Promise<void> {
    const out = 'position' in command && job.leftOut.find((w) => w.position === command.position);
    if (out) await heldByNoOther(job, out);
    const struck = command.kind === 'correction' && job.events.find((e) => e.id === command.corrects)?.body;
    if (!struck || struck.kind !== 'wheel-end-released') return;
    const { position } = struck;
    await heldByNoOther(job, wheelEndAt(job, position)!);
  }

  async function heldByNoOther(
    job: Job,
    { axleId, position }: Pick<WheelEnd, 'axleId' | 'position'>,
  ): Promise<void> {
    const held = await db.wheelEnd.findOne({ where: { axleId, position } });
    if (held?.openJobId && held.openJobId !== job.id)
      throw refused(`${position} is in another open job by now`, 'command');
  }

  /** A meter put right at intake is put right in the unit's own history as well. */
  async function followCorrection(before: Job, { body, at, by }: StoredEvent): Promise<void> {
    if (body.kind !== 'correction' || body.replacement?.kind !== 'intake') return;
    await fleet.correctMeter(before.unitId, before.opened.at, before.meter, body.replacement.meter, {
      by,
      at,
    });
  }

  /** What the maker's sheet said where the shop's had nothing becomes the axle's own, signed with the release. */
  async function copyMakersFigures(job: Job, { body, at, by }: StoredEvent): Promise<void> {
    if (body.kind !== 'wheel-end-released') return;
    const released = wheelEndAt(job, body.position)!;
    const { axleId, sheet } = released;
    await fleet.fillSheet({ unitId: job.unitId, axleId, sheetId: sheet.sheetId }, makersFigures(released), {
      by,
      at,
    });
  }

  /**
   * What an ended job left is corrected: the next job on that wheel end, open or ended, begins from what it left after
   * all, and so on while that changes what is left.
   */
  async function followOn(before: Projected, after: Projected, asked: Asked): Promise<void> {
    for (const { position, axleId } of after.job.wheelEnds) {
      let [was, is] = [before.rows.job.leaves?.[position] ?? null, after.rows.job.leaves?.[position] ?? null];
      let number = after.rows.job.number ?? 0;
      while (!sameJson(was, is)) {
        const next = await nextOn(db, axleId, position, number);
        const later = next && (await folded.now(next.id));
        if (!next || !later || !wheelEndAt(later.job, position)) break;
        const body = beganCorrected(later.job, { position, began: is }, { by: asked.by, now: asked.at });
        const event = { id: randomUUID(), jobId: next.id, version: later.job.version + 1, ...asked, body };
        const kept = await store(db, append(later.job, event), later);
        folded.keep({ ...kept, ownerId: later.ownerId });
        [was, is] = [later.rows.job.leaves?.[position] ?? null, kept.rows.job.leaves?.[position] ?? null];
        number = next.number;
      }
    }
  }

  type Wanted = z.output<typeof openJobSchema>['wheelEnds'][number];

  /** The wheel end as its axle has it now, with how it is built, what is wanted of it, and what the last job left of it. */
  async function wheelEndFrom(
    axles: readonly PlacedAxle[],
    { position, works, alreadyOff, together }: Wanted,
  ) {
    const axle = axleAt(axles, position);
    if (!axle) throw refused(`The unit has no wheel end ${position}`, 'wheelEnds');
    const { sheet, role } = axle;
    const stack = stackOfSheet(sheet, axle);
    if (!stack)
      throw refused(`The construction of ${position} is not set: its sheet has no stack`, 'wheelEnds');
    const route = { rules: 1 as const, stack: [...stack], works, alreadyOff, together };
    const known = await db.wheelEnd.findOne({ where: { axleId: axle.id, position } });
    const began = known?.assembly ? sideSchema.parse(known.assembly) : undefined;
    return { position, axleId: axle.id, sheet, axle: role, route, ...(began ? { began } : {}) };
  }

  /** An axle is in one open job at a time: what one side shares with the other is known in one place. */
  async function notInAnotherJob(axles: readonly PlacedAxle[]): Promise<void> {
    const taken = await db.wheelEnd.findOne({
      where: { axleId: axles.map((a) => a.id), openJobId: { [Op.not]: null } },
      order: ['position'],
    });
    if (!taken?.openJobId) return;
    const job = await db.job.findByPk(taken.openJobId, { attributes: ['number'], rejectOnEmpty: true });
    throw refused(
      `Axle ${axleNumber(taken.position)} is in open job ${job.number} with ${taken.position}: take the other side into that job`,
      'wheelEnds',
    );
  }

  /** Which works a job has done. */
  async function writeServices({ id }: Job, services: readonly ServiceRow[]): Promise<void> {
    await db.sequelize.query('delete from service_done where job_id = $1', { bind: [id] });
    await insertRows(db, 'service_done', services);
  }

  /** What a wheel end read last, in whatever job. */
  async function lastReadingOf(job: Job, { position }: { position: string }) {
    const axleId = wheelEndEver(job, position)?.axleId;
    const row = axleId ? await db.wheelEnd.findOne({ where: { axleId, position } }) : null;
    return row?.verdict && row.readAt ? { verdict: row.verdict, at: row.readAt.toISOString() } : null;
  }

  /** Records a command on a job as it is known; once, as the next of its records or not at all. */
  async function recordOn(
    before: Folded,
    input: z.output<typeof postEventSchema>,
    viewer: Viewer,
    by: Actor,
  ): Promise<StoredEvent> {
    const person = personOf(viewer);
    const { job, ownerId } = before;
    const command = await verifyReckoning(ownWords(input.command, person), sums, person.id);
    await photos.verify(job.id, command);
    await tools.verify(command, job);
    const at = clock.now().toISOString();
    const read = command.kind === 'follow-up-done' ? { lastReading: await lastReadingOf(job, command) } : {};
    const inLaterJob =
      'position' in command && (await isInLaterJob(db, job, before.rows.job.number ?? 0, command.position));
    const decision = decide(job, command, { by, today: clock.today(), now: at, inLaterJob, ...read });
    if (!decision.ok) {
      if (input.seenVersion >= job.version) throw notTaken(decision.refusal, job, 'command');
      throw new HttpProblem(
        409,
        'The job has moved on',
        whatChanged(job, input.seenVersion, describeRefusal(decision.refusal, job), by, command),
        { extra: { code: decision.refusal.code, job: await detail(job.id, viewer) } },
      );
    }
    const event = { id: input.id, jobId: job.id, version: job.version + 1, at, by, body: decision.event };
    const after = append(job, event);
    const { body } = event;
    const services = servicesOf(after);
    const serviced = !sameJson(services, before.rows.services);
    // What a wheel end read last says whether it is due.
    const leftOut = after.leftOut !== job.leftOut;
    const deferred = !sameJson(deferredWorks(after), before.rows.job.deferred);
    const measured = job.wheelEnds.some((w) => {
      const then = wheelEndEver(after, w.position)!;
      return then !== w && lastVerdict(then)?.result.verdict !== lastVerdict(w)?.result.verdict;
    });
    const dueIsOther = serviced || measured || leftOut || deferred;
    const reachesFurther = dueIsOther || body.kind === 'correction' || body.kind === 'wheel-end-released';
    const now = reachesFurther
      ? await inTransaction(db, async (transaction) => {
          // The unit first, always: which job has a wheel end open is decided by one at a time.
          await lockUnit(job.unitId, transaction);
          await holdPosition(job, command);
          const kept = await store(db, after, before);
          await followCorrection(job, event);
          if (body.kind === 'correction') await followOn(before, kept, { by, at });
          if (serviced) await writeServices(job, services);
          if (dueIsOther) await refreshDue(db, [job.unitId]);
          await copyMakersFigures(after, event);
          if (body.kind === 'wheel-end-released') await seals.seal(kept.link);
          return kept;
        })
      : await store(db, after, before);
    folded.keep({ ...now, ownerId });
    if (body.kind === 'wheel-end-released') await seals.writeFile();
    if (body.kind === 'work-added' || leftOut) keeper.soon();
    return event;
  }

  /** @throws MovedOn where somebody recorded on the job meanwhile */
  async function joinTo(
    before: Folded,
    { id, wheelEnd }: z.output<typeof joinJobSchema>,
    viewer: Viewer,
  ): Promise<StoredEvent> {
    const { job, ownerId } = before;
    const [at, by] = [clock.now().toISOString(), actorOf(personOf(viewer))];
    const kept = await inTransaction(db, async (transaction) => {
      await lockUnit(job.unitId, transaction);
      const opened = await wheelEndFrom(await fleet.axles(job.unitId), wheelEnd);
      const inLaterJob = await isInLaterJob(db, job, before.rows.job.number ?? 0, opened.position);
      const decision = decideJoining(job, opened, { by, today: clock.today(), now: at, inLaterJob });
      if (!decision.ok) throw notTaken(decision.refusal, job, 'wheelEnd');
      await heldByNoOther(job, opened);
      const next = { id, jobId: job.id, version: job.version + 1, at, by, body: decision.event };
      return store(db, append(job, next), before);
    });
    folded.keep({ ...kept, ownerId });
    keeper.soon();
    return kept.job.events.at(-1)!;
  }

  /** Stores one event on a job, once for its id; tried again on the job as it is now where somebody was first. */
  async function onFresh(
    jobId: string,
    eventId: string,
    viewer: Viewer,
    attempt: (before: Folded) => Promise<StoredEvent>,
  ): Promise<StoredEvent> {
    let before = folded.known(jobId) ?? (await folded.now(jobId));
    let fresh = false;
    for (let tries = 1; ; tries++) {
      if (!before || !seesOwner(viewer, before.ownerId)) throw notFound('job');
      const stored = before.job.events.find((e) => e.id === eventId);
      if (stored) return stored;
      try {
        return await attempt(before);
      } catch (error) {
        // What was known here may be behind: what is refused is refused for the job as it is now.
        const again = error instanceof MovedOn ? tries < MOST_TRIES : error instanceof HttpProblem && !fresh;
        if (!again) throw error;
      }
      before = await folded.now(jobId);
      fresh = true;
    }
  }

  return {
    detail,

    /** A page of jobs, newest first; the database writes it as it is sent. */
    async list(
      status: 'open' | 'closed',
      page: number,
      { owners }: Pick<Viewer, 'owners'>,
      from: Database,
    ): Promise<JsonText> {
      const [row] = await prepared<{ page: string }>(
        from,
        `${status}-jobs`,
        status === 'open' ? OPEN_JOBS : CLOSED_JOBS,
        [JOBS_A_PAGE, (page - 1) * JOBS_A_PAGE, owners === 'all' ? null : owners],
      );
      return new JsonText(row!.page);
    },

    async open(
      input: z.output<typeof openJobSchema>,
      viewer: Viewer,
    ): Promise<{ id: string; number: number }> {
      return inTransaction(db, async (transaction) => {
        const unit = await lockUnit(input.unitId, transaction);
        if (!unit) throw notFound('unit');
        const axles = await fleet.axles(unit.id);
        const { wheelEnds, bookingId, ...rest } = input;
        const number = await nextNumber();
        const sorted = [...wheelEnds].sort((a, b) => (a.position < b.position ? -1 : 1));
        const opened = [];
        for (const w of sorted) opened.push(await wheelEndFrom(axles, w));
        const decision = decideOpening({ kind: 'job-opened', number, ...rest, wheelEnds: opened });
        if (!decision.ok) throw notTaken(decision.refusal, null, 'wheelEnds');
        await notInAnotherJob(
          axles.filter((a) => wheelEnds.some((w) => axleNumber(w.position) === a.number)),
        );
        const [id, now] = [randomUUID(), clock.now()];
        const [at, by] = [now.toISOString(), actorOf(personOf(viewer))];
        await db.job.create({
          id,
          number,
          unitId: unit.id,
          title: input.title,
          version: 0,
          openedAt: now,
          closedAt: null,
          wheelEnds: [],
        });
        await store(
          db,
          fold([{ id: randomUUID(), jobId: id, version: 1, at, by, body: decision.event }]),
          null,
        );
        await fleet.recordMeter(unit.id, clock.today(), input.meter, 'job', { by, at });
        if (bookingId) await bookings.openJobFor(bookingId, { jobId: id, unitId: unit.id }, { by, at });
        return { id, number };
      });
    },

    /** Takes the other side of an axle of a job into it, as its axle has it now; once for the sender's id. */
    join: (jobId: string, input: z.output<typeof joinJobSchema>, viewer: Viewer): Promise<StoredEvent> =>
      onFresh(jobId, input.id, viewer, (before) => joinTo(before, input, viewer)),

    /**
     * Records a command. The sender's id makes it safe to send again: the stored event is returned.
     * A command that no longer fits is answered 409 with the fresh job; one that never did, 422.
     * @param by whose record it is, where that is not the sender's own
     */
    record: (
      jobId: string,
      input: z.output<typeof postEventSchema>,
      viewer: Viewer,
      by: Actor = actorOf(personOf(viewer)),
    ): Promise<StoredEvent> =>
      onFresh(jobId, input.id, viewer, (before) => recordOn(before, input, viewer, by)),
  };
}
export type JobsService = ReturnType<typeof jobsService>;
