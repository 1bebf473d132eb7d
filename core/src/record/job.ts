import {
  AS_FOUND,
  append,
  decide,
  decideOpening,
  deferredWorks,
  describeYardOnly,
  fold,
  inSpiteOfPlay,
  isClosed,
  lackedLines,
  lastTrace,
  lastVerdict,
  meterKm,
  openQuestions,
  progressOf,
  readingsOf,
  stageAtHand,
  stageMinutes,
  stageStates,
  describeRefusal,
  stepAtHand,
  upcast,
  verdictOf,
  whatIsLeft,
  wheelEndsEver,
  worksWanted,
  type Command,
  type DecideContext,
  type DeferredWork,
  type EventBody,
  type FollowUpKind,
  type Job,
  type JobOpened,
  type StoredEvent,
  type WheelEnd,
} from '../traveller/index.ts';
import type { StoredSide } from '../assembly/index.ts';
import type { Verdict } from '../end-play/index.ts';
import type { Work } from '../stack/index.ts';
import type { Stage } from '../procedure/index.ts';
import { begun, refuse, StreamError, type Aggregate } from './aggregate.ts';
import type { Entry, Recorder } from './entry.ts';

/** What is asked of a job: that it opens, or something on it, by somebody on a day. */
export type JobCommand =
  { kind: 'open'; opening: JobOpened } | { kind: 'record'; command: Command; context: DecideContext };

/** Where one wheel end of a job stands, for lists. */
interface Stand {
  position: string;
  stage: Stage;
  released: boolean;
  /** Why its release does not hold any more; null where it does, or there is none. */
  inDoubt: string | null;
  /** Why it stays in the yard though it is released; null where it does not. */
  yardOnly: string | null;
  waitsForRelease: boolean;
  trouble: string | null;
  who: string | null;
  asks: ReturnType<typeof openQuestions>;
  /** What was ordered or missing when it was looked for last. */
  lacks: { title: string; by: string | null }[];
  /** What was sealed has to cure before it goes on. */
  cures: boolean;
  works: readonly Work[];
  /** Which part of its steps is not done yet, 0 to 1. */
  left: number;
}

/** One settled set of readings of a wheel end. */
export interface ReadingRow {
  jobId: string;
  position: string;
  round: number;
  unitId: string;
  axleId: string;
  endPlayMm: number;
  rangeMm: number;
  cycles: number;
  verdict: Verdict;
  /** ISO 8601. */
  at: string;
  byName: string;
  km: number | null;
  /** The last of its job: what the wheel end left with. */
  final: boolean;
}

/** What is to be looked after once a wheel end is out. */
export interface FollowUpRow {
  jobId: string;
  position: string;
  unitId: string;
  axleId: string;
  kind: 'retorque' | FollowUpKind;
  nth: number;
  what: string;
  fromKm: number | null;
  byKm: number | null;
  byHours: number | null;
  byDate: string;
  doneAt: string | null;
  /** Whether a reading in band, in whatever job, is what it asks for. */
  wantsReading: boolean;
}

/** Which works a job has done on a wheel end, and when it was released. */
export interface ServiceRow {
  jobId: string;
  position: string;
  unitId: string;
  axleId: string;
  date: string;
  works: readonly Work[];
  /** Measured, breaks left out. */
  minutes: number;
}

export interface JobRows {
  job: {
    unitId: string;
    /** Null where its opening does not name it. */
    number: number | null;
    title: string;
    openedAt: string;
    version: number;
    closedAt: string | null;
    stopped: { as: 'held' | 'void' | 'out-of-service'; reason: string } | null;
    estimate: 'none' | 'asks' | 'answered';
    wheelEnds: (Stand & { axleId: string })[];
    /** What it leaves of the metal, by position; null while it is open. */
    leaves: Record<string, StoredSide | null> | null;
    /** What its owner wants done later. */
    deferred: DeferredWork[];
  };
  readings: ReadingRow[];
  followUps: FollowUpRow[];
  services: ServiceRow[];
}

/** A wheel end that nothing was recorded on stays the same object, and stands as it stood. */
const stands = new WeakMap<WheelEnd, Stand & { axleId: string }>();

function standOf(w: WheelEnd): Stand & { axleId: string } {
  const known = stands.get(w);
  if (known) return known;
  const stand = reckonStand(w);
  stands.set(w, stand);
  return stand;
}

function partLeft(w: WheelEnd): number {
  if (w.release !== null) return 0;
  const steps = progressOf(w);
  return steps.length === 0 ? 1 : steps.filter((p) => p.record === null).length / steps.length;
}

function reckonStand(w: WheelEnd): Stand & { axleId: string } {
  const states = stageStates(w);
  const troubled = Object.entries(states).find(([, state]) => state === 'trouble')?.[0];
  const verdict = lastVerdict(w)?.result.verdict;
  const outOfBand = states.verify === 'trouble' && (verdict === 'loose' || verdict === 'tight');
  return {
    position: w.position,
    axleId: w.axleId,
    stage: stageAtHand(w),
    released: w.release !== null,
    inDoubt: w.release?.inDoubt?.reason ?? null,
    yardOnly: describeYardOnly(w),
    waitsForRelease: w.release === null && stepAtHand(w) === null,
    trouble: outOfBand ? verdict : (troubled ?? null),
    who: lastTrace(w)?.by.name ?? null,
    asks: openQuestions(w),
    lacks: w.release === null ? lackedLines(w).map(({ title, by }) => ({ title, by })) : [],
    cures: stepAtHand(w)?.kind === 'cure',
    works: w.plan.works,
    left: partLeft(w),
  };
}

function readingRows(job: Job, w: WheelEnd): ReadingRow[] {
  const rows = [AS_FOUND, ...w.rounds.map((r) => r.number)].flatMap((number) => {
    const result = verdictOf(w, number);
    const last = readingsOf(w, number).at(-1);
    if (!result || !last) return [];
    return [
      {
        jobId: job.id,
        position: w.position,
        round: number,
        unitId: job.unitId,
        axleId: w.axleId,
        endPlayMm: result.endPlayMm,
        rangeMm: result.rangeMm,
        cycles: result.cyclesMm.length,
        verdict: result.verdict,
        at: last.at,
        byName: last.by.name,
        km: meterKm(job.meter),
      },
    ];
  });
  return rows.map((row, i) => ({ ...row, final: i === rows.length - 1 }));
}

function followUpRows(job: Job, w: WheelEnd): FollowUpRow[] {
  if (!w.release) return [];
  const { followUp } = w.release;
  const on = {
    ...{ jobId: job.id, position: w.position, unitId: job.unitId, axleId: w.axleId },
    ...{ byHours: null, wantsReading: false },
  };
  const others = w.release.alsoDue.map((f, i, all) => {
    const nth = all.slice(0, i).filter((x) => x.kind === f.kind).length;
    const done = w.followUpsDone.find((d) => d.followUp === f.kind && d.nth === nth);
    const wantsReading = f.kind === 'temporary' && inSpiteOfPlay(w);
    return { ...on, ...f, nth, fromKm: null, byKm: null, doneAt: done?.at ?? null, wantsReading };
  });
  if (!followUp) return others;
  const doneAt = w.retorque?.at ?? null;
  return [{ ...on, kind: 'retorque', what: '', nth: 0, ...followUp, doneAt }, ...others];
}

/** What was done of the works on a wheel end: not what its owner did not want now. */
function serviceRows(job: Job, w: WheelEnd): ServiceRow[] {
  if (!w.release) return [];
  // A job of the first build says nothing of works: what it ends with is a check.
  const works = w.firstBuild ? (['check'] as const) : worksWanted(w);
  const { id: jobId, unitId } = job;
  return [
    {
      jobId,
      position: w.position,
      unitId,
      axleId: w.axleId,
      date: w.release.at.slice(0, 10),
      works: [...works],
      minutes: Math.round(Object.values(stageMinutes(job, w)).reduce((s, m) => s + m, 0)),
    },
  ];
}

/** Which works a job has done, for each wheel end that is released. */
export const servicesOf = (job: Job): ServiceRow[] => job.wheelEnds.flatMap((w) => serviceRows(job, w));

function closedAt(job: Job): string | null {
  if (!isClosed(job)) return null;
  // Leaving out what is not done can be what closes it.
  const releases = wheelEndsEver(job).map((w) => (w.release ?? w.leftOut)?.at ?? '');
  return job.stopped?.at ?? releases.sort().at(-1)!;
}

function estimateOf({ money }: Job): JobRows['job']['estimate'] {
  if (!money.estimate) return 'none';
  return money.answer ? 'answered' : 'asks';
}

/** A record of a job as the traveller takes it. @throws StreamError for one the program made */
export function toStoredEvent({ id, streamId, version, at, by, body }: Entry<EventBody>): StoredEvent {
  const { role, sentBy } = by;
  if (role === 'program') throw new StreamError('A job is recorded on by people');
  const person = { id: by.id, name: by.name, role, ...(sentBy ? { sentBy } : {}) };
  return { id, jobId: streamId, version, at, by: person, body };
}

/** The entry that a traveller's event stands in. */
export function entryOf({ jobId, ...event }: StoredEvent): Entry<EventBody> & { by: Recorder } {
  return { ...event, stream: 'job', streamId: jobId };
}

/** A job: its whole traveller, and the rows that lists and figures keep of it. */
export const jobAggregate: Aggregate<Job, JobCommand, EventBody, JobRows> = {
  stream: 'job',
  upcast,

  decide(state, command) {
    if (command.kind === 'open' && state) return refuse('The job is open already');
    const decision =
      command.kind === 'open'
        ? decideOpening(command.opening)
        : decide(begun(state, 'job'), command.command, command.context);
    return decision.ok
      ? { ok: true, bodies: [decision.event] }
      : refuse(describeRefusal(decision.refusal, state));
  },

  fold(state, entry) {
    const event = toStoredEvent(entry);
    return state ? append(state, event) : fold([event]);
  },

  foldAll: (entries) => fold(entries.map(toStoredEvent)),

  project: (job) => ({
    job: {
      unitId: job.unitId,
      number: job.number,
      title: job.title,
      openedAt: job.opened.at,
      version: job.version,
      closedAt: closedAt(job),
      stopped: job.stopped && { as: job.stopped.as, reason: job.stopped.reason },
      estimate: estimateOf(job),
      wheelEnds: job.wheelEnds.map(standOf),
      leaves: isClosed(job)
        ? Object.fromEntries(job.wheelEnds.map((w) => [w.position, whatIsLeft(job, w)]))
        : null,
      deferred: deferredWorks(job),
    },
    readings: wheelEndsEver(job).flatMap((w) => readingRows(job, w)),
    followUps: job.wheelEnds.flatMap((w) => followUpRows(job, w)),
    services: servicesOf(job),
  }),
};
