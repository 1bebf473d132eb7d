import { sayTurn } from '../nut/index.ts';
import { stages, stepsOf, type Step, type StepData } from '../procedure/index.ts';
import { formatQuantity } from '../quantity/index.ts';
import type { EventBody, StoredEvent } from './event.ts';
import { wheelEndAt, type Job, type WheelEnd } from './job.ts';

/** All steps a wheel end can have, whatever was chosen, to look titles up. */
function stepTitled(w: WheelEnd | undefined, stage: string, stepId: string): Step | undefined {
  if (!w) return undefined;
  const all = [...stepsOf(w.procedure, 'start', {}), ...w.procedure.steps, ...w.procedure.readjust];
  return all.find((s) => s.stage === stage && s.id === stepId);
}

const accepted = {
  dial: 'accepted by dial',
  feel: 'accepted by feel: no movement, spins freely',
  drag: 'light, even drag',
};

/** What a recorded step says, in words: "350 lbf·ft with TW-03, 3 rounds". */
export function sayStepData(data: StepData, step?: Step): string {
  const note = data.note ? `. ${data.note}` : '';
  switch (data.kind) {
    case 'torque':
      return `${formatQuantity(data.torque)} with ${data.tool}${data.asked ? `, the maker asks for ${formatQuantity(data.asked)}` : ''}${data.rounds > 1 ? `, ${data.rounds} rounds` : ''}${note}`;
    case 'turn':
      return `${data.turns < 0 ? 'backed off' : 'tightened'} ${sayTurn(data.turns)}${note}`;
    case 'inspect':
      return `${data.ok ? 'yes' : 'no'}${note}`;
    case 'choose':
      return `${(step?.kind === 'choose' && step.options.find((o) => o.id === data.option)?.label) || data.option}${note}`;
    case 'lock': {
      const method =
        (step?.kind === 'lock' && step.methods.find((m) => m.id === data.method)?.label) || data.method;
      return `${method}${data.checkedBy ? `, checked by ${data.checkedBy}` : ''}${note}`;
    }
    case 'measure':
      return `${accepted[data.by]}${data.pull ? ` with ${formatQuantity(data.pull)}` : ''}${note}`;
    case 'fill':
      return `${data.lubricant}${note}`;
    case 'instruct':
    case 'rotate':
      return data.note ? `done. ${data.note}` : 'done';
  }
}

function sayBody(job: Job, body: EventBody): string {
  switch (body.kind) {
    case 'job-opened':
      return `opened the job on ${body.wheelEnds.map((w) => w.position).join(', ')}`;
    case 'step-recorded': {
      const step = stepTitled(wheelEndAt(job, body.position), body.stage, body.stepId);
      return `${body.position}, ${step?.title ?? body.stepId}: ${sayStepData(body.data, step)}`;
    }
    case 'step-skipped': {
      const step = stepTitled(wheelEndAt(job, body.position), body.stage, body.stepId);
      return `${body.position}, ${step?.title ?? body.stepId} skipped: ${body.reason}`;
    }
    case 'reading-taken':
      return `${body.position}, cycle: push ${formatQuantity(body.push)}, pull ${formatQuantity(body.pull)}${body.gauge ? ` with ${body.gauge}` : ''}`;
    case 'adjust-reopened':
      return `${body.position} back to ${stages.find((s) => s.id === 'adjust')?.title}${
        body.turns === undefined
          ? ''
          : `, to ${body.turns < 0 ? 'back off' : 'tighten'} ${sayTurn(body.turns)}`
      }`;
    case 'reckoning-kept':
      return `${body.position}, reckoned, ${body.title}: ${body.summary}${body.note ? `. ${body.note}` : ''}`;
    case 'wheel-end-released':
      return `released ${body.position}${body.overrideReason ? ` in spite of: ${body.overridden.join('. ')}. Reason: ${body.overrideReason}` : ''}`;
    case 'retorque-recorded':
      return `${body.position}, retorque: ${formatQuantity(body.torque)} with ${body.tool}${body.doneBy ? `, done by ${body.doneBy}` : ''}`;
    case 'correction': {
      const was = job.events.find((e) => e.id === body.corrects);
      const what = was ? sayBody(job, was.body) : 'a record';
      return `${body.replacement ? `corrected “${what}” to “${sayBody(job, body.replacement)}”` : `struck out “${what}”`}: ${body.reason}`;
    }
  }
}

/** One event as a line of the record, without its time and person. */
export function sayEvent(job: Job, event: Pick<StoredEvent, 'body'>): string {
  return sayBody(job, event.body);
}
