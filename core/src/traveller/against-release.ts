import { formatQuantity, formatValue, valueIn, type Quantity } from '../quantity/index.ts';
import { liningMinimums } from '../brake/index.ts';
import { stages, type Sheet, type Step, type StepData, type TorqueFigure } from '../procedure/index.ts';
import type { StepRecord, WheelEnd } from './job.ts';
import { openQuestions, progressOf, verdictOf } from './progress.ts';

/** Torque counts as reached within 4 % of its figure (ISO 6789 class of hand tools, value from memory). */
const TORQUE_TOLERANCE = 0.04;

/** Whether a torque lies within a sheet's figure, tool tolerance included. Both in N·m. */
export function torqueFits(torqueNm: number, figure: { min: { si: number }; max: { si: number } }): boolean {
  return (
    torqueNm >= figure.min.si * (1 - TORQUE_TOLERANCE) && torqueNm <= figure.max.si * (1 + TORQUE_TOLERANCE)
  );
}

/** A lining at or under its minimum, in words, or null. */
export function thinLining({ brake, inner, outer }: Extract<StepData, { kind: 'linings' }>): string | null {
  const { mm, title } = liningMinimums[brake];
  const least = Math.min(inner?.si ?? Infinity, outer?.si ?? Infinity) * 1000;
  if (brake === 'none' || least > mm + 1e-9) return null;
  return `The lining is ${least.toFixed(1)} mm, at or under ${mm} mm for ${title.toLowerCase()}`;
}

/** The figure a torque is held against: the sheet's, or where it has none the one read off the maker's. */
export function figureFor(ofSheet: TorqueFigure | null, asked: Quantity | undefined) {
  return ofSheet ?? (asked ? { min: asked, max: asked } : null);
}

/**
 * Everything that stands against the release of a wheel end, in words; empty when nothing does.
 * A missing or skipped step, a torque off its figure, an inspection that said no, no accepted
 * reading, a reading out of band, no lock.
 */
export function againstRelease(wheelEnd: WheelEnd): string[] {
  const progress = progressOf(wheelEnd);
  const undecided = openQuestions(wheelEnd).map((q) => `${q.title}: the supervisor has not decided`);
  const steps = progress.flatMap(({ step, record }) => {
    const why = objection(step, record, wheelEnd.sheet);
    return why ? [why] : [];
  });
  const words = [...undecided, ...steps];
  const measuring = progress.find((p) => p.step.kind === 'measure' && p.step.stage === 'verify');
  const accepted = measuring?.record?.data;
  if (!measuring || wheelEnd.sheet.verifyBy === 'drag') return words;
  if (accepted?.kind === 'measure' && accepted.by === 'feel') return words;
  const play = againstReading(wheelEnd);
  return play ? [...words, play] : words;
}

function objection(step: Step, record: StepRecord | null, sheet: Sheet): string | null {
  if (step.optional) return null;
  const stage = stages.find((s) => s.id === step.stage)?.title ?? step.stage;
  if (!record)
    return step.kind === 'lock' ? 'The lock is not recorded' : `${stage}, “${step.title}” is not recorded`;
  if (record.skipped !== null) return `${stage}, “${step.title}” was skipped: ${record.skipped}`;
  const { data } = record;
  if (data.kind === 'inspect' && !data.ok)
    return `${stage}, “${step.title}” found trouble: ${data.note ?? 'no words'}`;
  if (data.kind === 'linings') {
    if (!data.set) return `The brake is not back: ${data.note ?? 'no words'}`;
    const thin = thinLining(data);
    if (thin) return `${thin}: ${data.note ?? 'no words'}`;
  }
  if (data.kind === 'torque' && step.kind === 'torque') {
    const figure = figureFor(sheet[step.figure], data.asked);
    if (figure && !torqueFits(data.torque.si, figure)) {
      const asked =
        figure.min.si === figure.max.si ? '' : `${formatValue(figure.min.value, figure.min.unit)} to `;
      return `${step.title} torqued to ${formatQuantity(data.torque)}, the sheet asks for ${asked}${formatQuantity(figure.max)}`;
    }
  }
  return null;
}

function againstReading(wheelEnd: WheelEnd): string | null {
  const verdict = verdictOf(wheelEnd);
  if (!verdict) return 'End play is not measured';
  if (verdict.verdict === 'in-band') return null;
  if (verdict.verdict === 'repeat') return 'End play needs three cycles that repeat';
  const unit = wheelEnd.sheet.band?.max.unit ?? 'mm';
  const by = valueIn({ value: verdict.byMm, unit: 'mm' }, unit);
  return `End play is ${verdict.verdict} by ${formatQuantity({ value: by, unit })}`;
}
