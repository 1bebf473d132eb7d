import { axleNumber, firstAxleId, oppositeOf } from '../axle-plan/index.ts';
import { findProcedure } from '../procedure/index.ts';
import { sharedSteps } from '../route/index.ts';
import { layerOf, worksOf, type Work } from '../stack/index.ts';
import type { Actor, BodyOf, EventBody, StoredEvent } from './event.ts';
import type { Job, JobMoney, Plan, Round, Trace, WheelEnd } from './job.ts';
import { doneAtOf } from './done-at.ts';
import { disturbed } from './disturbed.ts';
import { addWork, changeSheet, leaveOut, openAgain, reopenNut, withdrawWork } from './open-again.ts';

/** An event list that no job could have produced. */
export class FoldError extends Error {}

type Correction = {
  version: number;
  at: string;
  by: Actor;
  reason: string;
  replacement: BodyOf<'correction'>['replacement'];
};

/**
 * The job that a list of events describes. Corrected events count as what their last correction says.
 * @throws FoldError when the list is not one job's, in order, from its opening
 */
export function fold(events: readonly StoredEvent[]): Job {
  const corrections = new Map<string, Correction>();
  for (const { version, at, by, body } of events) {
    if (body.kind === 'correction')
      corrections.set(body.corrects, { version, at, by, reason: body.reason, replacement: body.replacement });
  }
  let job: Job | null = null;
  for (const event of events) job = step(job, event, corrections.get(event.id));
  if (!job) throw new FoldError('A job has at least its opening');
  return { ...job, events };
}

/** Adds one event to a job; the same as folding the longer list. */
export function append(job: Job, event: StoredEvent): Job {
  const events = [...job.events, event];
  return event.body.kind === 'correction' ? fold(events) : { ...step(job, event, undefined), events };
}

function step(job: Job | null, event: StoredEvent, correction: Correction | undefined): Job {
  const { body, version } = event;
  if (version !== (job?.version ?? 0) + 1) throw new FoldError(`Event ${version} is out of order`);
  if (body.kind === 'job-opened') {
    if (job) throw new FoldError('A job opens once');
    const right = correction?.replacement;
    return open(event, right?.kind === 'intake' ? { ...body, ...right, kind: body.kind } : body);
  }
  if (!job) throw new FoldError('A job begins with its opening');
  if (job.id !== event.jobId) throw new FoldError('The event belongs to another job');
  if (body.kind === 'correction' || correction?.replacement === null) return { ...job, version };
  const effective = correction?.replacement ?? body;
  if (effective.kind === 'intake') throw new FoldError('Only the opening of a job has an intake');
  const seq = correction && disturbed(body, effective) ? correction.version : version;
  const doneAt = doneAtOf('doneAt' in body ? body.doneAt : undefined, event.at, job.opened.at);
  const trace: Trace = { eventId: event.id, seq, at: event.at, doneAt, by: event.by };
  if (correction) trace.corrected = { reason: correction.reason, at: correction.at, by: correction.by };
  switch (effective.kind) {
    case 'job-held':
    case 'job-voided': {
      const as = effective.kind === 'job-held' ? 'held' : 'void';
      return { ...job, version, stopped: { as, reason: effective.reason, at: event.at, by: event.by } };
    }
    case 'bill-written': {
      const written = { ...trace, bill: effective.bill };
      const money: JobMoney =
        effective.as === 'estimate'
          ? { ...job.money, estimate: written, answer: null }
          : { ...job.money, actual: written };
      return { ...job, version, money };
    }
    case 'owner-answered': {
      const { answer, name, until, risk, works = [] } = effective;
      const wheelEnds = job.wheelEnds.map((w) =>
        works
          .filter((line) => line.position === w.position)
          .reduce((end, { work, answer: said, until: to, risk: taken }) => {
            return leaveOut(end, { ...trace, work, answer: said, name, until: to, risk: taken });
          }, w),
      );
      return {
        ...job,
        version,
        wheelEnds,
        money: { ...job.money, answer: { ...trace, answer, name, until, risk, works: effective.works } },
      };
    }
    case 'ended-out-of-service': {
      const { reason, leaves, told } = effective;
      const { at, by } = event;
      return { ...job, version, stopped: { as: 'out-of-service', reason, leaves, told, at, by } };
    }
    case 'job-resumed':
      return { ...job, version, stopped: null };
    default:
      return { ...job, version, wheelEnds: change(job.wheelEnds, effective, trace) };
  }
}

function open(event: StoredEvent, body: BodyOf<'job-opened'>): Job {
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
    wheelEnds: body.wheelEnds.map((opened): WheelEnd => {
      const { position, sheet, axle } = opened;
      return {
        position,
        axleId: opened.axleId ?? firstAxleId(unitId, axleNumber(position)),
        axle,
        sheet,
        plan: planOf(opened),
        rounds: [firstRound],
        records: [],
        readings: [],
        reckonings: [],
        photos: [],
        decisions: [],
        followUpsDone: [],
        release: null,
        retorque: null,
      };
    }),
    events: [event],
  };
}

const firstRound: Round = {
  number: 1,
  from: 'start',
  turns: null,
  predictedMm: null,
  wasLocked: false,
  brakeOn: false,
};

function planOf({ sheet, procedureVersion, route }: BodyOf<'job-opened'>['wheelEnds'][number]): Plan {
  if (route) {
    const { stack, works, alreadyOff, together } = route;
    return {
      by: 'route',
      stack,
      works,
      alreadyOff,
      together,
      since: { off: {}, back: {} },
      sinceStep: {},
      unwanted: [],
      received: [],
    };
  }
  const procedure = findProcedure(sheet.procedureId ?? '', procedureVersion);
  if (!procedure)
    throw new FoldError(`There is no procedure ${sheet.procedureId} version ${procedureVersion}`);
  return { by: 'procedure', procedure };
}

/** What happens to one wheel end. */
type WheelEndBody = Extract<EventBody, { position: string }>;

function change(wheelEnds: readonly WheelEnd[], body: WheelEndBody, trace: Trace): WheelEnd[] {
  if (!wheelEnds.some((w) => w.position === body.position)) {
    throw new FoldError(`${body.position} is not in this job`);
  }
  const after = wheelEnds.map((w) => (w.position === body.position ? changed(w, body, trace) : w));
  return shared(after, body, trace);
}

/** Work that a judging opens on the other side as well: brakes and kingpins of an axle are kept alike. */
const alike: Readonly<Record<string, Work>> = {
  lining: 'brakes',
  'drum-or-rotor': 'brakes',
  'kingpin-and-bushes': 'kingpin',
};

function bothSides(data: BodyOf<'step-recorded'>['data']): Work[] {
  if (data.kind !== 'judge') return [];
  const works = data.findings.flatMap((f) => (f.disposition === 'replace-pair' ? [alike[f.component]] : []));
  return [...new Set(works.filter((work) => work !== undefined))];
}

/** The axle is one: what is recorded of it, and its opening again, holds for the other side as well. */
function shared(wheelEnds: readonly WheelEnd[], body: WheelEndBody, trace: Trace): WheelEnd[] {
  const here = wheelEnds.find((w) => w.position === body.position)!;
  const other = oppositeOf(body.position);
  return wheelEnds.map((w) => {
    if (w.position !== other || w.plan.by !== 'route' || here.plan.by !== 'route') return w;
    const both = body.kind === 'step-recorded' ? bothSides(body.data) : [];
    if (both.length > 0 && !w.release)
      return both
        .filter(
          (work) =>
            w.plan.by === 'route' && worksOf(w.plan.stack).includes(work) && !w.plan.works.includes(work),
        )
        .reduce((end, work) => addWork(end, trace.seq, work), w);
    if (!layerOf(w.plan.stack, 'axle')) return w;
    if ((body.kind === 'step-recorded' || body.kind === 'step-skipped') && sharedSteps.has(body.stepId))
      return changed(w, { ...body, position: other }, trace);
    const [since, theirs] = [here.plan.since, w.plan.since];
    if (since.back.axle === theirs.back.axle && since.off.axle === theirs.off.axle) return w;
    const opened = {
      off: { ...theirs.off, axle: since.off.axle },
      back: { ...theirs.back, axle: since.back.axle },
    };
    return { ...w, plan: { ...w.plan, since: opened } };
  });
}

function changed(w: WheelEnd, body: WheelEndBody, trace: Trace): WheelEnd {
  switch (body.kind) {
    case 'step-recorded': {
      const { stage, stepId, round, data } = body;
      return { ...w, records: [...w.records, { ...trace, stage, stepId, round, data, skipped: null }] };
    }
    case 'step-skipped': {
      const { stage, stepId, round, reason } = body;
      return {
        ...w,
        records: [...w.records, { ...trace, stage, stepId, round, data: null, skipped: reason }],
      };
    }
    case 'reading-taken': {
      const { round, push, pull, source, gauge } = body;
      return { ...w, readings: [...w.readings, { ...trace, round, push, pull, source, gauge }] };
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
      return changeSheet(w, trace.seq, body.sheet, body.stack);
    case 'part-received': {
      if (w.plan.by !== 'route') return w;
      const { what, as } = body;
      return { ...w, plan: { ...w.plan, received: [...w.plan.received, { ...trace, what, as }] } };
    }
    case 'wheel-end-released': {
      const { overrideReason = null, overridden, followUp, alsoDue = [] } = body;
      return { ...w, release: { ...trace, overrideReason, overridden, followUp, alsoDue } };
    }
    case 'reckoning-kept': {
      const { name, title, summary, reckoned, note } = body;
      return { ...w, reckonings: [...w.reckonings, { ...trace, name, title, summary, reckoned, note }] };
    }
    case 'photo-added': {
      const { stage, photoId, sha256, component, caption } = body;
      return { ...w, photos: [...w.photos, { ...trace, stage, photoId, sha256, component, caption }] };
    }
    case 'decision-made': {
      const { component, decision, reason } = body;
      return { ...w, decisions: [...w.decisions, { ...trace, component, decision, reason }] };
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
