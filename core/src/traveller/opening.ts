import {
  asItCame,
  breakClosures,
  buildDifferently,
  unknownSide,
  wasPinOut,
  type Mark,
  type Side,
} from '../assembly/index.ts';
import { axleNumber, firstAxleId, oppositeOf } from '../axle-plan/index.ts';
import { sharedSteps } from '../route/index.ts';
import { layerOf, reachOf, worksOf } from '../stack/index.ts';
import type { BodyOf, StoredEvent, WheelEndOpened } from './event.ts';
import { procedureOf } from './first-build.ts';
import { FoldError } from './fold-error.ts';
import { knowEachOther } from './leave-out.ts';
import { oneOfAKind } from './one-of-a-kind.ts';
import { wheelEndAt, type Job, type Plan, type Round, type WheelEnd } from './job.ts';

/** A job as it was opened. @throws FoldError where nobody knows its procedure */
export function openJob(event: StoredEvent, body: BodyOf<'job-opened'>): Job {
  const { unitId, title, complaint, reportedBy, meter, symptoms } = body;
  return {
    id: event.jobId,
    number: body.number ?? null,
    unitId,
    title,
    complaint,
    reportedBy,
    meter,
    symptoms,
    stopped: null,
    money: { estimate: null, answer: null, actual: null },
    opened: { at: event.at, by: event.by },
    version: event.version,
    wheelEnds: knowEachOther(body.wheelEnds.map((w) => beginWheelEnd(event, unitId, w, symptoms))),
    leftOut: [],
    events: [event],
  };
}

/** A wheel end as the job takes it over: from its opening, or where it joins. */
function beginWheelEnd(
  event: StoredEvent,
  unitId: string,
  read: WheelEndOpened,
  symptoms: Job['symptoms'],
): WheelEnd {
  const sheet = oneOfAKind(read.sheet);
  const opened = { ...read, sheet };
  const { position, axle } = opened;
  const firstBuild = procedureOf(opened);
  if (firstBuild === undefined) throw new FoldError(`${position} has a procedure that nobody knows`);
  const plan = planOf(opened);
  return {
    position,
    axleId: opened.axleId ?? firstAxleId(unitId, axleNumber(position)),
    axle,
    sheet,
    plan,
    firstBuild,
    ...sideOf(event, opened, plan),
    withOther: false,
    notCounted: {},
    rounds: [{ ...firstRound, seq: setsNut(plan) ? 0 : -1 }],
    records: [],
    readings: [],
    reckonings: [],
    photos: [],
    symptoms,
    widened: null,
    answered: [],
    decisions: [],
    followUpsDone: [],
    release: null,
    lapsed: null,
    retorque: null,
    leftOut: null,
  };
}

/** What is wanted of a wheel end as the job begins; of one of the first build, which is only read, nothing. */
function planOf({ route }: WheelEndOpened): Plan {
  const { stack = [], works = [], alreadyOff = [], together = false } = route ?? {};
  return {
    ...{ stack: oneOfAKind(stack), works, alreadyOff, together },
    ...{ addedAt: {}, wishes: [], unwanted: [], received: [] },
  };
}

/** The other side joins, as the record has it, with what was done to what both share. */
export function joinJob(job: Job, event: StoredEvent, opened: WheelEndOpened): Job {
  const { position } = opened;
  if (wheelEndAt(job, position)) throw new FoldError(`${position} is in this job already`);
  const was = job.leftOut.find((w) => w.position === position);
  const begun = beginWheelEnd(event, job.unitId, opened, []);
  const joined = was ? takenBack(begun, was) : begun;
  const other = wheelEndAt(job, oppositeOf(position));
  const mark = { seq: event.version, eventId: event.id, jobId: job.id, at: event.at, by: event.by.name };
  const side = other ? shareAxle(joined.side, other.side, mark) : joined.side;
  const shared = other?.records.filter((r) => isShared(r.stepId)) ?? [];
  const wheelEnds = [...job.wheelEnds, { ...joined, side, records: [...joined.records, ...shared] }];
  const leftOut = job.leftOut.filter((w) => w !== was);
  return { ...job, version: event.version, wheelEnds: knowEachOther(wheelEnds), leftOut };
}

/** A wheel end that was left out is in the job again, with what was read and seen on it before. */
function takenBack(begun: WheelEnd, was: WheelEnd): WheelEnd {
  const { symptoms, records, readings, reckonings, photos, answered, decisions, notCounted } = was;
  const { received, unwanted } = was.plan;
  return {
    ...{ ...begun, symptoms, records, readings, reckonings, photos, answered, decisions, notCounted },
    plan: { ...begun.plan, received, unwanted: unwanted.filter((u) => !begun.plan.works.includes(u.work)) },
  };
}

/** What is done once for both sides: cover, oil, and the bolt of the pin. */
const isShared = (stepId: string): boolean => sharedSteps.has(stepId) || stepId === 'pin-bolt';

/** What both sides of an axle share, as the other side has it: its cover and oil, and the pin that holds both clips. */
function shareAxle(side: Side, other: Side, mark: Mark): Side {
  if (!layerOf(side.stack, 'axle')) return side;
  const of = <V>(record: Readonly<Record<string, V>>) =>
    Object.fromEntries(Object.entries(record).filter(([id]) => isShared(id)));
  const axle = other.layers.axle;
  const shared: Side = {
    ...side,
    layers: { ...side.layers, ...(axle ? { axle } : {}) },
    made: { ...side.made, ...of(other.made) },
    broken: { ...side.broken, ...of(other.broken) },
    skipped: { ...side.skipped, ...of(other.skipped) },
  };
  if (!wasPinOut(other)) return shared;
  return other.made['pin-bolt'] ? shared : breakClosures(shared, ['pin-bolt'], mark);
}

const firstRound: Omit<Round, 'seq'> = {
  number: 1,
  from: 'start',
  turns: null,
  predictedMm: null,
  wasLocked: false,
  secured: false,
};

/** Whether the works set the nut: then nothing counts that an earlier job did to it. */
const setsNut = (plan: Plan): boolean =>
  plan.works.every((work) => worksOf(plan.stack).includes(work)) &&
  reachOf(plan.stack, plan.works, plan.alreadyOff, plan.together).layers.has('nut');

/** The side as the job finds it: as the record had it before, and what was off when the unit came in. */
function sideOf(
  event: StoredEvent,
  { sheet, began }: WheelEndOpened,
  plan: Plan,
): Pick<WheelEnd, 'side' | 'began'> {
  const { stack, alreadyOff, together } = plan;
  const mark = { seq: 0, eventId: event.id, jobId: event.jobId, at: event.at, by: event.by.name };
  const built = { sheet, together };
  const before = began
    ? buildDifferently(began, built, { stack, nutIsOther: false, lost: [], mark })
    : unknownSide(stack);
  return { side: asItCame(before, built, alreadyOff, mark), began: began ?? null };
}
