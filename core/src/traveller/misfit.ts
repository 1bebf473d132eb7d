import { components, dispose } from '../inspection/index.ts';
import {
  readinessOf,
  sealDepths,
  whyNoSeat,
  type Sheet,
  type Step,
  type StepData,
} from '../procedure/index.ts';
import { whyNotTool } from '../tool/index.ts';
import { torqueSetting } from '../torque/index.ts';
import { figureFor, thinLining, torqueFits } from './against-release.ts';
import type { WheelEnd } from './job.ts';
import { hasKingpin } from './kingpin.ts';
import { partsToCompare } from './parts-to-compare.ts';
import { readingRound, verdictOf } from './progress.ts';

type DataOf<K extends StepData['kind']> = Extract<StepData, { kind: K }>;

/** By whom, and on which day, something is recorded. */
interface Recording {
  by: { name: string };
  today: string;
}

/** Why what was recorded does not answer the step, or null. */
export function misfit(w: WheelEnd, step: Step, data: StepData, { by, today }: Recording): string | null {
  if (data.kind !== step.kind) return `“${step.title}” is a step to ${step.kind}`;
  switch (data.kind) {
    case 'choose':
      return step.kind === 'choose' && step.options.some((o) => o.id === data.option)
        ? null
        : `“${data.option}” is not a choice of “${step.title}”`;
    case 'lock':
      return misfitLock(w.sheet, step, data, by.name);
    case 'inspect':
      return data.ok || data.note ? null : 'Say what was found';
    case 'torque':
      return step.kind === 'torque' ? misfitTorque(w.sheet, step, data, today) : null;
    case 'measure':
      return (
        misfitTool(data, today) ?? (data.by === 'dial' ? misfitDial(w, step) : misfitByHand(w.sheet, data))
      );
    case 'joint':
      return misfitJoint(w, data);
    case 'ready':
      return misfitReady(w, data);
    case 'judge':
      return misfitJudge(w.sheet, data);
    case 'linings':
      return misfitLinings(data);
    case 'found':
      return misfitFound(step, data);
    case 'compare':
      return misfitCompare(w, data);
    case 'seal':
      return misfitSeal(w.sheet, data);
    case 'pack':
      return misfitPack(w.sheet, data);
    case 'fill':
      return misfitFill(w.sheet, step, data);
    default:
      return null;
  }
}

function misfitTorque(
  sheet: Sheet,
  step: Extract<Step, { kind: 'torque' }>,
  data: DataOf<'torque'>,
  today: string,
): string | null {
  const { listed, via, torque } = data;
  if (listed) {
    const { settingNm } = torqueSetting({ targetNm: torque.si, ...via });
    const unfit = whyNotTool(listed, { kind: 'torque-wrench', today, settingNm });
    if (unfit) return unfit;
  }
  const figure = figureFor(sheet[step.figure], data.asked);
  if (!figure) return 'Say what the maker’s sheet asks for';
  return torqueFits(data.torque.si, figure) || data.note
    ? null
    : 'The torque is off the sheet’s figure: say why';
}

/** The dial or the pull scale of the shop's list, fit for its use. */
function misfitTool({ by, listed }: DataOf<'measure'>, today: string): string | null {
  if (!listed) return null;
  if (by === 'feel') return 'What is felt is not measured with a tool';
  return whyNotTool(listed, { kind: by === 'dial' ? 'dial-indicator' : 'pull-scale', today });
}

function misfitLock({ schools }: Sheet, step: Step, data: DataOf<'lock'>, who: string): string | null {
  if (step.kind !== 'lock' || !step.methods.some((m) => m.id === data.method))
    return `“${data.method}” is not a way to lock this nut`;
  if (schools.lockCheck !== 'second-person') return null;
  if (!data.checkedBy) return 'The sheet asks for a second person: who looked at the lock';
  return sameName(data.checkedBy, who) ? 'The lock is checked by somebody else than who made it' : null;
}

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

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

function misfitJoint(
  w: WheelEnd,
  { felt, axleToKnuckle, knuckleToHub, kingpinLimit, note }: DataOf<'joint'>,
): string | null {
  if (felt === 'nothing') return null;
  if (axleToKnuckle && !hasKingpin(w)) return `${w.position} has no kingpin to measure`;
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

function misfitJudge({ schools }: Sheet, { findings, hardWorked }: DataOf<'judge'>): string | null {
  const pressure = { hardWorked, renewBearings: schools.bearings === 'renew' };
  const seen = new Map(findings.map((f) => [f.component, f]));
  if (seen.size < findings.length) return 'A part is judged twice';
  const open = components.find((c) => !seen.has(c.id));
  if (open) return `Judge ${open.title.toLowerCase()} as well`;
  const wrong = findings.find((f) => dispose(f.component, f.seen, pressure)?.disposition !== f.disposition);
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

function misfitFound(step: Step, { signs }: DataOf<'found'>): string | null {
  const strange = signs.find((id) => step.kind === 'found' && !step.signs.some((s) => s.id === id));
  return strange ? `“${strange}” is not on the list: say it in the note` : null;
}

function misfitCompare(w: WheelEnd, { parts, note }: DataOf<'compare'>): string | null {
  const open = partsToCompare(w).find((part) => !parts.some((p) => p.part === part));
  if (open) return `Hold ${open.toLowerCase()} against the old one as well`;
  const other = parts.find((p) => p.differs.length > 0);
  return other && !note ? `${other.part} is not as the old one: say why it goes in` : null;
}

function misfitSeal({ schools }: Sheet, { outside, depth, seat, note }: DataOf<'seal'>): string | null {
  if (schools.sealOutside !== 'either' && outside !== schools.sealOutside && !note)
    return `The sheet sets this seal ${schools.sealOutside}: say why not`;
  if (!seat) return null;
  const wrong = whyNoSeat(seat);
  if (wrong) return wrong;
  const { ranges } = sealDepths(seat);
  if (note) return null;
  if (ranges.length === 0) return 'No depth keeps the lips on sound journal: say what is done';
  if (!depth) return 'Say how deep the seal sits';
  const mm = depth.si * 1000;
  return ranges.some((r) => mm >= r.fromMm - DEPTH_SLACK_MM && mm <= r.toMm + DEPTH_SLACK_MM)
    ? null
    : 'At this depth a lip does not run on sound journal: set it again, or say why';
}

/** Depths are read with a rule or a caliper, mm. */
const DEPTH_SLACK_MM = 0.05;

function misfitPack({ schools, lubricant }: Sheet, data: DataOf<'pack'>): string | null {
  if (data.note) return null;
  if (lubricant.kind === 'grease' && data.by === 'oiled')
    return 'This hub runs in grease: say why it is oiled';
  if (lubricant.kind === 'oil' && data.by !== 'oiled') return 'This hub runs in oil: say why it is packed';
  if (schools.packing !== 'either' && data.by !== 'oiled' && data.by !== schools.packing)
    return `The sheet packs ${schools.packing === 'hand' ? 'by hand' : 'with a packer'}: say why not`;
  return otherLubricant(lubricant.name, data.lubricant);
}

function misfitFill({ schools, lubricant }: Sheet, step: Step, data: DataOf<'fill'>): string | null {
  if (step.kind !== 'fill' || !step.joint) return null;
  if (!data.joint) return 'Say what closes the cap: gasket, sealant, or neither';
  if (data.note) return null;
  if (schools.joint !== 'either' && data.joint !== schools.joint)
    return `The sheet closes the cap with ${schools.joint === 'gasket' ? 'a gasket' : 'sealant'}: say why not`;
  return otherLubricant(lubricant.name, data.lubricant);
}

function otherLubricant(asked: string, used: string): string | null {
  return sameName(asked, used)
    ? null
    : `The sheet asks for ${asked}: say why another, and that the old is all out`;
}
