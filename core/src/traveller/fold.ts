import {
  asItStands,
  breakClosures,
  hearStep,
  layerAt,
  releaseSide,
  strikeStep,
  type Mark,
  type YardOnly,
} from '../assembly/index.ts';
import { oppositeOf } from '../axle-plan/index.ts';
import { oldPartIn, sharedSteps } from '../route/index.ts';
import { partsAgain } from './findings.ts';
import { oneOfAKind } from './one-of-a-kind.ts';
import { layerOf, worksOf, type Work } from '../stack/index.ts';
import type { Actor } from '../access/index.ts';
import type { BodyOf, EventBody, StoredEvent, WheelEndOpened } from './event.ts';
import type { Job, JobMoney, Trace, WheelEnd } from './job.ts';
import { doneAtOf } from './done-at.ts';
import { FoldError } from './fold-error.ts';
import { leaveOutOfJob, onWheelEnd } from './leave-out.ts';
import { joinJob, openJob } from './opening.ts';
import {
  addWork,
  changeSheet,
  leaveOut,
  openAgain,
  openedNut,
  reopenNut,
  withdrawWork,
  worksWanted,
} from './open-again.ts';

type Correction = {
  version: number;
  at: string;
  by: Actor;
  reason: string;
  replacement: BodyOf<'correction'>['replacement'];
};

/** What later records say of earlier ones: corrections, releases in doubt, and what the job began from after all. */
interface Hindsight {
  corrections: ReadonlyMap<string, Correction>;
  doubts: readonly { position: string; version: number; at: string; by: Actor; reason: string }[];
  began: ReadonlyMap<string, BodyOf<'began-corrected'>['began']>;
  /** Records that came late and count by a supervisor's word. */
  counted: ReadonlySet<string>;
  /** The lists of the job so far are this fold's own: they grow in place, which a long job needs. */
  inPlace: boolean;
}

function hindsightOf(events: readonly StoredEvent[]): Hindsight {
  const corrections = new Map<string, Correction>();
  const began = new Map<string, BodyOf<'began-corrected'>['began']>();
  const doubts: Hindsight['doubts'][number][] = [];
  for (const { version, at, by, body } of events) {
    if (body.kind !== 'correction' && body.kind !== 'began-corrected') continue;
    const reason = body.kind === 'correction' ? body.reason : 'an earlier job was corrected';
    for (const position of body.doubts ?? []) doubts.push({ position, version, at, by, reason });
    if (body.kind === 'began-corrected') began.set(body.position, body.began);
    else corrections.set(body.corrects, { version, at, by, reason, replacement: body.replacement });
  }
  const counted = new Set(
    events.flatMap(({ id, body }) =>
      body.kind === 'late-counted' && !corrections.has(id) ? body.records : [],
    ),
  );
  return { corrections, doubts, began, counted, inPlace: true };
}

const nothingLater: Hindsight = {
  corrections: new Map(),
  doubts: [],
  began: new Map(),
  counted: new Set(),
  inPlace: false,
};

/**
 * The job that a list of events describes. Corrected events count as what their last correction says, where they stood.
 * @throws FoldError when the list is not one job's, in order, from its opening
 */
export function fold(events: readonly StoredEvent[]): Job {
  return { ...foldTo(events, Infinity), events };
}

/**
 * The job as it was before one of its events, seen with every later correction.
 * @throws FoldError like `fold`
 */
export function foldTo(events: readonly StoredEvent[], version: number): Job {
  const later = hindsightOf(events);
  let job: Job | null = null;
  for (const event of events) if (event.version < version) job = step(job, event, later);
  if (!job) throw new FoldError('A job has at least its opening');
  return job;
}

/** Kinds of records that say something of earlier ones. */
const looksBack: ReadonlySet<EventBody['kind']> = new Set(['correction', 'began-corrected', 'late-counted']);

/** Adds one event to a job; the same as folding the longer list. */
export function append(job: Job, event: StoredEvent): Job {
  const events = [...job.events, event];
  return looksBack.has(event.body.kind) ? fold(events) : { ...step(job, event, nothingLater), events };
}

function step(job: Job | null, event: StoredEvent, later: Hindsight): Job {
  const { body, version } = event;
  const correction = later.corrections.get(event.id);
  if (version !== (job?.version ?? 0) + 1) throw new FoldError(`Event ${version} is out of order`);
  if (body.kind === 'job-opened') {
    if (job) throw new FoldError('A job opens once');
    const right = correction?.replacement;
    const wheelEnds = body.wheelEnds.map((w) => asItBegan(w, later));
    const opening = { ...body, wheelEnds };
    return openJob(event, right?.kind === 'intake' ? { ...opening, ...right, kind: body.kind } : opening);
  }
  if (!job) throw new FoldError('A job begins with its opening');
  if (job.id !== event.jobId) throw new FoldError('The event belongs to another job');
  if (body.kind === 'correction' || body.kind === 'began-corrected') return { ...job, version };
  if (correction?.replacement === null) return struck({ ...job, version }, event);
  if (body.kind === 'wheel-end-joined') return joinJob(job, event, asItBegan(body.wheelEnd, later));
  const effective = correction?.replacement ?? body;
  if (effective.kind === 'intake') throw new FoldError('Only the opening of a job has an intake');
  const doneAt = doneAtOf('doneAt' in body ? body.doneAt : undefined, event.at, job.opened.at);
  const trace: Trace = { eventId: event.id, seq: version, at: event.at, doneAt, by: event.by };
  if (correction) trace.corrected = { reason: correction.reason, at: correction.at, by: correction.by };
  switch (effective.kind) {
    case 'job-held':
    case 'job-voided': {
      const as = effective.kind === 'job-held' ? 'held' : 'void';
      return { ...job, version, stopped: { as, reason: effective.reason, at: event.at, by: event.by } };
    }
    case 'bill-written': {
      const before = effective.as === 'estimate' ? job.money.estimate : job.money.actual;
      const written = { ...trace, bill: effective.bill, nth: (before?.nth ?? 0) + 1 };
      const money: JobMoney =
        effective.as === 'estimate'
          ? { ...job.money, estimate: written, answer: null }
          : { ...job.money, actual: written };
      return { ...job, version, money };
    }
    case 'owner-answered': {
      const { answer, name, until, risk, message, works = [] } = effective;
      const wheelEnds = job.wheelEnds.map((w) =>
        works
          .filter((line) => line.position === w.position)
          .reduce((end, { work, answer: said, until: to, risk: taken }) => {
            return leaveOut(end, { ...trace, work, answer: said, name, until: to, risk: taken });
          }, w),
      );
      const idle = new Set(wheelEnds.filter((w) => worksWanted(w).length === 0).map((w) => w.position));
      return {
        ...job,
        version,
        ...leaveOutOfJob({ wheelEnds, leftOut: job.leftOut }, idle, { ...trace, reason: null }),
        money: {
          ...job.money,
          answer: { ...trace, answer, name, until, risk, message, works: effective.works },
        },
      };
    }
    case 'ended-out-of-service': {
      const { reason, leaves, told } = effective;
      const { at, by } = event;
      return { ...job, version, stopped: { as: 'out-of-service', reason, leaves, told, at, by } };
    }
    case 'job-resumed':
      return { ...job, version, stopped: null };
    case 'wheel-end-left-out': {
      const out = { ...trace, reason: effective.reason };
      return { ...job, version, ...leaveOutOfJob(job, new Set([effective.position]), out) };
    }
    default: {
      const act = (wheelEnds: readonly WheelEnd[]) => change({ ...job, wheelEnds }, effective, trace, later);
      return { ...job, version, ...onWheelEnd(job, effective.position, act) };
    }
  }
}

/** What a wheel end began from after all. */
function asItBegan(w: WheelEndOpened, { began }: Hindsight): WheelEndOpened {
  const after = began.get(w.position);
  return after === undefined ? w : { ...w, began: after ?? undefined };
}

const markOf = (job: Pick<Job, 'id'>, { seq, eventId, doneAt, by }: Trace): Mark => ({
  seq,
  eventId,
  jobId: job.id,
  at: doneAt,
  by: by.name,
});

/** A record that was struck out is gone; of a take-off what it would have broken is checked anew. */
function struck(job: Job, { id, version, at, by, body }: StoredEvent): Job {
  if (body.kind !== 'step-recorded' && body.kind !== 'step-skipped') return job;
  const mark = { seq: version, eventId: id, jobId: job.id, at, by: by.name };
  const other = sharedSteps.has(body.stepId) ? oppositeOf(body.position) : null;
  const strike = (wheelEnds: readonly WheelEnd[]) =>
    wheelEnds.map((w) => {
      if (w.position !== body.position && w.position !== other) return w;
      const built = { sheet: w.sheet, together: w.plan.together };
      return { ...w, side: strikeStep(w.side, built, { stage: body.stage, stepId: body.stepId, mark }) };
    });
  return { ...job, ...onWheelEnd(job, body.position, strike) };
}

/** What happens to one wheel end. */
type WheelEndBody = Exclude<
  Extract<EventBody, { position: string }>,
  { kind: 'began-corrected' | 'wheel-end-joined' | 'wheel-end-left-out' }
>;

function change(job: Job, body: WheelEndBody, trace: Trace, later: Hindsight): WheelEnd[] {
  const { wheelEnds } = job;
  const mark = markOf(job, trace);
  if (!wheelEnds.some((w) => w.position === body.position)) {
    throw new FoldError(`${body.position} is not in this job`);
  }
  const after = wheelEnds.map((w) => {
    if (w.position !== body.position) return w;
    return body.kind === 'wheel-end-released'
      ? released(w, body, trace, mark, later)
      : changed(w, body, trace, mark, later);
  });
  return shared(after, body, trace, mark, later);
}

/** Work that a judging opens on the other side as well: brakes and kingpins of an axle are kept alike. */
const alike: Readonly<Record<string, Work>> = {
  lining: 'linings',
  'drum-or-rotor': 'brakes',
  'kingpin-and-bushes': 'kingpin',
};

function bothSides(data: BodyOf<'step-recorded'>['data']): Work[] {
  if (data.kind !== 'judge') return [];
  const works = data.findings.flatMap((f) => (f.disposition === 'replace-pair' ? [alike[f.component]] : []));
  return [...new Set(works.filter((work) => work !== undefined))];
}

/** The axle is one: what is recorded of it holds for the other side as well, and opening it ends the other's release. */
function shared(
  wheelEnds: readonly WheelEnd[],
  body: WheelEndBody,
  trace: Trace,
  mark: Mark,
  later: Hindsight,
): WheelEnd[] {
  const here = wheelEnds.find((w) => w.position === body.position)!;
  const other = oppositeOf(body.position);
  if (!wheelEnds.some((w) => w.position === other)) return [...wheelEnds];
  return wheelEnds.map((w) => {
    if (w.position !== other || here.firstBuild) return w;
    const both = body.kind === 'step-recorded' ? bothSides(body.data) : [];
    if (both.length > 0 && !w.release)
      return both
        .filter((work) => worksOf(w.plan.stack).includes(work) && !w.plan.works.includes(work))
        .reduce((end, work) => addWork(end, trace.seq, work), w);
    if (!layerOf(w.plan.stack, 'axle')) return w;
    if (body.kind === 'as-it-stands') {
      const layers = body.layers.filter((l) => l.layer === 'axle');
      return layers.length > 0 ? changed(w, { ...body, position: other, layers }, trace, mark, later) : w;
    }
    if (body.kind === 'step-recorded' || body.kind === 'step-skipped') {
      if (sharedSteps.has(body.stepId)) return changed(w, { ...body, position: other }, trace, mark, later);
      if (body.stepId === 'pin-bolt' && w.side.broken['pin-bolt'] && !w.side.made['pin-bolt'])
        return changed(w, { ...body, position: other }, trace, mark, later);
      return body.stepId === crossPin ? crossPinOut(w, mark) : w;
    }
    return w;
  });
}

/** The act that takes the cross pin out, which holds the clips of both shafts. */
const crossPin = 'pin-out';

/** The cross pin went out on the other side: this one's clip is held by nothing until it is looked at. */
function crossPinOut(w: WheelEnd, mark: Mark): WheelEnd {
  if (layerOf(w.side.stack, 'shaft')?.kind !== 'c-clip' || layerAt(w.side, 'shaft').is === 'off') return w;
  return { ...w, side: breakClosures(w.side, ['pin-bolt'], mark) };
}

/** A step as the metal hears of it. */
function heardStep(
  w: WheelEnd,
  records: WheelEnd['records'],
  body: BodyOf<'step-recorded' | 'step-skipped'>,
  { trace, mark, later }: { trace: Trace; mark: Mark; later: Hindsight },
): WheelEnd {
  if (w.firstBuild) return { ...w, records };
  const built = { sheet: w.sheet, together: w.plan.together };
  const { stage, stepId } = body;
  const data = body.kind === 'step-recorded' ? body.data : null;
  const waited = trace.at !== trace.doneAt && Date.parse(trace.at) - Date.parse(trace.doneAt) > LATE_MS;
  const late = waited && !later.counted.has(trace.eventId);
  const ofEarlierRound = body.round < w.rounds.length;
  const old = oldPartIn(stepId, partsAgain(w.plan));
  const heard = { stage, stepId, data, mark, late, ofEarlierRound, old };
  const { side, notCounted: why } = hearStep(w.side, built, heard);
  const notCounted = why ? { ...w.notCounted, [trace.eventId]: why } : w.notCounted;
  return onMetal(w, { records, notCounted, side }, trace.seq);
}

/** The wheel end on metal that was moved: its release lapses, and a nut that was opened is set anew. */
function onMetal(w: WheelEnd, now: Partial<WheelEnd> & Pick<WheelEnd, 'side'>, seq: number): WheelEnd {
  const lapses = w.release !== null && now.side !== w.side;
  const [release, lapsed] = lapses ? [null, w.release] : [w.release, w.lapsed];
  return openedNut({ ...w, ...now, release, lapsed }, w.side, seq);
}

/** A record that was sent so long after it was done waited on its device, ms. Rule of this product. */
const LATE_MS = 2 * 60_000;

/** A release settles the metal; one that a later correction put in doubt does not. */
function released(
  w: WheelEnd,
  body: BodyOf<'wheel-end-released'>,
  trace: Trace,
  mark: Mark,
  { doubts }: Hindsight,
): WheelEnd {
  const { overrideReason = null, overridden, followUp, alsoDue = [], rules = 1 } = body;
  const doubt = doubts.find((d) => d.position === body.position && d.version > trace.seq);
  const inDoubt = doubt ? { reason: doubt.reason, at: doubt.at, by: doubt.by } : null;
  const release = { ...trace, rules, overrideReason, overridden, followUp, alsoDue, inDoubt };
  return { ...w, release, lapsed: null, side: doubt ? w.side : releaseSide(w.side, yardOnly(w, body, mark)) };
}

/** A lining accepted in spite of its minimum is for the yard only, until a thicker one is on record. */
function yardOnly(
  { side, records, notCounted }: WheelEnd,
  { rules = 1, overridden }: BodyOf<'wheel-end-released'>,
  mark: Mark,
): YardOnly | null {
  const thin = overridden.find((o) => o.code === 'lining-thin')?.params;
  if (thin)
    return rules < 2
      ? null
      : { mm: Number(thin['mm']), leastMm: Number(thin['leastMm']), brake: String(thin['brake']), mark };
  const renewed = records.some((r) => r.data?.kind === 'linings' && !notCounted[r.eventId]);
  return renewed ? null : side.yardOnly;
}

/** A list with one more at its end; the same list, grown, where nobody else has it. */
function grown<T>(list: readonly T[], one: T, inPlace: boolean): readonly T[] {
  if (!inPlace) return [...list, one];
  (list as T[]).push(one);
  return list;
}

function changed(
  w: WheelEnd,
  body: Exclude<WheelEndBody, { kind: 'wheel-end-released' }>,
  trace: Trace,
  mark: Mark,
  later: Hindsight,
): WheelEnd {
  const { inPlace } = later;
  switch (body.kind) {
    case 'step-recorded': {
      const { stage, stepId, round, data } = body;
      // Nearly every record is one of these: a spread here takes a quarter of the time of the whole fold.
      const done = Object.assign({ stage, stepId, round, data, skipped: null }, trace);
      const records = grown(w.records, done, inPlace);
      return heardStep(w, records, body, { trace, mark, later });
    }
    case 'step-skipped': {
      const { stage, stepId, round, reason } = body;
      const left = { ...trace, stage, stepId, round, data: null, skipped: reason };
      return heardStep(w, grown(w.records, left, inPlace), body, { trace, mark, later });
    }
    case 'reading-taken': {
      const { round, push, pull, source, gauge } = body;
      return { ...w, readings: grown(w.readings, { ...trace, round, push, pull, source, gauge }, inPlace) };
    }
    case 'adjust-reopened': {
      const { from, turns = null, predictedMm = null } = body;
      return reopenNut(w, trace.seq, { from, turns, predictedMm });
    }
    case 'work-added':
      return addWork(w, trace.seq, body.work);
    case 'work-withdrawn':
      return withdrawWork(w, body.work);
    case 'layer-opened':
      return openAgain(w, trace.seq, body.layer);
    case 'sheet-changed':
      return changeSheet(
        w,
        { mark, by: trace.by },
        { sheet: oneOfAKind(body.sheet), stack: oneOfAKind(body.stack), lost: body.lost ?? [] },
      );
    case 'as-it-stands': {
      const side = asItStands(w.side, { sheet: w.sheet, together: w.plan.together }, { ...body, mark });
      return onMetal(w, { side }, trace.seq);
    }
    case 'part-received': {
      const { what, as } = body;
      return { ...w, plan: { ...w.plan, received: [...w.plan.received, { ...trace, what, as }] } };
    }
    case 'reckoning-kept': {
      const { name, title, summary, reckoned, note } = body;
      return { ...w, reckonings: [...w.reckonings, { ...trace, name, title, summary, reckoned, note }] };
    }
    case 'late-counted':
      return w;
    case 'photo-added': {
      const { stage, photoId, sha256, component, caption } = body;
      return { ...w, photos: [...w.photos, { ...trace, stage, photoId, sha256, component, caption }] };
    }
    case 'decision-made': {
      const { component, decision, reason } = body;
      return { ...w, decisions: [...w.decisions, { ...trace, component, decision, reason }] };
    }
    case 'finding-answered': {
      const { finding, how, reason } = body;
      return { ...w, answered: [...w.answered, { ...trace, finding, how, reason }] };
    }
    case 'follow-up-done': {
      const { followUp, nth, doneBy, note } = body;
      return { ...w, followUpsDone: [...w.followUpsDone, { ...trace, followUp, nth, doneBy, note }] };
    }
    case 'retorque-recorded': {
      const { torque, tool, listed, doneBy, distance, note } = body;
      return { ...w, retorque: { ...trace, torque, tool, listed, doneBy, distance, note } };
    }
  }
}
