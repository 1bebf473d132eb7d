import { correct } from './correct.ts';
import { no, yes, type DecideContext, type Decision } from './decision.ts';
import { retorqueDue, type RetorqueRule } from '../interval/index.ts';
import { findProcedure, stageOrder, whyNotAdjustable, type RetorqueFigure } from '../procedure/index.ts';
import { convert } from '../quantity/index.ts';
import { whyNotTool } from '../tool/index.ts';
import { againstRelease, torqueFits } from './against-release.ts';
import { meterKm, type BodyOf, type Command, type JobOpened } from './event.ts';
import { currentRound, wheelEndAt, type Job, type WheelEnd } from './job.ts';
import { misfit } from './misfit.ts';
import { impossible } from './impossible.ts';
import { openQuestions, readingRound, stepAtHand } from './progress.ts';

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
  if (command.kind === 'retorque-recorded') return retorque(wheelEnd, command, context.today);
  if (command.kind === 'follow-up-done') return followUpDone(wheelEnd, command);
  if (job.stopped) return no(`The job is held: ${job.stopped.reason}`);
  if (wheelEnd.release) return no(`${command.position} is released`);
  switch (command.kind) {
    case 'step-recorded':
      return recordStep(wheelEnd, command, context);
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

function recordStep(w: WheelEnd, command: BodyOf<'step-recorded'>, context: DecideContext): Decision {
  const wrong = notAtHand(w, command) ?? misfit(w, stepAtHand(w)!, command.data, context);
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
    followUp: retorqueDue(meterKm(job.meter), context.today, retorqueRule(w)),
    ...(against.length > 0 ? { overrideReason: command.overrideReason } : {}),
  });
}

/** The sheet's own rule, where it has one. */
function retorqueRule({ sheet: { retorque } }: WheelEnd): RetorqueRule | undefined {
  if (!retorque) return undefined;
  const km = ({ value, unit }: RetorqueFigure['from']) => convert(value, unit, 'km');
  return { fromKm: km(retorque.from), byKm: km(retorque.by), days: retorque.days };
}

function retorque(w: WheelEnd, command: BodyOf<'retorque-recorded'>, today: string): Decision {
  if (!w.release) return no(`${w.position} is not released yet`);
  if (w.retorque) return no(`The retorque of ${w.position} is recorded already`);
  const { listed, torque } = command;
  const unfit = listed && whyNotTool(listed, { kind: 'torque-wrench', today, settingNm: torque.si });
  if (unfit) return no(unfit);
  const figure = w.sheet.wheelTorque;
  if (figure && !torqueFits(command.torque.si, figure) && !command.note)
    return no('The torque is off the sheet’s figure: say why');
  return yes(command);
}
