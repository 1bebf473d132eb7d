import { dispose, PLANNED } from '../inspection/index.ts';
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
import { layerOf } from '../stack/index.ts';
import { torqueSetting } from '../torque/index.ts';
import {
  isPastLimit,
  measureWay,
  partsToJudgeOf,
  plannedParts,
  rollingFigure,
  sensorState,
  wearOf,
  whyNoStroke,
  type Act,
} from '../route/index.ts';
import { askedOf, figureFor, thinLining, torqueFits } from './against-release.ts';
import { brakeKindsOf } from './brake-kind.ts';
import { renewedParts } from './findings.ts';
import { hubHeat } from './hub-heat.ts';
import type { Actor } from '../access/index.ts';
import { currentRound, type WheelEnd } from './job.ts';
import { hasKingpin } from './kingpin.ts';
import { playMm, progressOf, readingRound, readingsOf, verdictOf } from './progress.ts';
import { whyNotFigure, whyNotReached } from './torque-bounds.ts';
import { openParts, readinessLines, routeStateOf } from './route-progress.ts';
import { refusal, type Refusal } from './refusal.ts';

type DataOf<K extends StepData['kind']> = Extract<StepData, { kind: K }>;

/** By whom, and on which day, something is recorded. */
interface Recording {
  by: Actor;
  today: string;
  /** The moment, ISO; what cures is held against it. */
  now?: string;
}

/** A step of a wheel end, as a refusal names it. */
export const atStep = ({ position }: WheelEnd, { stage, id }: Step) => ({ position, stage, step: id });

/** Why what was recorded does not answer the step, or null. */
export function checkStepData(w: WheelEnd, step: Step, data: StepData, recording: Recording): Refusal | null {
  const { by, today } = recording;
  if (data.kind !== step.kind)
    return refusal('another-kind-of-step', { ...atStep(w, step), kind: step.kind });
  switch (data.kind) {
    case 'choose':
      return step.kind === 'choose' && offered(step.options).some((o) => o.id === data.option)
        ? null
        : refusal('no-such-choice', { ...atStep(w, step), option: data.option });
    case 'lock':
      return checkLock(step, data);
    case 'inspect':
      return data.ok || data.note ? checkOther(w, step, by) : refusal('say-what-was-found');
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
      return checkStroke(w, step, data);
    case 'rolling':
      return checkRolling(w, data, today);
    case 'shims':
      return checkShims(data);
    case 'sensor':
      return checkSensor(data);
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
): Refusal | null {
  const { listed, via, torque, asked } = data;
  if (listed) {
    const { settingNm } = torqueSetting({ targetNm: torque.si, ...via });
    const unfit = whyNotTool(listed, { kind: 'torque-wrench', today, settingNm });
    if (unfit) return refusal('tool-unfit', { why: unfit });
  }
  const ofSheet = w.sheet[step.figure];
  const figure = figureFor(ofSheet, asked);
  if (!figure) return refusal('no-figure-named');
  if (!ofSheet && asked) {
    const wrong = whyNotFigure(step.figure, asked.si) ?? whyOtherFigure(w, step, asked.si);
    if (wrong) return wrong;
  }
  const wrong = whyNotReached(step.figure, torque.si);
  if (wrong) return wrong;
  return torqueFits(torque.si, figure) || data.note ? null : refusal('torque-off');
}

/** A figure of the maker's is told once for all steps that go by it; another one means that the first was a slip. */
function whyOtherFigure(
  w: WheelEnd,
  step: Extract<Step, { kind: 'torque' }>,
  askedNm: number,
): Refusal | null {
  const progress = progressOf(w);
  if (progress.some((p) => p.step.id === step.id && p.record)) return null;
  const told = progress.find(
    (p) =>
      p.step.kind === 'torque' && p.step.figure === step.figure && p.step.id !== step.id && p.record?.data,
  );
  const before = told?.record?.data?.kind === 'torque' ? told.record.data.asked : undefined;
  return before && Math.abs(before.si - askedNm) > SAME_NM
    ? refusal('figure-told-otherwise', {
        ...atStep(w, told!.step),
        ...{ value: before.value, unit: before.unit },
      })
    : null;
}

/** Torques closer than this are one figure in two units, N·m. */
const SAME_NM = 1;

/** A turn is made as planned, or somebody says why not: by more than an eighth of a turn it is another turn. */
function checkTurn(w: WheelEnd, step: Extract<Step, { kind: 'turn' }>, data: DataOf<'turn'>): Refusal | null {
  if (data.note) return null;
  const planned =
    step.turns === 'planned'
      ? currentRound(w).turns
      : step.turns === 'back-off'
        ? (w.sheet.backOff?.turns ?? null)
        : step.turns;
  if (planned === null || Math.abs(data.turns - planned) <= MOST_OFF_TURNS + 1e-9) return null;
  return refusal('turn-off');
}

/** Most that a turn of the nut may differ from what was asked, turns. Rule of this product. */
const MOST_OFF_TURNS = 0.125;

/** The dial or the pull scale of the shop's list, fit for its use. */
function checkTool({ by, listed }: DataOf<'measure'>, today: string): Refusal | null {
  if (!listed) return null;
  if (by === 'feel') return refusal('felt-with-a-tool');
  const why = whyNotTool(listed, { kind: by === 'dial' ? 'dial-indicator' : 'pull-scale', today });
  return why && refusal('tool-unfit', { why });
}

/** The second person looks in a step of their own, under their own name. */
function checkLock(step: Step, { method }: DataOf<'lock'>): Refusal | null {
  return step.kind === 'lock' && step.methods.some((m) => m.id === method)
    ? null
    : refusal('no-such-lock', { method });
}

/** A second look is another person's: by sign-in, never a name that is typed, or that a sender says. */
function checkOther(w: WheelEnd, step: Step, by: Actor): Refusal | null {
  if (step.kind !== 'inspect' || !step.otherThan) return null;
  if (by.sentBy) return refusal('not-sent', { name: by.name });
  const first = progressOf(w).find((p) => p.step.id === step.otherThan)?.record;
  return first?.by.id === by.id ? refusal('same-person') : null;
}

function checkHeat(w: WheelEnd, data: DataOf<'heat'>): Refusal | null {
  if (!data.air) return refusal('no-air-temperature');
  if (data.here.si < data.air.si - AIR_SLACK_K) return refusal('hub-under-air');
  return hubHeat(data, w.sheet.heat).verdict === 'fine' || data.note ? null : refusal('hub-hot');
}

/** Thermometers differ by a little, K. */
const AIR_SLACK_K = 5;

function checkDimension(sheet: Sheet, step: Step, data: DataOf<'dimension'>): Refusal | null {
  if (data.value.si < 0) return refusal('under-zero');
  const asked = askedOf(sheet, step, data);
  if (!asked) return refusal('no-limits');
  if (asked.least.si > asked.most.si) return refusal('least-over-most');
  return (data.value.si >= asked.least.si && data.value.si <= asked.most.si) || data.note
    ? null
    : refusal('dimension-off');
}

function checkCure(w: WheelEnd, { hours }: DataOf<'cure'>, { now }: Recording): Refusal | null {
  const closed = progressOf(w).find((p) => p.step.id === 'axle-cover-3')?.record;
  if (!closed || !now) return refusal('cover-not-tight');
  const until = Date.parse(closed.at) + hours * 3_600_000;
  const left = Math.ceil((until - Date.parse(now)) / 60_000);
  return left <= 0 ? null : refusal('still-cures', { minutes: left });
}

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

function checkDial(w: WheelEnd, step: Step): Refusal | null {
  const verdict = verdictOf(w, readingRound(w, step));
  if (!verdict) return refusal('not-measured');
  if (verdict.verdict === 'repeat') return refusal('not-repeated');
  if (step.stage === 'verify' && verdict.verdict !== 'in-band')
    return refusal('reading-out', { verdict: verdict.verdict });
  return null;
}

const checkMeasure = (w: WheelEnd, step: Step, data: DataOf<'measure'>): Refusal | null =>
  data.by === 'dial' && step.id !== 'swivel-preload' ? checkDial(w, step) : checkByHand(w, step, data);

/** Acceptance by feel or by drag. A pull off its figure is a reading like any other, and does not count. */
function checkByHand(w: WheelEnd, step: Step, data: DataOf<'measure'>): Refusal | null {
  const { by, figure, mustPull } = measureWay({ stack: w.plan.stack, sheet: w.sheet }, step);
  if (by !== 'drag' && data.by === 'feel' && dialSaysOtherwise(w, step))
    return refusal('dial-says-otherwise');
  if (by === 'dial') return refusal('dial-needed');
  if ((data.by === 'drag') !== (by === 'drag')) return refusal(by === 'drag' ? 'by-drag' : 'by-play');
  const { pull, asked } = data;
  if (!pull) return mustPull ? refusal('no-pull') : null;
  if (pull.si <= 0 || pull.si > MOST_PULL_N) return refusal('pull-not-possible');
  if (mustPull && !figure && !asked) return refusal('no-pull-asked');
  return asked && asked.least.si > asked.most.si ? refusal('least-over-most') : null;
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
): Refusal | null {
  if (felt === 'nothing') return null;
  const tilt = tipAt !== undefined && tipAt !== 'hub';
  if (tilt && !(radius && radius.si > 0)) return refusal('no-tip-distance');
  if (tilt && bearingLimit) return refusal('rocking-against-band');
  if (axleToKnuckle && !hasKingpin(w)) return refusal('no-kingpin', { position: w.position });
  if (axleToKnuckle && !kingpinLimit) return refusal('no-kingpin-limit');
  if ((axleToKnuckle?.si ?? 0) < 0 || (knuckleToHub?.si ?? 0) < 0) return refusal('movement-negative');
  return knuckleToHub || note ? null : refusal('movement-not-measured');
}

/** The lines a readiness list has to answer: all of them, or what a grown route asks for besides. */
export function linesToAnswer(w: WheelEnd): readonly ReadyLine[] {
  const lines = readinessLines(w);
  const open = new Set(openParts(w, 'ready'));
  return open.size === 0 ? lines : lines.filter((l) => open.has(l.what));
}

function checkReady(w: WheelEnd, { lines, note }: DataOf<'ready'>): Refusal | null {
  const at = { position: w.position };
  const held = new Map(lines.map((l) => [l.what, l]));
  const asked = linesToAnswer(w);
  const open = asked.find((l) => !held.has(l.what));
  if (open) return refusal('line-open', { ...at, what: open.what });
  const undated = lines.find((l) => l.state === 'ordered' && !l.by);
  if (undated) return refusal('line-undated', { ...at, what: undated.what });
  const lacking = lines.filter((l) => l.state === 'missing' || l.state === 'ordered');
  if (lacking.length === 0 || note) return null;
  return refusal('lines-lacking', { ...at, lines: lacking.map((l) => l.what) });
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

function checkJudge(w: WheelEnd, { findings, hardWorked }: DataOf<'judge'>): Refusal | null {
  const pressure = { hardWorked, renewBearings: w.sheet.schools.bearings === 'renew' };
  const seen = new Map(findings.map((f) => [f.component, f]));
  if (seen.size < findings.length) return refusal('judged-twice');
  const open = partsToJudge(w).find((id) => !seen.has(id));
  if (open) return refusal('not-judged', { component: open });
  const planned = partsPlanned(w);
  const unplanned = findings.find((f) => f.seen === PLANNED.id && !planned.includes(f.component));
  if (unplanned) return refusal('not-renewed-here', { component: unplanned.component });
  const wrong = findings.find((f) => dispose(f.component, f.seen, pressure)?.disposition !== f.disposition);
  return wrong ? refusal('judged-otherwise', { component: wrong.component, seen: wrong.seen }) : null;
}

function checkLinings(w: WheelEnd, data: DataOf<'linings'>): Refusal | null {
  const kinds = brakeKindsOf(w);
  if (kinds && !kinds.includes(data.brake)) return refusal('another-brake', { brake: kinds[0]! });
  if (data.brake === 'none') return null;
  if (!data.inner || !data.outer) return refusal('linings-not-measured');
  if (data.inner.si < 0 || data.outer.si < 0) return refusal('lining-under-nothing');
  if (!data.set && !data.note) return refusal('brake-not-back');
  const thin = thinLining(data);
  return thin && !data.note ? refusal('lining-thin', { mm: thin.mm, leastMm: thin.leastMm }) : null;
}

function checkStroke({ plan }: WheelEnd, step: Step, data: DataOf<'stroke'>): Refusal | null {
  const fault = whyNoStroke(data);
  if (fault) return refusal('stroke-fault', { fault });
  const { chamberSize, chamberStroke } = layerOf(plan.stack, 'brake-outer') ?? {};
  const other =
    (chamberSize && data.chamber !== chamberSize) || (chamberStroke && data.stroke !== chamberStroke);
  if (other && !data.note) return refusal('chamber-not-as-built');
  return isPastLimit(step, data) && !data.note ? refusal('stroke-out') : null;
}

function checkWear(step: Extract<Step, { kind: 'wear' }>, data: DataOf<'wear'>): Refusal | null {
  if ([...data.measured, data.discard].some((q) => q.si <= 0)) return refusal('size-not-over-zero');
  if (data.runout && !data.runoutLimit) return refusal('no-runout-limit');
  if (!isPastLimit(step, data) || data.note) return null;
  return refusal(wearOf(step, data).state === 'discard' ? 'past-discard' : 'runs-out');
}

/** A rolling torque off its figure is a reading like any other, and does not count. */
function checkRolling(w: WheelEnd, data: DataOf<'rolling'>, today: string): Refusal | null {
  const { torque, pull, radius, sealDrag, asked, listed } = data;
  const why = listed && whyNotTool(listed, { kind: 'pull-scale', today });
  if (why) return refusal('tool-unfit', { why });
  if ([torque, pull, radius].some((q) => q && q.si <= 0)) return refusal('size-not-over-zero');
  const nm = torque?.si ?? pull!.si * radius!.si;
  if ((sealDrag?.si ?? 0) > nm) return refusal('seal-drags-more');
  if (asked && asked.least.si > asked.most.si) return refusal('least-over-most');
  if (data.bearings === 'run-in' && renewedParts(w).has('cups-and-rollers')) return refusal('bearings-new');
  return rollingFigure(w.sheet, data) || asked ? null : refusal('no-rolling-asked');
}

function checkSensor(data: DataOf<'sensor'>): Refusal | null {
  if (data.set === 'gap' && !(data.gap && data.gap.si >= 0)) return refusal('no-gap');
  const state = sensorState(data);
  return (state === 'low' || state === 'unlike') && !data.note ? refusal('sensor-off', { state }) : null;
}

function checkShims({ current, play, preload, chosen }: DataOf<'shims'>): Refusal | null {
  if ([current, chosen].some((q) => q.si <= 0)) return refusal('size-not-over-zero');
  if (play.si <= 0) return refusal('no-play-for-shims');
  if (preload.least.si < 0) return refusal('movement-negative');
  return preload.least.si > preload.most.si ? refusal('least-over-most') : null;
}

function checkFound(step: Step, { signs }: DataOf<'found'>): Refusal | null {
  const strange = signs.find((id) => step.kind === 'found' && !step.signs.some((s) => s.id === id));
  return strange ? refusal('no-such-sign', { sign: strange }) : null;
}

function checkCompare(w: WheelEnd, { parts, note }: DataOf<'compare'>): Refusal | null {
  const open = openParts(w, 'compare').find((part) => !parts.some((p) => p.part === part));
  if (open) return refusal('not-compared', { part: open });
  const other = parts.find((p) => p.differs.length > 0);
  return other && !note ? refusal('part-differs', { part: other.part }) : null;
}

function checkSeal(
  { schools }: Sheet,
  { outside, depth, seat, touched, note }: DataOf<'seal'>,
): Refusal | null {
  if (schools.sealOutside !== 'either' && outside !== schools.sealOutside && !note)
    return refusal('seal-outside', { outside: schools.sealOutside });
  if (!seat) return null;
  const wrong = (touched && whyNotTouched(touched)) ?? whyNoSeat(seat);
  if (wrong) return refusal('seat-fault', { fault: wrong });
  if (touched && !sameSeat(seatFromTouched(touched, seat), seat)) return refusal('seat-not-as-measured');
  const { ranges } = sealDepths(seat);
  if (note) return null;
  if (ranges.length === 0) return refusal('no-sound-depth');
  if (!depth) return refusal('no-seal-depth');
  const mm = depth.si * 1000;
  return ranges.some((r) => mm >= r.fromMm - DEPTH_SLACK_MM && mm <= r.toMm + DEPTH_SLACK_MM)
    ? null
    : refusal('seal-depth-off');
}

const sameSeat = (a: MeasuredSeat, b: MeasuredSeat) =>
  (['journalStart', 'journalEnd', 'grooveStart', 'grooveEnd'] as const).every(
    (key) => Math.abs((a[key]?.si ?? 0) - (b[key]?.si ?? 0)) < 1e-7,
  );

/** Depths are read with a rule or a caliper, mm. */
const DEPTH_SLACK_MM = 0.05;

function checkPack({ schools, lubricant }: Sheet, data: DataOf<'pack'>): Refusal | null {
  if (data.note) return null;
  if (lubricant.kind === 'grease' && data.by === 'oiled') return refusal('grease-oiled');
  if (lubricant.kind === 'oil' && data.by !== 'oiled') return refusal('oil-packed');
  if (schools.packing !== 'either' && data.by !== 'oiled' && data.by !== schools.packing)
    return refusal('packed-otherwise', { by: schools.packing });
  return otherLubricant(lubricant.name, data.lubricant);
}

function checkFill(w: WheelEnd, step: Step, data: DataOf<'fill'>): Refusal | null {
  const { schools, lubricant } = w.sheet;
  if (step.kind !== 'fill') return null;
  if (step.joint && !data.joint) return refusal('no-joint');
  if (data.note) return null;
  if (step.joint && schools.joint !== 'either' && data.joint !== schools.joint)
    return refusal('joint-otherwise', { joint: schools.joint });
  const packed = (step as Act).layer === 'axle' ? null : packedWith(w);
  if (packed && !sameName(packed, data.lubricant)) return refusal('two-lubricants', { packed });
  return otherLubricant(lubricant.name, data.lubricant);
}

/** What the bearings were packed or oiled with last in this job, or null. */
function packedWith(w: WheelEnd): string | null {
  const data = progressOf(w).find((p) => p.step.kind === 'pack')?.record?.data;
  return data?.kind === 'pack' ? data.lubricant : null;
}

function otherLubricant(asked: string, used: string): Refusal | null {
  return sameName(asked, used) ? null : refusal('other-lubricant', { asked });
}
