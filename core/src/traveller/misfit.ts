import { components, dispose } from '../inspection/index.ts';
import { readinessOf, type Sheet, type Step, type StepData } from '../procedure/index.ts';
import { figureFor, thinLining, torqueFits } from './against-release.ts';
import type { WheelEnd } from './job.ts';
import { readingRound, verdictOf } from './progress.ts';

type DataOf<K extends StepData['kind']> = Extract<StepData, { kind: K }>;

/** Why what was recorded does not answer the step, or null. */
export function misfit(w: WheelEnd, step: Step, data: StepData): string | null {
  if (data.kind !== step.kind) return `“${step.title}” is a step to ${step.kind}`;
  switch (data.kind) {
    case 'choose':
      return step.kind === 'choose' && step.options.some((o) => o.id === data.option)
        ? null
        : `“${data.option}” is not a choice of “${step.title}”`;
    case 'lock':
      return step.kind === 'lock' && step.methods.some((m) => m.id === data.method)
        ? null
        : `“${data.method}” is not a way to lock this nut`;
    case 'inspect':
      return data.ok || data.note ? null : 'Say what was found';
    case 'torque':
      return step.kind === 'torque' ? misfitTorque(w.sheet, step, data) : null;
    case 'measure':
      return data.by === 'dial' ? misfitDial(w, step) : misfitByHand(w.sheet, data);
    case 'joint':
      return misfitJoint(data);
    case 'ready':
      return misfitReady(w, data);
    case 'judge':
      return misfitJudge(data);
    case 'linings':
      return misfitLinings(data);
    default:
      return null;
  }
}

function misfitTorque(sheet: Sheet, step: Extract<Step, { kind: 'torque' }>, data: DataOf<'torque'>) {
  const figure = figureFor(sheet[step.figure], data.asked);
  if (!figure) return 'Say what the maker’s sheet asks for';
  return torqueFits(data.torque.si, figure) || data.note
    ? null
    : 'The torque is off the sheet’s figure: say why';
}

function misfitDial(w: WheelEnd, step: Step): string | null {
  const verdict = verdictOf(w, readingRound(w, step));
  if (!verdict) return 'End play is not measured';
  if (verdict.verdict === 'repeat') return 'Take three cycles that repeat within 0.001 in';
  if (step.stage === 'verify' && verdict.verdict !== 'in-band') return `The reading is ${verdict.verdict}`;
  return null;
}

/** Acceptance by feel or by drag. */
function misfitByHand({ verifyBy, drag }: Sheet, data: DataOf<'measure'>): string | null {
  if (verifyBy === 'dial') return 'This wheel end needs the dial';
  if ((data.by === 'drag') !== (verifyBy === 'drag'))
    return verifyBy === 'drag'
      ? 'This wheel end is set by its drag'
      : 'This wheel end has end play, not drag';
  if (!drag) return null;
  if (!data.pull) return 'The sheet gives a figure: measure the pull';
  if (data.pull.si >= drag.min.si && data.pull.si <= drag.max.si) return null;
  return `The drag is ${data.pull.si < drag.min.si ? 'too light: tighten' : 'too heavy: back off'}`;
}

function misfitJoint({
  felt,
  axleToKnuckle,
  knuckleToHub,
  kingpinLimit,
  note,
}: DataOf<'joint'>): string | null {
  if (felt === 'nothing') return null;
  if (axleToKnuckle && !kingpinLimit) return 'Say what the maker allows at the kingpin';
  if ((axleToKnuckle?.si ?? 0) < 0 || (knuckleToHub?.si ?? 0) < 0) return 'A movement is not negative';
  return knuckleToHub || note ? null : 'It moves: set the indicator from knuckle to hub, or say why not';
}

function misfitReady(w: WheelEnd, { lines, note }: DataOf<'ready'>): string | null {
  const held = new Map(lines.map((l) => [l.what, l]));
  const open = readinessOf(w.procedure, w.sheet).find((l) => !held.has(l.what));
  if (open) return `Say how it stands with “${open.what}”`;
  const undated = lines.find((l) => l.state === 'ordered' && !l.by);
  if (undated) return `When does “${undated.what}” arrive`;
  const lacking = lines.filter((l) => l.state === 'missing' || l.state === 'ordered');
  if (lacking.length === 0 || note) return null;
  return `${lacking.map((l) => l.what).join(', ')} not here: say why the work starts all the same`;
}

function misfitJudge({ findings, hardWorked }: DataOf<'judge'>): string | null {
  const seen = new Map(findings.map((f) => [f.component, f]));
  if (seen.size < findings.length) return 'A part is judged twice';
  const open = components.find((c) => !seen.has(c.id));
  if (open) return `Judge ${open.title.toLowerCase()} as well`;
  const wrong = findings.find(
    (f) => dispose(f.component, f.seen, { hardWorked })?.disposition !== f.disposition,
  );
  return wrong ? `“${wrong.seen}” on ${wrong.component} asks for something else` : null;
}

function misfitLinings(data: DataOf<'linings'>): string | null {
  if (data.brake === 'none') return null;
  if (!data.inner || !data.outer) return 'Measure the lining inner and outer';
  if (data.inner.si < 0 || data.outer.si < 0) return 'A lining is not thinner than nothing';
  if (!data.set && !data.note) return 'The brake is not back: say why';
  const thin = thinLining(data);
  return thin && !data.note ? `${thin}: say what is done about it` : null;
}
