import { liningMinimums } from '../brake/index.ts';
import { sideOfBand, type EndPlayResult } from '../end-play/index.ts';
import { lockPositions, nutTravel } from '../nut/index.ts';
import { bandInMm, type Sheet, type Step, type StepData, type TorqueFigure } from '../procedure/index.ts';
import { valueIn, type Quantity } from '../quantity/index.ts';
import { fittedBy, measureWay, pullOff, verifyBy, withoutCage, type Act } from '../route/index.ts';
import { layerOf } from '../stack/index.ts';
import { layerAt, wasPinOut } from '../assembly/index.ts';
import { oppositeOf } from '../axle-plan/index.ts';
import { decidedOn, judgedParts, oldParts, readyLines, renewedParts } from './findings.ts';
import { HEAT_LIMITS, hubHeat } from './hub-heat.ts';
import { AS_FOUND, type StepRecord, type WheelEnd } from './job.ts';
import type { Objection, ObjectionCode } from './objection.ts';
import { movementLimitMm, openFindings } from './open-findings.ts';
import { openQuestions, playMm, progressOf, readingsOf, verdictOf } from './progress.ts';
import { layersToOpen } from './route-progress.ts';
import { RULES } from './rules.ts';

/** A single figure counts as reached within 4 % (ISO 6789 type II class A, value from memory); a range is the range. */
const TORQUE_TOLERANCE = 0.04;
const SLACK_NM = 1e-6;

/** Whether a torque lies within a sheet's figure; the tool's tolerance widens a single figure only. Both in N·m. */
export function torqueFits(torqueNm: number, figure: { min: { si: number }; max: { si: number } }): boolean {
  const tolerance = figure.min.si === figure.max.si ? TORQUE_TOLERANCE : 0;
  return (
    torqueNm >= figure.min.si * (1 - tolerance) - SLACK_NM &&
    torqueNm <= figure.max.si * (1 + tolerance) + SLACK_NM
  );
}

/** The lining that is at or under its minimum, mm, or null. */
export function thinLining({
  brake,
  inner,
  outer,
}: Extract<StepData, { kind: 'linings' }>): { mm: number; leastMm: number } | null {
  const { mm } = liningMinimums[brake];
  const least = Math.min(inner?.si ?? Infinity, outer?.si ?? Infinity) * 1000;
  return brake === 'none' || least > mm + 1e-9 ? null : { mm: least, leastMm: mm };
}

/** The figure a torque is held against: the sheet's, or where it has none the one read off the maker's. */
export function figureFor(ofSheet: TorqueFigure | null, asked: Quantity | undefined) {
  return ofSheet ?? (asked ? { min: asked, max: asked } : null);
}

/** Who may release without a step; null for an optional one. */
function guardOf(step: Step): Objection['guard'] | null {
  const { guard } = step as Act;
  return guard === 'optional' ? null : guard;
}

const object = (
  code: ObjectionCode,
  guard: Objection['guard'],
  params: Objection['params'] = {},
): Objection => ({ code, params, guard });

/**
 * Everything that stands against the release of a wheel end; empty when nothing does. A missing or skipped step, a
 * torque off its figure, an inspection that said no, no accepted reading, a reading out of band, no lock, a part that
 * is to be replaced and still in, a hub too hot. Each says whether a supervisor may release in spite of it.
 * @source the rules of this product; A, B and the band: TMC RP 618
 */
export function againstRelease(wheelEnd: WheelEnd): Objection[] {
  if (wheelEnd.firstBuild) return [object('read-only', 'never')];
  const undecided = openQuestions(wheelEnd).map((q) =>
    object('undecided', 'never', { component: q.component }),
  );
  const steps = progressOf(wheelEnd).flatMap(({ step, record }) => objection(step, record, wheelEnd));
  const findings = openFindings(wheelEnd).map(({ id, guard, note }) =>
    object('finding', guard, { finding: id, note }),
  );
  const notReached = [...layersToOpen(wheelEnd).keys()].map((layer) =>
    object('layer-not-reached', 'never', { layer }),
  );
  return [
    ...undecided,
    ...notReached,
    ...steps,
    ...againstReading(wheelEnd),
    ...againstDrag(wheelEnd),
    ...againstParts(wheelEnd),
    ...againstOldParts(wheelEnd),
    ...againstOthers(wheelEnd),
    ...againstOtherSide(wheelEnd),
    ...findings,
  ];
}

function objection(step: Step, record: StepRecord | null, w: WheelEnd): Objection[] {
  const at = { stage: step.stage, step: step.id };
  const guard = guardOf(step);
  if (record?.data?.kind === 'heat') return againstHeat(w, record.data, at);
  if (!guard) return [];
  if (!record) return [missing(step, w, guard)];
  const note = record.data?.note ?? '';
  if (record.skipped !== null) {
    const loose = step.kind === 'measure' && mayStayLoose(w);
    // A skipped measurement stands as what was measured, below.
    return loose ? [] : [object('skipped', guard, { ...at, reason: record.skipped })];
  }
  const { data } = record;
  switch (data.kind) {
    case 'inspect':
      return data.ok ? [] : [object('said-no', guard, { ...at, note })];
    case 'linings': {
      const thin = thinLining(data);
      const { brake } = data;
      return [
        ...(data.set ? [] : [object('brake-not-back', guard, { ...at, note })]),
        ...(thin && data.set
          ? [object('lining-thin', thin.mm > 0 ? 'supervisor' : 'never', { ...thin, brake, note })]
          : []),
      ];
    }
    case 'torque':
      return [...againstTorque(step, data, w.sheet, guard), ...againstTool(step, data, guard)];
    case 'dimension': {
      const asked = askedOf(w.sheet, step, data);
      const off = asked && (data.value.si < asked.least.si || data.value.si > asked.most.si);
      return off ? [object('dimension-off', guard, { ...at, note })] : [];
    }
    default:
      return [];
  }
}

/** Between what a dimension must lie: the sheet's own figure, or what was read off the maker's or the part. */
export function askedOf(
  { shaftMovement }: Sheet,
  step: Step,
  { asked }: Extract<StepData, { kind: 'dimension' }>,
): { least: { si: number }; most: { si: number } } | null {
  if (step.kind === 'dimension' && step.what === 'shaft-movement' && shaftMovement)
    return { least: shaftMovement.min, most: shaftMovement.max };
  return asked ?? null;
}

/** A step that is not recorded, or was answered with no since it could be made. */
function missing(step: Step, w: WheelEnd, guard: Objection['guard']): Objection {
  const at = { stage: step.stage, step: step.id };
  const last = w.records.findLast((r) => r.stage === step.stage && r.stepId === step.id);
  if (last?.data && w.notCounted[last.eventId]?.why === 'no') {
    const note = last.data.note ?? '';
    return last.data.kind === 'linings'
      ? object('brake-not-back', guard, { ...at, note })
      : object('said-no', guard, { ...at, note });
  }
  return object('missing', guard, at);
}

function againstTorque(
  step: Step,
  { torque, asked }: Extract<StepData, { kind: 'torque' }>,
  sheet: Sheet,
  guard: Objection['guard'],
): Objection[] {
  if (step.kind !== 'torque') return [];
  const figure = figureFor(sheet[step.figure], asked);
  if (!figure || torqueFits(torque.si, figure)) return [];
  // Too little holds nothing; too much has stretched what it holds: loosened, judged, torqued anew.
  return [
    object('torque-off', guard, {
      stage: step.stage,
      step: step.id,
      reached: torque.value,
      unit: torque.unit,
      from: figure.min.value,
      to: figure.max.value,
      askedUnit: figure.max.unit,
    }),
  ];
}

/** What holds a wheel, hub or brake on is torqued with a tool that is known to measure. */
function againstTool(
  step: Step,
  { tool, listed }: Extract<StepData, { kind: 'torque' }>,
  guard: Objection['guard'],
): Objection[] {
  if (guard !== 'never' || listed) return [];
  return [object('tool-not-listed', 'supervisor', { stage: step.stage, step: step.id, tool })];
}

function againstHeat(
  { sheet }: WheelEnd,
  data: Extract<StepData, { kind: 'heat' }>,
  at: Objection['params'],
): Objection[] {
  const { verdict } = hubHeat(data, sheet.heat);
  if (verdict === 'fine') return [];
  const limitK = (sheet.heat ?? HEAT_LIMITS).notReleasedOverAirK;
  return [object('too-hot', verdict === 'not-released' ? 'never' : 'supervisor', { ...at, verdict, limitK })];
}

/** A setting over its band may stay only on a pinned nut whose next position is tight, up to twice the upper limit. */
export function mayStayLoose(w: WheelEnd): boolean {
  const result = verdictOf(w);
  if (result?.verdict !== 'loose') return false;
  return (
    layerOf(w.plan.stack, 'nut')?.kind === 'D' && underTwice(result, w.sheet) && nextIsTight(result, w.sheet)
  );
}

/** Whether the next lock position inward is known to be tight: then there is none better. */
function nextIsTight({ endPlayMm }: EndPlayResult, { band, thread, lock }: Sheet): boolean {
  if (!band || !thread || lock?.kind !== 'castellated') return false;
  const [next] = lockPositions(lock).filter((turns) => turns > 0);
  return next !== undefined && endPlayMm - nutTravel(thread, next) < band.min.si * 1000;
}

const underTwice = ({ endPlayMm }: EndPlayResult, { band }: Sheet) =>
  band !== null && endPlayMm <= 2 * band.max.si * 1000;

/** Objections to the end play of a wheel end. */
const ofPlay: ReadonlySet<ObjectionCode> = new Set([
  'loose',
  'tight',
  'found-out',
  'not-measured',
  'not-repeated',
]);

/** Whether a wheel end was released in spite of its end play: a reading in band is what that leaves to do. */
export const inSpiteOfPlay = ({ release }: WheelEnd): boolean =>
  release?.overridden.some((o) => ofPlay.has(o.code)) ?? false;

function againstReading(w: WheelEnd): Objection[] {
  const measuring = progressOf(w).find(
    ({ step }) => step.kind === 'measure' && step.stage === 'verify' && step.id !== 'swivel-preload',
  );
  const by = verifyBy(w.plan.stack, w.sheet);
  if (!measuring) return againstAsFound(w);
  const accepted = measuring.record?.data;
  if (by === 'drag' || by === 'none') return [];
  const limitMm = movementLimitMm(w);
  if (limitMm !== null) {
    const most = Math.max(0, ...readingsOf(w).map(playMm));
    return most > limitMm ? [object('moves', 'never', { mm: most, limitMm })] : [];
  }
  if (accepted?.kind === 'measure' && accepted.by === 'feel') return againstFeel(w);
  const result = verdictOf(w);
  if (!result) return [object('not-measured', 'never')];
  switch (result.verdict) {
    case 'in-band':
      return [];
    case 'tight':
      return [object('tight', 'never', offBand(w, result))];
    case 'loose': {
      const guard = mayStayLoose(w) ? 'supervisor' : 'never';
      return [object('loose', guard, offBand(w, result))];
    }
    default:
      return [object('not-repeated', 'never')];
  }
}

/** What was felt does not stand against a dial that read out of band for the same setting. */
function againstFeel(w: WheelEnd): Objection[] {
  const { band } = w.sheet;
  const out = band && readingsOf(w).some((r) => sideOfBand(playMm(r), bandInMm(band)) !== 'in-band');
  return out ? [object('dial-says-otherwise', 'never')] : [];
}

/** Every pull is held against the sheet as it is now: the hub's, and that of the swivel bearings. */
function againstDrag(w: WheelEnd): Objection[] {
  return progressOf(w).flatMap(({ step, record }) => {
    const data = record?.data;
    if (step.kind !== 'measure' || data?.kind !== 'measure') return [];
    const { by, figure } = measureWay({ stack: w.plan.stack, sheet: w.sheet }, step);
    const fits = by !== 'drag' || (pullOff(figure, data) === null && (data.pull || !figure));
    return fits ? [] : [object('drag-off', 'never', { stage: step.stage, step: step.id })];
  });
}

/** A setting that was only looked at and found out leads on: adjust, defer with a date, or out of service. */
function againstAsFound(w: WheelEnd): Objection[] {
  if (layerAt(w.side, 'nut').moved) return [];
  const result = verdictOf(w, AS_FOUND);
  // Readings count once taken: too few, or none that repeat, tell nothing yet.
  if (result && result.verdict !== 'in-band' && result.verdict !== 'tight' && result.verdict !== 'loose')
    return [object('not-repeated', 'never')];
  if (result?.verdict !== 'tight' && result?.verdict !== 'loose') return [];
  const waits = result.verdict === 'loose' && underTwice(result, w.sheet);
  return [
    object('found-out', waits ? 'supervisor' : 'never', { ...offBand(w, result), verdict: result.verdict }),
  ];
}

function offBand({ sheet }: WheelEnd, { byMm }: EndPlayResult): Objection['params'] {
  const unit = sheet.band?.max.unit ?? 'mm';
  return { by: valueIn({ value: byMm, unit: 'mm' }, unit), unit };
}

/** The cross pin holds both clips: once it was out, both sides are looked at in the job. */
function againstOtherSide({ side, withOther, position }: WheelEnd): Objection[] {
  const isOut = layerOf(side.stack, 'shaft')?.kind === 'c-clip' && wasPinOut(side);
  return isOut && !withOther ? [object('other-side', 'never', { position: oppositeOf(position) })] : [];
}

/** What others put on: a supervisor may take it on their word, once all that can be seen and measured was. */
const againstOthers = ({ side }: WheelEnd): Objection[] =>
  Object.entries(side.others).map(([layer, { who }]) => object('by-others', 'supervisor', { layer, who }));

/** What is not used twice and went in again: the unit may stand on it in the yard. Asked since rules 4. */
const againstOldParts = (w: WheelEnd): Objection[] =>
  (w.rules ?? RULES) < 4 ? [] : oldParts(w).map((part) => object('old-part-in', 'never', { part }));

/** Parts that are to be replaced, and of which nothing says that the new one is in. */
function againstParts(w: WheelEnd): Objection[] {
  const { plan, side, records } = w;
  const judged = judgedParts(w);
  const lines = readyLines(w);
  return withoutCage([...renewedParts(w)]).flatMap((component) => {
    const what = `part:${component}`;
    const { seq } = judged.get(component)!.record;
    const came = plan.received.findLast((r) => r.what === what);
    const state = lines.get(what)?.state;
    const compared = records.some(
      (r) => r.seq > seq && r.data?.kind === 'compare' && r.data.parts.some((p) => p.part === component),
    );
    const fitted = fittedBy(component).some((id) => (side.made[id]?.last.seq ?? 0) > seq);
    const here = compared || fitted || state === 'have' || state === 'owner' || came?.as === 'received';
    const lacking = !came && (state === 'ordered' || state === 'missing');
    const old = came?.as === 'reused' && decidedOn(w, judged.get(component)!) !== 'reuse';
    return here && !lacking && !old ? [] : [object('part-still-in', 'never', { component })];
  });
}
