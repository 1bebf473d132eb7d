import { retorqueDue } from '../interval/index.ts';
import { findProcedure, stageOrder, whyNotAdjustable } from '../procedure/index.ts';
import { againstRelease, torqueFits } from './against-release.ts';
import { meterKm, type Actor, type BodyOf, type Command, type EventBody, type JobOpened } from './event.ts';
import { currentRound, wheelEndAt, type Job, type WheelEnd } from './job.ts';
import { misfit } from './misfit.ts';
import { openQuestions, playMm, readingRound, stepAtHand } from './progress.ts';

/** The event that follows from a command, or why it cannot be. */
export type Decision = { ok: true; event: EventBody } | { ok: false; reason: string };

export interface DecideContext {
  by: Actor;
  /** Date of the decision in the shop's zone. */
  today: string;
}

/** Largest end play of one cycle that a dial can have read by honest work, mm; more is a slip of the hand. */
const LARGEST_PLAY_MM = 12.7;

const no = (reason: string): Decision => ({ ok: false, reason });
const yes = (event: EventBody): Decision => ({ ok: true, event });

/** Decides whether a job may open on these wheel ends. */
export function decideOpening(opening: JobOpened): Decision {
  const seen = new Set<string>();
  for (const { position, sheet, procedureVersion } of opening.wheelEnds) {
    if (seen.has(position)) return no(`${position} is named twice`);
    seen.add(position);
    const why = whyNotAdjustable(sheet);
    if (why) return no(`${position}: ${why}`);
    if (!findProcedure(sheet.procedureId ?? '', procedureVersion)) {
      return no(`${position}: the procedure has no version ${procedureVersion}`);
    }
  }
  return yes(opening);
}

/** Decides one command on an open job. Pure: the browser and the server ask the same question. */
export function decide(job: Job, command: Command, context: DecideContext): Decision {
  if (job.stopped?.as === 'void') return no('The job is void');
  switch (command.kind) {
    case 'correction':
      return correct(job, command, context);
    case 'bill-written':
      return context.by.role === 'supervisor' ? yes(command) : no('A supervisor writes estimates and bills');
    case 'owner-answered':
      return ownerAnswered(job, command);
    case 'job-held':
      return job.stopped ? no('The job is held already') : yes(command);
    case 'job-resumed':
      return job.stopped ? yes(command) : no('The job is not held');
    case 'job-voided':
      return voiding(job, command, context);
  }
  const wheelEnd = wheelEndAt(job, command.position);
  if (!wheelEnd) return no(`${command.position} is not in this job`);
  if (command.kind === 'retorque-recorded') return retorque(wheelEnd, command);
  if (command.kind === 'follow-up-done') return followUpDone(wheelEnd, command);
  if (job.stopped) return no(`The job is held: ${job.stopped.reason}`);
  if (wheelEnd.release) return no(`${command.position} is released`);
  switch (command.kind) {
    case 'step-recorded':
      return recordStep(wheelEnd, command);
    case 'step-skipped': {
      const wrong = notAtHand(wheelEnd, command);
      return wrong ? no(wrong) : yes(command);
    }
    case 'reading-taken':
      return takeReading(wheelEnd, command);
    case 'adjust-reopened':
      return reopen(wheelEnd, command);
    case 'reckoning-kept':
    case 'photo-added':
      return yes(command);
    case 'decision-made':
      return answerQuestion(wheelEnd, command, context);
    case 'wheel-end-released':
      return release(job, wheelEnd, command, context);
  }
}

function notAtHand(w: WheelEnd, at: { stage: string; stepId: string; round: number }): string | null {
  if (at.round !== currentRound(w).number) return `${w.position} has gone back to Adjust since`;
  const step = stepAtHand(w);
  if (!step) return `Every step of ${w.position} is recorded`;
  if (step.stage !== at.stage || step.id !== at.stepId)
    return `On ${w.position} the step at hand is “${step.title}”`;
  return null;
}

function recordStep(w: WheelEnd, command: BodyOf<'step-recorded'>): Decision {
  const wrong = notAtHand(w, command) ?? misfit(w, stepAtHand(w)!, command.data);
  if (wrong) return no(wrong);
  const [question] = openQuestions(w);
  if (question && stageOrder(command.stage) >= stageOrder('assemble'))
    return no(`First the supervisor decides about ${question.title.toLowerCase()}`);
  return yes(command);
}

function answerQuestion(w: WheelEnd, command: BodyOf<'decision-made'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return no('A supervisor decides this');
  if (!openQuestions(w).some((q) => q.component === command.component))
    return no('There is nothing to decide about this part');
  return yes(command);
}

function ownerAnswered(job: Job, command: BodyOf<'owner-answered'>): Decision {
  if (!job.money.estimate) return no('There is no estimate to answer yet');
  if (command.answer === 'defer' && (!command.until || !command.risk))
    return no('Deferred needs a date and the risk in words');
  return yes(command);
}

function voiding(job: Job, command: BodyOf<'job-voided'>, { by }: DecideContext): Decision {
  if (by.role !== 'supervisor') return no('A supervisor voids a job');
  const out = job.wheelEnds.find((w) => w.release);
  return out ? no(`${out.position} is released: the job stands`) : yes(command);
}

function followUpDone(w: WheelEnd, command: BodyOf<'follow-up-done'>): Decision {
  if (!w.release?.alsoDue.some((f) => f.kind === command.followUp)) return no('There is no such follow-up');
  if (w.followUpsDone.some((f) => f.followUp === command.followUp)) return no('It is recorded already');
  return yes(command);
}

function impossible(reading: BodyOf<'reading-taken'>): string | null {
  return playMm(reading) > LARGEST_PLAY_MM
    ? 'Half an inch of end play cannot be: check the figure and its unit'
    : null;
}

function takeReading(w: WheelEnd, command: BodyOf<'reading-taken'>): Decision {
  const step = stepAtHand(w);
  if (step?.kind === 'measure' && command.round !== readingRound(w, step))
    return no(`${w.position} has moved on since`);
  if (step?.kind !== 'measure') {
    return no(
      step && stageOrder(step.stage) < stageOrder('verify')
        ? `First “${step.title}”`
        : `The reading of ${w.position} is accepted already`,
    );
  }
  const wrong = impossible(command);
  return wrong ? no(wrong) : yes(command);
}

function reopen(w: WheelEnd, command: BodyOf<'adjust-reopened'>): Decision {
  if (command.round !== currentRound(w).number) return no(`${w.position} has gone back to Adjust already`);
  const step = stepAtHand(w);
  if (step && stageOrder(step.stage) < stageOrder('verify'))
    return no(`${w.position} has not left Adjust yet`);
  if (w.rounds.length >= 99) return no('That many rounds are a matter for inspection');
  if (command.from === 'setting' && command.turns === undefined) return no('Say how far the nut is to turn');
  return yes(command);
}

function release(
  job: Job,
  w: WheelEnd,
  command: Extract<Command, { kind: 'wheel-end-released' }>,
  context: DecideContext,
): Decision {
  if (context.by.role !== 'supervisor') return no('A supervisor releases a wheel end');
  const against = againstRelease(w);
  if (against.length > 0 && !command.overrideReason) return no(against.join('. '));
  return yes({
    kind: 'wheel-end-released',
    position: w.position,
    overridden: against,
    ...(command.alsoDue ? { alsoDue: command.alsoDue } : {}),
    followUp: retorqueDue(meterKm(job.meter), context.today),
    ...(against.length > 0 ? { overrideReason: command.overrideReason } : {}),
  });
}

function retorque(w: WheelEnd, command: BodyOf<'retorque-recorded'>): Decision {
  if (!w.release) return no(`${w.position} is not released yet`);
  if (w.retorque) return no(`The retorque of ${w.position} is recorded already`);
  const figure = w.sheet.wheelTorque;
  if (figure && !torqueFits(command.torque.si, figure) && !command.note)
    return no('The torque is off the sheet’s figure: say why');
  return yes(command);
}

const correctable = [
  'step-recorded',
  'step-skipped',
  'reading-taken',
  'reckoning-kept',
  'photo-added',
] as const;
type Correctable = BodyOf<(typeof correctable)[number]>;

function isCorrectable(body: EventBody): body is Correctable {
  return (correctable as readonly string[]).includes(body.kind);
}

function correct(job: Job, command: BodyOf<'correction'>, { by }: DecideContext): Decision {
  const event = job.events.find((e) => e.id === command.corrects);
  if (!event) return no('There is no such record in this job');
  const { body } = event;
  if (!isCorrectable(body)) return no('Only a step, a reading or a kept sum can be corrected');
  if (by.role !== 'supervisor' && event.by.id !== by.id)
    return no('Only who recorded it, or a supervisor, corrects it');
  const w = wheelEndAt(job, body.position)!;
  if (w.release && by.role !== 'supervisor')
    return no(`${body.position} is released: a supervisor corrects it`);
  const { replacement } = command;
  if (!replacement) return yes(command);
  if (
    replacement.kind !== body.kind ||
    replacement.position !== body.position ||
    replacement.round !== body.round
  ) {
    return no('A correction stays with its wheel end, its round and its kind of record');
  }
  if (replacement.kind === 'reading-taken') {
    const wrong = impossible(replacement);
    return wrong ? no(wrong) : yes(command);
  }
  if (
    body.kind !== 'step-recorded' ||
    replacement.stepId !== body.stepId ||
    replacement.stage !== body.stage
  ) {
    return no('A correction stays with its step');
  }
  const step = [...w.procedure.steps, ...w.procedure.readjust].find(
    (s) => s.id === body.stepId && s.stage === body.stage,
  );
  const wrong =
    replacement.data.kind !== body.data.kind
      ? 'A correction stays with its kind of step'
      : step && misfit(w, step, replacement.data);
  return wrong ? no(wrong) : yes(command);
}
