import { correct } from './correct.ts';
import { changeRoute } from './decide-route.ts';
import { doneAtOf } from './done-at.ts';
import { waitsFor } from './waits-for.ts';
import { accept, refuse, refuseFor, type DecideContext, type Decision } from './decision.ts';
import { refusal, type Refusal } from './refusal.ts';
import { decisionsOn, driveVerdict } from '../inspection/index.ts';
import { addDays, retorqueDefaults, retorqueDue, type RetorqueDue } from '../interval/index.ts';
import type { RetorqueFigure, Step } from '../procedure/index.ts';
import { effectOf, isOn, layerAt, mustBeOff, wasPinOut } from '../assembly/index.ts';
import { oppositeOf } from '../axle-plan/index.ts';
import { everyAct, putsBack, wheelTorqueKey, type Act } from '../route/index.ts';
import { RULES } from './rules.ts';
import { layerOf } from '../stack/index.ts';
import { convert } from '../quantity/index.ts';
import { whyNotTool } from '../tool/index.ts';
import { againstRelease, inSpiteOfPlay, mayStayLoose, torqueFits } from './against-release.ts';
import type { Actor } from '../access/index.ts';
import {
  meterHours,
  meterKm,
  type BodyOf,
  type Command,
  type JobOpened,
  type WheelEndOpened,
} from './event.ts';
import { currentRound, isClosed, wheelEndAt, wheelEndEver, type Job, type WheelEnd } from './job.ts';
import { atStep, checkStepData } from './check-step-data.ts';
import { impossible } from './impossible.ts';
import { lateRecords, openQuestions, progressOf, readingRound } from './progress.ts';
import { describeObjection } from './describe-objection.ts';
import { leavingOut, ownerAnswered } from './decide-leaving-out.ts';
import { isAsFound } from './is-as-found.ts';
import { openFindings } from './open-findings.ts';
import { whyOnlyRead } from './first-build.ts';
import { whyNoRoute } from './why-no-route.ts';

/** Decides whether a job may open on these wheel ends. */
export function decideOpening(opening: JobOpened): Decision {
  const seen = new Set<string>();
  for (const wheelEnd of opening.wheelEnds) {
    const { position } = wheelEnd;
    if (seen.has(position)) return refuse('named-twice', { position });
    seen.add(position);
    const why = whyNotTaken(wheelEnd);
    if (why) return refuseFor(why);
  }
  const { verdict } = driveVerdict(opening.symptoms);
  if (verdict === 'do-not-move' && (!opening.drive || opening.drive.done === 'driven-in'))
    return refuse('not-to-be-moved');
  return accept(opening);
}

/** Why a job cannot take a wheel end over, or null: nothing is wanted of it, or no route does it. */
function whyNotTaken({ position, sheet, route }: WheelEndOpened): Refusal | null {
  if (!route) return refusal('nothing-wanted', { position });
  const why = whyNoRoute(sheet, route);
  return why ? refusal('no-route', { position, why }) : null;
}

/** Decides whether the other side of an axle joins an open job. */
export function decideJoining(
  job: Job,
  wheelEnd: WheelEndOpened,
  { by, inLaterJob }: DecideContext,
): Decision {
  const { position } = wheelEnd;
  if (by.role !== 'supervisor' && by.role !== 'technician') return refuse('no-joining');
  if (isClosed(job)) return refuse('job-closed-open-another');
  if (job.stopped) return refuse('job-held', { reason: job.stopped.reason });
  if (wheelEndAt(job, position)) return refuse('joined-already', { position });
  if (!wheelEndAt(job, oppositeOf(position))) return refuse('another-axle', { position });
  const isOut = job.leftOut.some((w) => w.position === position);
  if (isOut && inLaterJob) return refuse('left-out-and-changed', { position });
  const why = whyNotTaken(wheelEnd);
  return why ? refuseFor(why) : accept({ kind: 'wheel-end-joined', position, wheelEnd });
}

/** What hands, eyes and instruments did: another person may send it on. Whatever somebody signs is their own to send. */
const sentForAnother: ReadonlySet<Command['kind']> = new Set([
  ...(['step-recorded', 'step-skipped', 'reading-taken', 'adjust-reopened', 'reckoning-kept'] as const),
  ...(['photo-added', 'work-added', 'layer-opened', 'part-received', 'correction'] as const),
  ...(['job-held', 'job-resumed'] as const),
]);

function whyNotSent(command: Command, { name, sentBy }: Actor): Refusal | null {
  return !sentBy || sentForAnother.has(command.kind) ? null : refusal('not-sent', { name });
}

/** What was done by hand is heard of a wheel end that was left out as well: it can have waited on a tablet. */
const heardAfterwards: ReadonlySet<Command['kind']> = new Set([
  ...(['step-recorded', 'step-skipped', 'reading-taken', 'photo-added', 'as-it-stands'] as const),
]);

/** Decides one command on an open job. Pure: the browser and the server ask the same question. */
export function decide(job: Job, command: Command, context: DecideContext): Decision {
  const stranger =
    whyNotThem(command, context.by) ?? whyNotSent(command, context.by) ?? whyOnlyRead(job, command);
  if (stranger) return refuseFor(stranger);
  if (
    job.stopped?.as === 'out-of-service' &&
    command.kind === 'correction' &&
    context.by.role !== 'supervisor'
  )
    return refuse('for-supervisor', { act: 'ended' });
  if (job.stopped?.as === 'void') return refuse('job-void');
  if (job.stopped?.as === 'out-of-service' && command.kind !== 'correction') return refuse('job-ended');
  switch (command.kind) {
    case 'correction':
      return correct(job, command, context);
    case 'bill-written':
      return context.by.role === 'supervisor' ? accept(command) : refuse('for-supervisor', { act: 'bill' });
    case 'owner-answered':
      return ownerAnswered(job, command, context);
    case 'job-held':
      if (isClosed(job)) return refuse('job-closed');
      return job.stopped ? refuse('held-already') : accept(command);
    case 'job-resumed':
      return job.stopped ? accept(command) : refuse('not-held');
    case 'job-voided':
      return voiding(job, command, context);
    case 'ended-out-of-service':
      return endingOutOfService(job, command, context);
  }
  const wheelEnd = wheelEndEver(job, command.position);
  if (!wheelEnd) return refuse('not-in-job', { position: command.position });
  if (wheelEnd.leftOut && !heardAfterwards.has(command.kind))
    return refuse('left-out', { position: command.position, by: wheelEnd.leftOut.by.name });
  if (wheelEnd.leftOut && context.inLaterJob)
    return refuse('left-out-and-changed', { position: command.position });
  if (command.kind === 'retorque-recorded') return retorque(wheelEnd, command, context.today);
  if (command.kind === 'follow-up-done') return followUpDone(wheelEnd, command, context);
  if (job.stopped) return refuse('job-held', { reason: job.stopped.reason });
  if (wheelEnd.release) return refuse('released', { position: command.position });
  switch (command.kind) {
    case 'step-recorded':
      return recordStep(job, wheelEnd, command, context);
    case 'step-skipped':
      return skipStep(wheelEnd, command);
    case 'reading-taken':
      return takeReading(wheelEnd, command);
    case 'adjust-reopened':
      return reopen(wheelEnd, command);
    case 'reckoning-kept':
    case 'photo-added':
      return accept(command);
    case 'decision-made':
      return answerQuestion(wheelEnd, command, context);
    case 'late-counted':
      return countLate(wheelEnd, command, context);
    case 'finding-answered':
      return answerFinding(wheelEnd, command, context);
    case 'wheel-end-left-out':
      return leavingOut(job, wheelEnd, command, context);
    case 'wheel-end-released':
      return release(job, wheelEnd, command, context);
    case 'work-added':
    case 'work-withdrawn':
    case 'layer-opened':
    case 'sheet-changed':
    case 'part-received':
    case 'as-it-stands':
      return changeRoute(wheelEnd, command, context);
  }
}

/** The step of a wheel end that a record is about, at hand or not: what was done is recorded in whatever order it was. */
function stepOf(
  w: WheelEnd,
  at: { stage: string; stepId: string; round: number },
): { step: Step } | { refused: Refusal } {
  const progress = progressOf(w);
  const found = progress.find((p) => p.step.stage === at.stage && p.step.id === at.stepId);
  const step = found?.step ?? everyAct(w.plan.stack, w.sheet).get(`${at.stage}/${at.stepId}`);
  if (!step) return { refused: refusal('no-such-step', { position: w.position }) };
  if (found?.record && !canBeRedone(w, step as Act))
    return { refused: refusal('recorded-already', atStep(w, step)) };
  return { step };
}

/** A put-back step can be done once more while nothing outside its layer is on again, a take-off once there is more to undo. */
function canBeRedone(w: WheelEnd, act: Act): boolean {
  if (act.layer && !putsBack(act)) return isMoreToUndo(w, act);
  if (act.phase !== 'back' || !act.layer) return false;
  return mustBeOff(w.plan.stack, act, w.plan.together).every((id) => !isOn(w.side, id));
}

/** Whether a take-off would find its layer on again, or what it breaks made again. */
function isMoreToUndo({ side }: WheelEnd, act: Act): boolean {
  const { moves, breaks = [] } = effectOf(act);
  const { is } = layerAt(side, act.layer!);
  const further = moves === 'off' ? is !== 'off' : moves === 'open' && is === 'on';
  return further || breaks.some((id) => side.made[id]);
}

function recordStep(
  job: Job,
  w: WheelEnd,
  command: BodyOf<'step-recorded'>,
  context: DecideContext,
): Decision {
  const found = stepOf(w, command);
  if ('refused' in found) return refuseFor(found.refused);
  const { step } = found;
  // A tool is judged by the day on which it was used.
  const today = command.doneAt
    ? doneAtOf(command.doneAt, context.now, job.opened.at).slice(0, 10)
    : context.today;
  const why = checkStepData(w, step, command.data, { ...context, today }) ?? waitsFor(job, w, step);
  return why ? refuseFor(why) : accept(command);
}

function skipStep(w: WheelEnd, command: BodyOf<'step-skipped'>): Decision {
  const found = stepOf(w, command);
  if ('refused' in found) return refuseFor(found.refused);
  const { step } = found;
  const loose = step.kind === 'measure' && mayStayLoose(w);
  if ('guard' in step && step.guard === 'never' && !loose) return refuse('never-skipped', atStep(w, step));
  return accept(command);
}

function answerQuestion(w: WheelEnd, command: BodyOf<'decision-made'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return refuse('for-supervisor', { act: 'decision' });
  if (!openQuestions(w).some((q) => q.component === command.component)) return refuse('nothing-to-decide');
  if (!decisionsOn(command.component).includes(command.decision))
    return refuse('decision-unfit', { decision: command.decision });
  return accept(command);
}

function countLate(w: WheelEnd, command: BodyOf<'late-counted'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return refuse('for-supervisor', { act: 'late' });
  const late = new Set(lateRecords(w).map((r) => r.eventId));
  return command.records.every((id) => late.has(id)) ? accept(command) : refuse('not-all-late');
}

function answerFinding(w: WheelEnd, command: BodyOf<'finding-answered'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return refuse('for-supervisor', { act: 'finding' });
  if (!openFindings(w).some((f) => f.id === command.finding)) return refuse('answered-already');
  if (command.reason.length < LEAST_REASON) return refuse('answer-too-short');
  return accept(command);
}

/** Who may record what at all: the bench belongs to technicians and supervisors. */
function whyNotThem(command: Command, { role }: Actor): Refusal | null {
  if (role === 'supervisor' || role === 'technician') return null;
  if (role === 'owner-contact')
    return command.kind === 'owner-answered' ? null : refusal('contact-answers-only');
  if (role === 'storekeeper')
    return command.kind === 'part-received' ? null : refusal('storekeeper-parts-only');
  return refusal('trainee-records-nothing');
}

function voiding(job: Job, command: BodyOf<'job-voided'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return refuse('for-supervisor', { act: 'void' });
  const out = job.wheelEnds.find((w) => w.release);
  if (out) return refuse('one-is-released', { position: out.position });
  const moved = job.wheelEnds.find((w) => !isAsFound(w));
  return moved ? refuse('not-as-it-was', { position: moved.position }) : accept(command);
}

function endingOutOfService(
  job: Job,
  command: BodyOf<'ended-out-of-service'>,
  { by }: DecideContext,
): Decision {
  if (by.role !== 'supervisor') return refuse('for-supervisor', { act: 'ending' });
  const open = job.wheelEnds.find(
    (w) => !w.withOther && layerOf(w.side.stack, 'axle') && (!isOn(w.side, 'axle') || wasPinOut(w.side)),
  );
  return open
    ? refuse('axle-open', { position: open.position, other: oppositeOf(open.position) })
    : accept(command);
}

function followUpDone(
  w: WheelEnd,
  command: BodyOf<'follow-up-done'>,
  { lastReading }: DecideContext,
): Decision {
  const { followUp, nth } = command;
  const ofKind = w.release?.alsoDue.filter((f) => f.kind === followUp) ?? [];
  if (nth >= ofKind.length) return refuse('no-follow-up');
  if (w.followUpsDone.some((f) => f.followUp === followUp && f.nth === nth))
    return refuse('followed-up-already');
  return (followUp === 'temporary' && whyNotLookedAfter(w, command, lastReading)) || accept(command);
}

/** What a release in spite of something asks for before it is looked after: a reading in band, or what was seen. */
function whyNotLookedAfter(
  w: WheelEnd,
  { note }: BodyOf<'follow-up-done'>,
  last: DecideContext['lastReading'],
): Decision | null {
  const { position, release } = w;
  if (!release || release.overridden.length === 0) return null;
  const isOfPlay = inSpiteOfPlay(w);
  const isInBand = last?.verdict === 'in-band' && last.at > release.at;
  if (isOfPlay && last !== undefined && !isInBand) return refuse('measure-before', { position });
  return !isOfPlay && (note ?? '').trim().length < LEAST_REASON ? refuse('say-what-was-seen') : null;
}

function takeReading(w: WheelEnd, command: BodyOf<'reading-taken'>): Decision {
  const measuring = progressOf(w).filter((p) => p.step.kind === 'measure' && p.step.id !== 'swivel-preload');
  const open = measuring.find((p) => !p.record && command.round === readingRound(w, p.step));
  if (!open) {
    if (measuring.some((p) => !p.record)) return refuse('moved-on', { position: w.position });
    return refuse(measuring.length > 0 ? 'reading-accepted' : 'nothing-measured', { position: w.position });
  }
  const wrong = impossible(command);
  return wrong ? refuseFor(wrong) : accept(command);
}

function reopen(w: WheelEnd, command: BodyOf<'adjust-reopened'>): Decision {
  if (command.round !== currentRound(w).number)
    return refuse('adjusting-again-already', { position: w.position });
  if (!hasLeftAdjust(w)) return refuse('not-left-adjust', { position: w.position });
  if (w.rounds.length >= 99) return refuse('too-many-rounds');
  if (command.from === 'setting' && command.turns === undefined) return refuse('no-turn-named');
  if (command.from === 'setting' && (!w.sheet.thread || !w.sheet.lock)) return refuse('begin-from-start');
  return accept(command);
}

function hasLeftAdjust(w: WheelEnd): boolean {
  const progress = progressOf(w);
  const adjusting = progress.filter((p) => p.step.stage === 'adjust' && (p.step as Act).layer === 'nut');
  return adjusting.length > 0 && adjusting.every((p) => p.record);
}

/** A reason that somebody can weigh later has more than a word or two. */
const LEAST_REASON = 20;
/** A release in spite of something stands for so long before it is looked at again, days. Rule of this product. */
const TEMPORARY_DAYS = 14;

function release(
  job: Job,
  w: WheelEnd,
  command: Extract<Command, { kind: 'wheel-end-released' }>,
  context: DecideContext,
): Decision {
  if (context.by.role !== 'supervisor') return refuse('for-supervisor', { act: 'release' });
  if (w.widened?.id === context.by.id)
    return refuse('band-widened-by-same', { position: w.position, by: w.widened.name });
  const against = againstRelease(w);
  const never = against.filter((o) => o.guard === 'never');
  if (never.length > 0) return refuse('nobody-releases', { position: w.position, against: never });
  const reason = command.overrideReason?.trim() ?? '';
  if (against.length > 0 && reason === '')
    return refuse('release-needs-reason', { position: w.position, against });
  if (against.length > 0 && reason.length < LEAST_REASON) return refuse('reason-too-short');
  const temporary = {
    kind: 'temporary' as const,
    byDate: addDays(context.today, TEMPORARY_DAYS),
    what: against
      .map((o) => describeObjection(w, o, null))
      .join('. ')
      .slice(0, 500),
  };
  const alsoDue = [...(command.alsoDue ?? []), ...(against.length > 0 ? [temporary] : [])];
  return accept({
    kind: 'wheel-end-released',
    position: w.position,
    rules: RULES,
    overridden: against,
    ...(alsoDue.length > 0 ? { alsoDue } : {}),
    followUp: wheelCameOff(w) ? retorqueOf(job, w, context.today) : null,
    ...(against.length > 0 ? { overrideReason: reason } : {}),
    ...(w.records.some((r) => r.by.id === context.by.id) ? { ownWork: true } : {}),
  });
}

/** Wheel nuts are torqued again only where they were off. */
function wheelCameOff(w: WheelEnd): boolean {
  return layerAt(w.side, 'wheel').moved !== null;
}

/** When the wheel is torqued again: by the sheet's own rule, where it has one. */
function retorqueOf(job: Job, { sheet: { retorque } }: WheelEnd, today: string): RetorqueDue {
  const meters = { km: meterKm(job.meter), hours: meterHours(job.meter) };
  if (!retorque) return retorqueDue(meters, today);
  const km = ({ value, unit }: RetorqueFigure['from']) => convert(value, unit, 'km');
  const hours = retorque.hours
    ? convert(retorque.hours.value, retorque.hours.unit, 'h')
    : retorqueDefaults.hours;
  return retorqueDue(meters, today, {
    fromKm: km(retorque.from),
    byKm: km(retorque.by),
    hours,
    days: retorque.days,
  });
}

function retorque(w: WheelEnd, command: BodyOf<'retorque-recorded'>, today: string): Decision {
  if (!w.release) return refuse('not-released', { position: w.position });
  if (!w.release.followUp) return refuse('wheel-was-on', { position: w.position });
  if (w.retorque) return refuse('retorqued-already', { position: w.position });
  const { listed, torque } = command;
  const unfit = listed && whyNotTool(listed, { kind: 'torque-wrench', today, settingNm: torque.si });
  if (unfit) return refuse('tool-unfit', { why: unfit });
  const figure = w.sheet[wheelTorqueKey(w.plan.stack)];
  if (figure && !torqueFits(command.torque.si, figure) && !command.note) return refuse('torque-off');
  return accept(command);
}
