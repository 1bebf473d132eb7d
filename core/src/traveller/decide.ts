import { correct } from './correct.ts';
import { changeRoute, whyNotWithdrawn } from './decide-route.ts';
import { doneAtOf } from './done-at.ts';
import { waitsFor } from './waits-for.ts';
import { refuse, accept, type DecideContext, type Decision } from './decision.ts';
import { decisionsOn, dispositions, driveVerdict } from '../inspection/index.ts';
import { addDays, retorqueDue, type RetorqueRule } from '../interval/index.ts';
import type { RetorqueFigure, Step } from '../procedure/index.ts';
import { effectOf, isOn, layerAt, mustBeOff, wasPinOut } from '../assembly/index.ts';
import { oppositeOf } from '../axle-plan/index.ts';
import { everyAct, putsBack, type Act } from '../route/index.ts';
import { RULES } from './rules.ts';
import { layerOf, works } from '../stack/index.ts';
import { convert } from '../quantity/index.ts';
import { whyNotTool } from '../tool/index.ts';
import { againstRelease, mayStayLoose, torqueFits } from './against-release.ts';
import {
  meterKm,
  type Actor,
  type BodyOf,
  type Command,
  type JobOpened,
  type WheelEndOpened,
} from './event.ts';
import { currentRound, isClosed, wheelEndAt, type Job, type WheelEnd } from './job.ts';
import { checkStepData } from './check-step-data.ts';
import { impossible } from './impossible.ts';
import { lateRecords, openQuestions, progressOf, readingRound } from './progress.ts';
import { describeObjection } from './describe-objection.ts';
import { describeOff } from './describe-stopped.ts';
import { isAsFound } from './is-as-found.ts';
import { openFindings } from './open-findings.ts';
import { whyOnlyRead } from './first-build.ts';
import { whyNoRoute } from './why-no-route.ts';

/** Decides whether a job may open on these wheel ends. */
export function decideOpening(opening: JobOpened): Decision {
  const seen = new Set<string>();
  for (const wheelEnd of opening.wheelEnds) {
    const { position } = wheelEnd;
    if (seen.has(position)) return refuse(`${position} is named twice`);
    seen.add(position);
    const why = whyNotTaken(wheelEnd);
    if (why) return refuse(why);
  }
  const { verdict } = driveVerdict(opening.symptoms);
  if (verdict === 'do-not-move' && (!opening.drive || opening.drive.done === 'driven-in'))
    return refuse('It is not to be moved: say that it was recovered, or looked at where it stood');
  return accept(opening);
}

/** Why a job cannot take a wheel end over, or null: nothing is wanted of it, or no route does it. */
function whyNotTaken({ position, sheet, route }: WheelEndOpened): string | null {
  if (!route) return `Say what is to be done on ${position}`;
  const why = whyNoRoute(sheet, route);
  return why ? `${position}: ${why}` : null;
}

/** Decides whether the other side of an axle joins an open job. */
export function decideJoining(job: Job, wheelEnd: WheelEndOpened, { by }: DecideContext): Decision {
  const { position } = wheelEnd;
  if (by.role !== 'supervisor' && by.role !== 'technician')
    return refuse('Technicians and supervisors take a wheel end into a job');
  if (isClosed(job)) return refuse('The job is closed: open another');
  if (job.stopped) return refuse(`The job is held: ${job.stopped.reason}`);
  if (wheelEndAt(job, position)) return refuse(`${position} is in this job already`);
  if (!wheelEndAt(job, oppositeOf(position)))
    return refuse(`${position} is on another axle: open a job for it`);
  const why = whyNotTaken(wheelEnd);
  return why ? refuse(why) : accept({ kind: 'wheel-end-joined', position, wheelEnd });
}

/** Decides one command on an open job. Pure: the browser and the server ask the same question. */
export function decide(job: Job, command: Command, context: DecideContext): Decision {
  const stranger = whyNotThem(command, context.by) ?? whyOnlyRead(job, command);
  if (stranger) return refuse(stranger);
  if (
    job.stopped?.as === 'out-of-service' &&
    command.kind === 'correction' &&
    context.by.role !== 'supervisor'
  )
    return refuse('The job has ended out of service: a supervisor corrects it');
  if (job.stopped?.as === 'void') return refuse('The job is void');
  if (job.stopped?.as === 'out-of-service' && command.kind !== 'correction')
    return refuse('The job has ended out of service: open another');
  switch (command.kind) {
    case 'correction':
      return correct(job, command, context);
    case 'bill-written':
      return context.by.role === 'supervisor'
        ? accept(command)
        : refuse('A supervisor writes estimates and bills');
    case 'owner-answered':
      return ownerAnswered(job, command, context);
    case 'job-held':
      if (isClosed(job)) return refuse('The job is closed');
      return job.stopped ? refuse('The job is held already') : accept(command);
    case 'job-resumed':
      return job.stopped ? accept(command) : refuse('The job is not held');
    case 'job-voided':
      return voiding(job, command, context);
    case 'ended-out-of-service':
      return endingOutOfService(job, command, context);
  }
  const wheelEnd = wheelEndAt(job, command.position);
  if (!wheelEnd) return refuse(`${command.position} is not in this job`);
  if (command.kind === 'retorque-recorded') return retorque(wheelEnd, command, context.today);
  if (command.kind === 'follow-up-done') return followUpDone(wheelEnd, command);
  if (job.stopped) return refuse(`The job is held: ${job.stopped.reason}`);
  if (wheelEnd.release) return refuse(`${command.position} is released`);
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
function stepOf(w: WheelEnd, at: { stage: string; stepId: string; round: number }): Step | string {
  const progress = progressOf(w);
  const found = progress.find((p) => p.step.stage === at.stage && p.step.id === at.stepId);
  const step = found?.step ?? everyAct(w.plan.stack, w.sheet).get(`${at.stage}/${at.stepId}`);
  if (!step) return `${w.position} has no such step`;
  if (found?.record && !canBeRedone(w, step as Act))
    return `“${step.title}” on ${w.position} is recorded already`;
  return step;
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
  const step = stepOf(w, command);
  if (typeof step === 'string') return refuse(step);
  // A tool is judged by the day on which it was used.
  const today = command.doneAt
    ? doneAtOf(command.doneAt, context.now, job.opened.at).slice(0, 10)
    : context.today;
  const why = checkStepData(w, step, command.data, { ...context, today }) ?? waitsFor(job, w, step);
  return why ? refuse(why) : accept(command);
}

function skipStep(w: WheelEnd, command: BodyOf<'step-skipped'>): Decision {
  const step = stepOf(w, command);
  if (typeof step === 'string') return refuse(step);
  const loose = step.kind === 'measure' && mayStayLoose(w);
  if ('guard' in step && step.guard === 'never' && !loose)
    return refuse(`“${step.title}” is not left out, for any reason: do it, or end the job out of service`);
  return accept(command);
}

function answerQuestion(w: WheelEnd, command: BodyOf<'decision-made'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return refuse('A supervisor decides this');
  if (!openQuestions(w).some((q) => q.component === command.component))
    return refuse('There is nothing to decide about this part');
  if (!decisionsOn(command.component).includes(command.decision))
    return refuse(`That does not fit this part: ${dispositions[command.decision].toLowerCase()}`);
  return accept(command);
}

function countLate(w: WheelEnd, command: BodyOf<'late-counted'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return refuse('A supervisor says that late records count');
  const late = new Set(lateRecords(w).map((r) => r.eventId));
  return command.records.every((id) => late.has(id))
    ? accept(command)
    : refuse('Not all of these came late for the work at hand: do them again instead');
}

function answerFinding(w: WheelEnd, command: BodyOf<'finding-answered'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return refuse('A supervisor answers a finding that no record answers');
  if (!openFindings(w).some((f) => f.id === command.finding))
    return refuse('This finding is answered already');
  if (command.reason.length < LEAST_REASON)
    return refuse('Enter in a sentence what was done or found: a later reader depends on it');
  return accept(command);
}

/** Who may record what at all: the bench belongs to technicians and supervisors. */
function whyNotThem(command: Command, { role }: Actor): string | null {
  if (role === 'supervisor' || role === 'technician') return null;
  if (role === 'owner-contact')
    return command.kind === 'owner-answered'
      ? null
      : 'An owner’s contact answers estimates and records nothing else';
  if (role === 'storekeeper')
    return command.kind === 'part-received' ? null : 'A storekeeper records parts that came and nothing else';
  return 'A trainee practises and records nothing';
}

function ownerAnswered(job: Job, command: BodyOf<'owner-answered'>, { by }: DecideContext): Decision {
  const { estimate, answer } = job.money;
  if (!estimate) return refuse('There is no estimate to answer yet');
  if (by.role === 'owner-contact' && isClosed(job)) return refuse('The job is closed');
  if (command.estimate !== undefined && command.estimate !== estimate.eventId)
    return refuse('The estimate was written anew since: look at it again before you answer');
  if (by.role === 'owner-contact' && command.estimate === undefined)
    return refuse('Say which estimate is answered');
  if (answer?.by.role === 'owner-contact' && by.role !== 'owner-contact')
    return refuse(`${answer.by.name} answered for the owner themselves: only a new estimate asks again`);
  if (command.answer === 'defer' && (!command.until || !command.risk))
    return refuse('Deferred needs a date and the risk in words');
  for (const [i, line] of (command.works ?? []).entries()) {
    const why = whyNotLeftOut(job, command.works!.slice(0, i), line);
    if (why) return refuse(why);
  }
  return accept(command);
}

type AnsweredWork = NonNullable<BodyOf<'owner-answered'>['works']>[number];

/** Why a work cannot come off the route by the owner's answer, given those that come off before it; or null. */
function whyNotLeftOut(job: Job, before: readonly AnsweredWork[], line: AnsweredWork): string | null {
  const w = wheelEndAt(job, line.position);
  if (!w) return `${line.position} has no route to take it off`;
  if (line.answer === 'defer' && (!line.until || !line.risk))
    return `Deferred needs a date and the risk in words: ${works[line.work].toLowerCase()} on ${line.position}`;
  const gone = before.filter((b) => b.position === line.position).map((b) => b.work);
  if (w.plan.works.every((work) => work === line.work || gone.includes(work)))
    return `${line.position} has no other work: answer the same for the whole job, or ask the shop for an estimate without it`;
  const plan = { ...w.plan, works: w.plan.works.filter((work) => !gone.includes(work)) };
  return whyNotWithdrawn(w, plan, line.work);
}

function voiding(job: Job, command: BodyOf<'job-voided'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return refuse('A supervisor voids a job');
  const out = job.wheelEnds.find((w) => w.release);
  if (out) return refuse(`${out.position} is released: the job stands`);
  const moved = job.wheelEnds.find((w) => !isAsFound(w));
  return moved
    ? refuse(
        `${moved.position} is not as it was: ${describeOff(moved)}. Finish it, or end the job out of service`,
      )
    : accept(command);
}

function endingOutOfService(
  job: Job,
  command: BodyOf<'ended-out-of-service'>,
  { by }: DecideContext,
): Decision {
  if (by.role !== 'supervisor') return refuse('A supervisor ends a job out of service');
  const open = job.wheelEnds.find(
    (w) => !w.withOther && layerOf(w.side.stack, 'axle') && (!isOn(w.side, 'axle') || wasPinOut(w.side)),
  );
  return open
    ? refuse(
        `The axle of ${open.position} is open: take ${oppositeOf(open.position)} into the job first, it hangs on the same pin and cover`,
      )
    : accept(command);
}

function followUpDone(w: WheelEnd, command: BodyOf<'follow-up-done'>): Decision {
  const { followUp, nth } = command;
  const ofKind = w.release?.alsoDue.filter((f) => f.kind === followUp) ?? [];
  if (nth >= ofKind.length) return refuse('There is no such follow-up');
  if (w.followUpsDone.some((f) => f.followUp === followUp && f.nth === nth))
    return refuse('It is recorded already');
  return accept(command);
}

function takeReading(w: WheelEnd, command: BodyOf<'reading-taken'>): Decision {
  const measuring = progressOf(w).filter((p) => p.step.kind === 'measure' && p.step.id !== 'swivel-preload');
  const open = measuring.find((p) => !p.record && command.round === readingRound(w, p.step));
  if (!open) {
    if (measuring.some((p) => !p.record)) return refuse(`${w.position} has moved on since`);
    return refuse(
      measuring.length > 0
        ? `The reading of ${w.position} is accepted already`
        : `Nothing is measured on ${w.position}`,
    );
  }
  const wrong = impossible(command);
  return wrong ? refuse(wrong) : accept(command);
}

function reopen(w: WheelEnd, command: BodyOf<'adjust-reopened'>): Decision {
  if (command.round !== currentRound(w).number)
    return refuse(`${w.position} has gone back to Adjust already`);
  if (!hasLeftAdjust(w)) return refuse(`${w.position} has not left Adjust yet`);
  if (w.rounds.length >= 99) return refuse('That many rounds are a matter for inspection');
  if (command.from === 'setting' && command.turns === undefined)
    return refuse('Say how far the nut is to turn');
  if (command.from === 'setting' && (!w.sheet.thread || !w.sheet.lock))
    return refuse('The sheet names no thread and lock: begin Adjust from the start');
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
  if (context.by.role !== 'supervisor') return refuse('A supervisor releases a wheel end');
  if (w.widened?.id === context.by.id)
    return refuse(
      `${w.widened.name} widened the band of ${w.position} in this job to more than twice the usual one: another supervisor releases it`,
    );
  const against = againstRelease(w);
  const never = against.filter((o) => o.guard === 'never');
  if (never.length > 0)
    return refuse(
      `Nobody releases ${w.position}: ${never.map((o) => describeObjection(w, o, null)).join('. ')}`,
    );
  const reason = command.overrideReason?.trim() ?? '';
  if (against.length > 0 && reason === '')
    return refuse(against.map((o) => describeObjection(w, o, null)).join('. '));
  if (against.length > 0 && reason.length < LEAST_REASON)
    return refuse('Give the reason in a sentence: somebody has to weigh it later');
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
    followUp: wheelCameOff(w) ? retorqueDue(meterKm(job.meter), context.today, retorqueRule(w)) : null,
    ...(against.length > 0 ? { overrideReason: reason } : {}),
    ...(w.records.some((r) => r.by.id === context.by.id) ? { ownWork: true } : {}),
  });
}

/** Wheel nuts are torqued again only where they were off. */
function wheelCameOff(w: WheelEnd): boolean {
  return layerAt(w.side, 'wheel').moved !== null;
}

/** The sheet's own rule, where it has one. */
function retorqueRule({ sheet: { retorque } }: WheelEnd): RetorqueRule | undefined {
  if (!retorque) return undefined;
  const km = ({ value, unit }: RetorqueFigure['from']) => convert(value, unit, 'km');
  return { fromKm: km(retorque.from), byKm: km(retorque.by), days: retorque.days };
}

function retorque(w: WheelEnd, command: BodyOf<'retorque-recorded'>, today: string): Decision {
  if (!w.release) return refuse(`${w.position} is not released yet`);
  if (!w.release.followUp) return refuse(`The wheel of ${w.position} was not off`);
  if (w.retorque) return refuse(`The retorque of ${w.position} is recorded already`);
  const { listed, torque } = command;
  const unfit = listed && whyNotTool(listed, { kind: 'torque-wrench', today, settingNm: torque.si });
  if (unfit) return refuse(unfit);
  const figure = w.sheet.wheelTorque;
  if (figure && !torqueFits(command.torque.si, figure) && !command.note)
    return refuse('The torque is off the sheet’s figure: say why');
  return accept(command);
}
