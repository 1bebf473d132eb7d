import type { Actor } from '../access/index.ts';
import type { BodyOf, EventBody } from './event.ts';
import { accept, refuse, refuseFor, type DecideContext, type Decision } from './decision.ts';
import { doubtedBy } from './doubts.ts';
import { impossible } from './impossible.ts';
import { wheelEndEver, type Job, type WheelEnd } from './job.ts';
import { checkStepData } from './check-step-data.ts';
import type { Act } from '../route/index.ts';
import { stepTitled } from './progress.ts';

type Correction = BodyOf<'correction'>;

/** What can be struck out; steps and readings can be put right as well, the intake only put right. */
const correctable = [
  'step-recorded',
  'step-skipped',
  'reading-taken',
  'reckoning-kept',
  'photo-added',
  'decision-made',
  'wheel-end-released',
  'retorque-recorded',
  'follow-up-done',
  'part-received',
  'adjust-reopened',
  'layer-opened',
  'as-it-stands',
  'late-counted',
] as const;
type Correctable = BodyOf<(typeof correctable)[number]>;

function isCorrectable(body: EventBody): body is Correctable {
  return (correctable as readonly string[]).includes(body.kind);
}

/** Decides a correction: by whoever recorded it or a supervisor, of what can still be taken back. */
export function correct(job: Job, command: Correction, context: DecideContext): Decision {
  const decision = whetherCorrected(job, command, context);
  if (!decision.ok || decision.event.kind !== 'correction') return decision;
  const was = job.events.find((e) => e.id === command.corrects)!;
  const doubts = doubtedBy(job, decision.event, was.version, context);
  return doubts.length > 0 ? accept({ ...decision.event, doubts }) : decision;
}

function whetherCorrected(job: Job, command: Correction, { by }: DecideContext): Decision {
  const event = job.events.find((e) => e.id === command.corrects);
  if (!event) return refuse('no-such-record');
  if (by.role !== 'supervisor' && event.by.id !== by.id) return refuse('not-theirs-to-correct');
  const { body } = event;
  if (body.kind === 'job-opened' && command.replacement?.kind === 'intake') {
    const { symptoms } = command.replacement;
    if (by.role !== 'supervisor' && body.symptoms.some((s) => !symptoms.includes(s)))
      return refuse('for-supervisor', { act: 'symptom' });
  }
  if (body.kind === 'job-opened')
    return command.replacement?.kind === 'intake' ? accept(command) : refuse('intake-not-struck');
  if (!isCorrectable(body)) return refuse('not-correctable');
  const w = wheelEndEver(job, body.position)!;
  if (w.release && by.role !== 'supervisor')
    return refuse('released-correction', { position: body.position });
  if (body.kind === 'wheel-end-released' && (w.retorque || w.followUpsDone.length > 0))
    return refuse('later-records-first');
  const { replacement } = command;
  if (!replacement && by.role !== 'supervisor' && needsSupervisor(w, body))
    return refuse('for-supervisor', { act: 'strike' });
  return replacement ? replace(w, { ...event, body }, command, replacement) : accept(command);
}

/** What takes something off, or what a release may hang on: only a supervisor strikes it out. */
function needsSupervisor(w: WheelEnd, body: Correctable): boolean {
  if (body.kind === 'reading-taken' || body.kind === 'as-it-stands' || body.kind === 'late-counted')
    return true;
  if (body.kind !== 'step-recorded' && body.kind !== 'step-skipped') return false;
  const act = stepTitled(w, body.stage, body.stepId) as Partial<Act> | undefined;
  if (act?.phase === 'ground' || (act?.phase === 'off' && act.layer)) return true;
  return ['judge', 'joint', 'found', 'heat'].includes(act?.kind ?? '');
}

function replace(
  w: WheelEnd,
  { body, by, at }: { body: Correctable; by: Actor; at: string },
  command: Correction,
  replacement: NonNullable<Correction['replacement']>,
): Decision {
  if (
    replacement.kind !== body.kind ||
    replacement.position !== body.position ||
    replacement.round !== body.round
  ) {
    return refuse('correction-elsewhere');
  }
  if (replacement.kind === 'reading-taken') {
    const wrong = impossible(replacement);
    return wrong ? refuseFor(wrong) : accept(command);
  }
  if (
    body.kind !== 'step-recorded' ||
    replacement.stepId !== body.stepId ||
    replacement.stage !== body.stage
  ) {
    return refuse('correction-other-step');
  }
  if (replacement.data.kind !== body.data.kind) return refuse('correction-other-kind');
  if (
    replacement.data.kind === 'measure' &&
    body.data.kind === 'measure' &&
    replacement.data.by !== body.data.by
  )
    return refuse('felt-not-measured');
  const step = stepTitled(w, body.stage, body.stepId);
  const wrong = step && checkStepData(w, step, replacement.data, { by, today: at.slice(0, 10), now: at });
  return wrong ? refuseFor(wrong) : accept(command);
}
