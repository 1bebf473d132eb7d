import { liningMinimums } from '../brake/index.ts';
import type { EndPlayResult } from '../end-play/index.ts';
import type { Sheet, Step, StepData, TorqueFigure } from '../procedure/index.ts';
import { valueIn, type Quantity } from '../quantity/index.ts';
import { verifyBy } from '../route/index.ts';
import { layerOf } from '../stack/index.ts';
import { decidedOn, judgedParts, readyLines, renewedParts } from './findings.ts';
import { hubHeat } from './hub-heat.ts';
import { AS_FOUND, type StepRecord, type WheelEnd } from './job.ts';
import type { Objection, ObjectionCode } from './objection.ts';
import { openQuestions, progressOf, verdictOf } from './progress.ts';
import { routeStateOf } from './route-progress.ts';

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

/** Who may release without a step; null for an optional one. In a job of the first build nobody without its lock. */
function guardOf(step: Step): Objection['guard'] | null {
  if ('guard' in step) {
    const { guard } = step as Step & { guard: 'never' | 'supervisor' | 'optional' };
    return guard === 'optional' ? null : guard;
  }
  if (step.optional) return null;
  return step.kind === 'lock' ? 'never' : 'supervisor';
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
  const undecided = openQuestions(wheelEnd).map((q) =>
    object('undecided', wheelEnd.plan.by === 'route' ? 'never' : 'supervisor', { component: q.component }),
  );
  const steps = progressOf(wheelEnd).flatMap(({ step, record }) => objection(step, record, wheelEnd));
  return [...undecided, ...steps, ...againstReading(wheelEnd), ...againstParts(wheelEnd)];
}

function objection(step: Step, record: StepRecord | null, w: WheelEnd): Objection[] {
  const at = { stage: step.stage, step: step.id };
  const guard = guardOf(step);
  if (record?.data?.kind === 'heat') return againstHeat(w, record.data, at);
  if (!guard) return [];
  if (!record) return [object('missing', guard, at)];
  const note = record.data?.note ?? '';
  if (record.skipped !== null) {
    const loose = step.kind === 'measure' && w.plan.by === 'route';
    // A skipped measurement stands as what was measured, below.
    return loose && mayStayLoose(w) ? [] : [object('skipped', guard, { ...at, reason: record.skipped })];
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
        ...(thin && data.set ? [object('lining-thin', 'supervisor', { ...thin, brake, note })] : []),
      ];
    }
    case 'torque':
      return againstTorque(step, data, w.sheet, guard);
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

function againstTorque(
  step: Step,
  { torque, asked }: Extract<StepData, { kind: 'torque' }>,
  sheet: Sheet,
  guard: Objection['guard'],
): Objection[] {
  if (step.kind !== 'torque') return [];
  const figure = figureFor(sheet[step.figure], asked);
  if (!figure || torqueFits(torque.si, figure)) return [];
  // Too little holds nothing, and is done again; too much may be a matter of judgement.
  const least = torque.si < figure.min.si ? guard : 'supervisor';
  return [
    object('torque-off', least, {
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

function againstHeat(
  { sheet }: WheelEnd,
  data: Extract<StepData, { kind: 'heat' }>,
  at: Objection['params'],
): Objection[] {
  const { verdict } = hubHeat(data, sheet.heat);
  if (verdict === 'fine') return [];
  return [object('too-hot', verdict === 'not-released' ? 'never' : 'supervisor', { ...at, verdict })];
}

/** A setting over its band may stay only on a pinned or staked nut, up to twice the upper limit. */
export function mayStayLoose(w: WheelEnd): boolean {
  const result = verdictOf(w);
  if (w.plan.by !== 'route' || result?.verdict !== 'loose') return false;
  const nut = layerOf(w.plan.stack, 'nut');
  return (nut?.kind === 'D' || nut?.kind === 'E') && underTwice(result, w.sheet);
}

const underTwice = ({ endPlayMm }: EndPlayResult, { band }: Sheet) =>
  band !== null && endPlayMm <= 2 * band.max.si * 1000;

function againstReading(w: WheelEnd): Objection[] {
  const measuring = progressOf(w).find(
    ({ step }) => step.kind === 'measure' && step.stage === 'verify' && step.id !== 'swivel-preload',
  );
  const by = w.plan.by === 'route' ? verifyBy(w.plan.stack, w.sheet) : w.sheet.verifyBy;
  if (!measuring) return againstAsFound(w);
  if (by === 'drag' || by === 'none') return [];
  const accepted = measuring.record?.data;
  if (accepted?.kind === 'measure' && accepted.by === 'feel') return [];
  if (w.plan.by === 'route' && layerOf(w.plan.stack, 'unit-hub')) return [];
  const result = verdictOf(w);
  if (!result) return [object('not-measured', w.plan.by === 'route' ? 'never' : 'supervisor')];
  switch (result.verdict) {
    case 'in-band':
      return [];
    case 'tight':
      return [object('tight', 'never', offBand(w, result))];
    case 'loose': {
      const guard = w.plan.by === 'procedure' || mayStayLoose(w) ? 'supervisor' : 'never';
      return [object('loose', guard, offBand(w, result))];
    }
    default:
      return [object('not-repeated', w.plan.by === 'route' ? 'never' : 'supervisor')];
  }
}

/** A setting that was only looked at and found out leads on: adjust, defer with a date, or out of service. */
function againstAsFound(w: WheelEnd): Objection[] {
  if (w.plan.by !== 'route' || routeStateOf(w, w.plan).reach.layers.has('nut')) return [];
  const result = verdictOf(w, AS_FOUND);
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

/** Parts that are to be replaced and have not come, or go in again. */
function againstParts(w: WheelEnd): Objection[] {
  const { plan } = w;
  if (plan.by === 'procedure') return [];
  const judged = judgedParts(w);
  const lines = readyLines(w);
  return [...renewedParts(w)].flatMap((component) => {
    const what = `part:${component}`;
    const came = plan.received.findLast((r) => r.what === what);
    const state = lines.get(what)?.state;
    const here = state === undefined || state === 'have' || state === 'owner' || came?.as === 'received';
    const old = came?.as === 'reused' && decidedOn(w, judged.get(component)!) !== 'reuse';
    return here && !old ? [] : [object('part-still-in', 'never', { component })];
  });
}
