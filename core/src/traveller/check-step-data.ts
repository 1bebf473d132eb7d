import { componentOf, dispose, PLANNED } from '../inspection/index.ts';
import { sideOfBand } from '../end-play/index.ts';
import {
  bandInMm,
  offered,
  type ReadyLine,
  sealDepths,
  seatFromTouched,
  whyNoSeat,
  whyNotTouched,
  type MeasuredSeat,
  type Sheet,
  type Step,
  type StepData,
} from '../procedure/index.ts';
import { whyNotTool } from '../tool/index.ts';
import { torqueSetting } from '../torque/index.ts';
import {
  isPastLimit,
  measureWay,
  partsToJudgeOf,
  partTitle,
  plannedParts,
  wearOf,
  whyNoStroke,
  type Act,
} from '../route/index.ts';
import { liningMinimums } from '../brake/index.ts';
import { askedOf, figureFor, thinLining, torqueFits } from './against-release.ts';
import { brakeKindsOf } from './brake-kind.ts';
import { hubHeat } from './hub-heat.ts';
import { currentRound, type WheelEnd } from './job.ts';
import { hasKingpin } from './kingpin.ts';
import { playMm, progressOf, readingRound, readingsOf, verdictOf } from './progress.ts';
import { whyNotFigure, whyNotReached } from './torque-bounds.ts';
import { openParts, readinessLines, routeStateOf } from './route-progress.ts';

type DataOf<K extends StepData['kind']> = Extract<StepData, { kind: K }>;

/** By whom, and on which day, something is recorded. */
interface Recording {
  by: { id: string; name: string };
  today: string;
  /** The moment, ISO; what cures is held against it. */
  now?: string;
}

/** Why what was recorded does not answer the step, or null. */
export function checkStepData(w: WheelEnd, step: Step, data: StepData, recording: Recording): string | null {
  const { by, today } = recording;
  if (data.kind !== step.kind) return `“${step.title}” is a step to ${step.kind}`;
  switch (data.kind) {
    case 'choose':
      return step.kind === 'choose' && offered(step.options).some((o) => o.id === data.option)
        ? null
        : `“${data.option}” is not a choice of “${step.title}”`;
    case 'lock':
      return checkLock(step, data);
    case 'inspect':
      return data.ok || data.note ? checkOther(w, step, by) : 'Say what was found';
    case 'torque':
      return step.kind === 'torque' ? checkTorque(w, step, data, today) : null;
    case 'turn':
      return step.kind === 'turn' ? checkTurn(w, step, data) : null;
    case 'measure':
      return checkTool(data, today) ?? checkMeasure(w, step, data);
    case 'joint':
      return checkJoint(w, data);
    case 'ready':
      return checkReady(w, data);
    case 'judge':
      return checkJudge(w, data);
    case 'linings':
      return checkLinings(w, data);
    case 'wear':
      return step.kind === 'wear' ? checkWear(step, data) : null;
    case 'stroke':
      return whyNoStroke(data) ?? (isPastLimit(step, data) && !data.note ? STROKE_OUT : null);
    case 'found':
      return checkFound(step, data);
    case 'compare':
      return checkCompare(w, data);
    case 'seal':
      return checkSeal(w.sheet, data);
    case 'pack':
      return checkPack(w.sheet, data);
    case 'fill':
      return checkFill(w, step, data);
    case 'heat':
      return checkHeat(w, data);
    case 'dimension':
      return checkDimension(w.sheet, step, data);
    case 'cure':
      return checkCure(w, data, recording);
    default:
      return null;
  }
}

function checkTorque(
  w: WheelEnd,
  step: Extract<Step, { kind: 'torque' }>,
  data: DataOf<'torque'>,
  today: string,
): string | null {
  const { listed, via, torque, asked } = data;
  if (listed) {
    const { settingNm } = torqueSetting({ targetNm: torque.si, ...via });
    const unfit = whyNotTool(listed, { kind: 'torque-wrench', today, settingNm });
    if (unfit) return unfit;
  }
  const ofSheet = w.sheet[step.figure];
  const figure = figureFor(ofSheet, asked);
  if (!figure) return 'Say what the maker’s sheet asks for';
  if (!ofSheet && asked) {
    const wrong = whyNotFigure(step.figure, asked.si) ?? whyOtherFigure(w, step, asked.si);
    if (wrong) return wrong;
  }
  const wrong = whyNotReached(step.figure, torque.si);
  if (wrong) return wrong;
  return torqueFits(torque.si, figure) || data.note ? null : 'The torque is off the sheet’s figure: say why';
}

/** A figure of the maker's is told once for all steps that go by it; another one means that the first was a slip. */
function whyOtherFigure(
  w: WheelEnd,
  step: Extract<Step, { kind: 'torque' }>,
  askedNm: number,
): string | null {
  const progress = progressOf(w);
  if (progress.some((p) => p.step.id === step.id && p.record)) return null;
  const told = progress.find(
    (p) =>
      p.step.kind === 'torque' && p.step.figure === step.figure && p.step.id !== step.id && p.record?.data,
  );
  const before = told?.record?.data?.kind === 'torque' ? told.record.data.asked : undefined;
  return before && Math.abs(before.si - askedNm) > SAME_NM
    ? `“${told!.step.title}” has ${before.value} ${before.unit} for the same figure: correct that one if it was wrong`
    : null;
}

/** Torques closer than this are one figure in two units, N·m. */
const SAME_NM = 1;

/** A turn is made as planned, or somebody says why not: by more than an eighth of a turn it is another turn. */
function checkTurn(w: WheelEnd, step: Extract<Step, { kind: 'turn' }>, data: DataOf<'turn'>): string | null {
  if (data.note) return null;
  const planned =
    step.turns === 'planned'
      ? currentRound(w).turns
      : step.turns === 'back-off'
        ? (w.sheet.backOff?.turns ?? null)
        : step.turns;
  if (planned === null || Math.abs(data.turns - planned) <= MOST_OFF_TURNS + 1e-9) return null;
  return 'This is not the turn that was asked for: say why';
}

/** Most that a turn of the nut may differ from what was asked, turns. Rule of this product. */
const MOST_OFF_TURNS = 0.125;

/** The dial or the pull scale of the shop's list, fit for its use. */
function checkTool({ by, listed }: DataOf<'measure'>, today: string): string | null {
  if (!listed) return null;
  if (by === 'feel') return 'What is felt is not measured with a tool';
  return whyNotTool(listed, { kind: by === 'dial' ? 'dial-indicator' : 'pull-scale', today });
}

/** The second person looks in a step of their own, under their own name. */
function checkLock(step: Step, { method }: DataOf<'lock'>): string | null {
  return step.kind === 'lock' && step.methods.some((m) => m.id === method)
    ? null
    : `“${method}” is not a way to lock this nut`;
}

/** A second look is another person's: by sign-in, never a name that is typed. */
function checkOther(w: WheelEnd, step: Step, by: { id: string }): string | null {
  if (step.kind !== 'inspect' || !step.otherThan) return null;
  const first = progressOf(w).find((p) => p.step.id === step.otherThan)?.record;
  return first?.by.id === by.id ? 'Another person looks at this than who made it' : null;
}

function checkHeat(w: WheelEnd, data: DataOf<'heat'>): string | null {
  if (!data.air) return 'Say how warm the air is';
  if (data.here.si < data.air.si - AIR_SLACK_K) return 'A hub is not colder than the air: measure again';
  return hubHeat(data, w.sheet.heat).verdict === 'fine' || data.note
    ? null
    : 'Much warmer than the air or the other side: say what was looked at, bearing and brake';
}

/** Thermometers differ by a little, K. */
const AIR_SLACK_K = 5;

function checkDimension(sheet: Sheet, step: Step, data: DataOf<'dimension'>): string | null {
  if (data.value.si < 0) return 'It is not under zero';
  const asked = askedOf(sheet, step, data);
  if (!asked) return 'Say between what it must lie: the maker’s figure, or the part’s own size';
  if (asked.least.si > asked.most.si) return 'The least is over the most';
  return (data.value.si >= asked.least.si && data.value.si <= asked.most.si) || data.note
    ? null
    : 'It is off its figure: put it right, or say what was found';
}

function checkCure(w: WheelEnd, { hours }: DataOf<'cure'>, { now }: Recording): string | null {
  const closed = progressOf(w).find((p) => p.step.id === 'axle-cover-3')?.record;
  if (!closed || !now) return 'First the cover is tightened';
  const until = Date.parse(closed.at) + hours * 3_600_000;
  const left = Math.ceil((until - Date.parse(now)) / 60_000);
  return left <= 0 ? null : `It cures for another ${left} min`;
}

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

function checkDial(w: WheelEnd, step: Step): string | null {
  const verdict = verdictOf(w, readingRound(w, step));
  if (!verdict) return 'End play is not measured';
  if (verdict.verdict === 'repeat') return 'Take three cycles that repeat within 0.001 in';
  if (step.stage === 'verify' && verdict.verdict !== 'in-band') return `The reading is ${verdict.verdict}`;
  return null;
}

const checkMeasure = (w: WheelEnd, step: Step, data: DataOf<'measure'>): string | null =>
  data.by === 'dial' && step.id !== 'swivel-preload' ? checkDial(w, step) : checkByHand(w, step, data);

/** Acceptance by feel or by drag. A pull off its figure is a reading like any other, and does not count. */
function checkByHand(w: WheelEnd, step: Step, data: DataOf<'measure'>): string | null {
  const { by, figure, mustPull } = measureWay({ stack: w.plan.stack, sheet: w.sheet }, step);
  if (by !== 'drag' && data.by === 'feel' && dialSaysOtherwise(w, step))
    return 'The dial read out of band for this setting: what is felt does not stand against it';
  if (by === 'dial') return 'This wheel end needs the dial';
  if ((data.by === 'drag') !== (by === 'drag'))
    return by === 'drag' ? 'This is measured by its drag' : 'This wheel end has end play, not drag';
  const { pull, asked } = data;
  if (!pull) return mustPull ? 'Measure the pull' : null;
  if (pull.si <= 0 || pull.si > MOST_PULL_N)
    return 'A pull of this size is not possible: check the figure and its unit';
  if (mustPull && !figure && !asked) return 'Enter the pull that the maker asks for';
  return asked && asked.least.si > asked.most.si ? 'The least is over the most' : null;
}

/** More than anybody pulls at a stud by hand, N. Rule of this product. */
const MOST_PULL_N = 2_000;

/** Whether a cycle of this setting is out of band. */
function dialSaysOtherwise(w: WheelEnd, step: Step): boolean {
  const { band } = w.sheet;
  return (
    band !== null &&
    readingsOf(w, readingRound(w, step)).some((r) => sideOfBand(playMm(r), bandInMm(band)) !== 'in-band')
  );
}

function checkJoint(
  w: WheelEnd,
  { felt, axleToKnuckle, knuckleToHub, kingpinLimit, bearingLimit, tipAt, radius, note }: DataOf<'joint'>,
): string | null {
  if (felt === 'nothing') return null;
  const tilt = tipAt !== undefined && tipAt !== 'hub';
  if (tilt && !(radius && radius.si > 0)) return 'Say how far from the middle of the axle the tip stood';
  if (tilt && bearingLimit) return 'A rocking is not held against an end-play band';
  if (axleToKnuckle && !hasKingpin(w)) return `${w.position} has no kingpin to measure`;
  if (axleToKnuckle && !kingpinLimit) return 'Say what the maker allows at the kingpin';
  if ((axleToKnuckle?.si ?? 0) < 0 || (knuckleToHub?.si ?? 0) < 0) return 'A movement is not negative';
  return knuckleToHub || note ? null : 'It moves: set the indicator from knuckle to hub, or say why not';
}

/** The lines a readiness list has to answer: all of them, or what a grown route asks for besides. */
export function linesToAnswer(w: WheelEnd): readonly ReadyLine[] {
  const lines = readinessLines(w);
  const open = new Set(openParts(w, 'ready'));
  return open.size === 0 ? lines : lines.filter((l) => open.has(l.what));
}

function checkReady(w: WheelEnd, { lines, note }: DataOf<'ready'>): string | null {
  const held = new Map(lines.map((l) => [l.what, l]));
  const asked = linesToAnswer(w);
  const words = new Map(asked.map((l) => [l.what, l.title ?? l.what]));
  const say = (what: string) => words.get(what) ?? what;
  const open = asked.find((l) => !held.has(l.what));
  if (open) return `Say how it stands with “${say(open.what)}”`;
  const undated = lines.find((l) => l.state === 'ordered' && !l.by);
  if (undated) return `When does “${say(undated.what)}” arrive`;
  const lacking = lines.filter((l) => l.state === 'missing' || l.state === 'ordered');
  if (lacking.length === 0 || note) return null;
  return `${lacking.map((l) => say(l.what)).join(', ')} not here: say why the work starts all the same`;
}

/** Parts that are to be judged now: all, or what a grown route bares besides. Ids. */
export function partsToJudge(w: WheelEnd): string[] {
  const open = openParts(w, 'judge');
  return open.length > 0 ? open : partsToJudgeOf(routeStateOf(w));
}

/** Parts that this work is there to renew: they may be answered as planned. Ids. */
export function partsPlanned(w: WheelEnd): string[] {
  return plannedParts(routeStateOf(w));
}

function checkJudge(w: WheelEnd, { findings, hardWorked }: DataOf<'judge'>): string | null {
  const pressure = { hardWorked, renewBearings: w.sheet.schools.bearings === 'renew' };
  const seen = new Map(findings.map((f) => [f.component, f]));
  if (seen.size < findings.length) return 'A part is judged twice';
  const open = partsToJudge(w).find((id) => !seen.has(id));
  if (open) return `Judge ${componentOf(open)!.title.toLowerCase()} as well`;
  const planned = partsPlanned(w);
  const unplanned = findings.find((f) => f.seen === PLANNED.id && !planned.includes(f.component));
  if (unplanned)
    return `This work does not renew ${componentOf(unplanned.component)?.title.toLowerCase() ?? unplanned.component}`;
  const wrong = findings.find((f) => dispose(f.component, f.seen, pressure)?.disposition !== f.disposition);
  return wrong ? `“${wrong.seen}” on ${wrong.component} asks for something else` : null;
}

function checkLinings(w: WheelEnd, data: DataOf<'linings'>): string | null {
  const kinds = brakeKindsOf(w);
  if (kinds && !kinds.includes(data.brake))
    return `This axle has another brake: ${liningMinimums[kinds[0]!].title.toLowerCase()}`;
  if (data.brake === 'none') return null;
  if (!data.inner || !data.outer) return 'Measure the lining inner and outer';
  if (data.inner.si < 0 || data.outer.si < 0) return 'A lining is not thinner than nothing';
  if (!data.set && !data.note) return 'The brake is not back: say why';
  const thin = thinLining(data);
  return thin && !data.note
    ? `The lining is ${thin.mm.toFixed(1)} mm, at or under ${thin.leastMm} mm: say what is done about it`
    : null;
}

const STROKE_OUT = 'The stroke is over its limit: find the cause, and enter what was found';

function checkWear(step: Extract<Step, { kind: 'wear' }>, data: DataOf<'wear'>): string | null {
  if ([...data.measured, data.discard].some((q) => q.si <= 0)) return 'A size is over zero';
  if (data.runout && !data.runoutLimit) return 'Enter what the maker allows as runout';
  if (!isPastLimit(step, data) || data.note) return null;
  return wearOf(step, data).state === 'discard'
    ? 'It is past its discard figure: enter what is done about it'
    : 'It runs out: look at the bearings’ play and at the faces, and enter what was found';
}

function checkFound(step: Step, { signs }: DataOf<'found'>): string | null {
  const strange = signs.find((id) => step.kind === 'found' && !step.signs.some((s) => s.id === id));
  return strange ? `“${strange}” is not on the list: say it in the note` : null;
}

function checkCompare(w: WheelEnd, { parts, note }: DataOf<'compare'>): string | null {
  const open = openParts(w, 'compare').find((part) => !parts.some((p) => p.part === part));
  if (open) return `Hold ${partTitle(open).toLowerCase()} against the old one as well`;
  const other = parts.find((p) => p.differs.length > 0);
  return other && !note ? `${partTitle(other.part)} is not as the old one: say why it goes in` : null;
}

function checkSeal(
  { schools }: Sheet,
  { outside, depth, seat, touched, note }: DataOf<'seal'>,
): string | null {
  if (schools.sealOutside !== 'either' && outside !== schools.sealOutside && !note)
    return `The sheet sets this seal ${schools.sealOutside}: say why not`;
  if (!seat) return null;
  const wrong = (touched && whyNotTouched(touched)) ?? whyNoSeat(seat);
  if (wrong) return wrong;
  if (touched && !sameSeat(seatFromTouched(touched, seat), seat))
    return 'The seat is not what was measured: reckon it again';
  const { ranges } = sealDepths(seat);
  if (note) return null;
  if (ranges.length === 0) return 'No depth keeps the lips on sound journal: say what is done';
  if (!depth) return 'Say how deep the seal sits';
  const mm = depth.si * 1000;
  return ranges.some((r) => mm >= r.fromMm - DEPTH_SLACK_MM && mm <= r.toMm + DEPTH_SLACK_MM)
    ? null
    : 'At this depth a lip does not run on sound journal: set it again, or say why';
}

const sameSeat = (a: MeasuredSeat, b: MeasuredSeat) =>
  (['journalStart', 'journalEnd', 'grooveStart', 'grooveEnd'] as const).every(
    (key) => Math.abs((a[key]?.si ?? 0) - (b[key]?.si ?? 0)) < 1e-7,
  );

/** Depths are read with a rule or a caliper, mm. */
const DEPTH_SLACK_MM = 0.05;

function checkPack({ schools, lubricant }: Sheet, data: DataOf<'pack'>): string | null {
  if (data.note) return null;
  if (lubricant.kind === 'grease' && data.by === 'oiled')
    return 'This hub runs in grease: say why it is oiled';
  if (lubricant.kind === 'oil' && data.by !== 'oiled') return 'This hub runs in oil: say why it is packed';
  if (schools.packing !== 'either' && data.by !== 'oiled' && data.by !== schools.packing)
    return `The sheet packs ${schools.packing === 'hand' ? 'by hand' : 'with a packer'}: say why not`;
  return otherLubricant(lubricant.name, data.lubricant);
}

function checkFill(w: WheelEnd, step: Step, data: DataOf<'fill'>): string | null {
  const { schools, lubricant } = w.sheet;
  if (step.kind !== 'fill') return null;
  if (step.joint && !data.joint) return 'Say what closes the cap: gasket, sealant, or neither';
  if (data.note) return null;
  if (step.joint && schools.joint !== 'either' && data.joint !== schools.joint)
    return `The sheet closes the cap with ${schools.joint === 'gasket' ? 'a gasket' : 'sealant'}: say why not`;
  const packed = (step as Act).layer === 'axle' ? null : packedWith(w);
  if (packed && !sameName(packed, data.lubricant))
    return `The bearings have ${packed}: one lubricant in one place, or say that the first is all out`;
  return otherLubricant(lubricant.name, data.lubricant);
}

/** What the bearings were packed or oiled with last in this job, or null. */
function packedWith(w: WheelEnd): string | null {
  const data = progressOf(w).find((p) => p.step.kind === 'pack')?.record?.data;
  return data?.kind === 'pack' ? data.lubricant : null;
}

function otherLubricant(asked: string, used: string): string | null {
  return sameName(asked, used)
    ? null
    : `The sheet asks for ${asked}: say why another, and that the old is all out`;
}
