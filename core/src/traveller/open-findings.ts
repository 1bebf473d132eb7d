import { layerOf } from '../stack/index.ts';
import { driveVerdict, type Symptom } from '../inspection/index.ts';
import { hubHeat } from './hub-heat.ts';
import type { StepRecord, WheelEnd } from './job.ts';
import { judgedParts } from './findings.ts';
import { oilFindings } from './oil-found.ts';

/** What was noticed, felt or seen and must not be forgotten before a wheel end is released. */
export interface Finding {
  /** `symptom:smoke`, `rock`, `oil`, `other-side-hot`, `left-out-of-service`. */
  id: string;
  guard: 'never' | 'supervisor';
  /** Words of a person that say more, where there are any. */
  note: string;
}

/** What answers a symptom besides a supervisor: a closure made in this job, a part judged, a step recorded. */
const answers: Record<
  Symptom,
  { made?: readonly string[]; judged?: readonly string[]; steps?: readonly string[] }
> = {
  pulls: { steps: ['rock'] },
  shimmy: { steps: ['rock'] },
  noise: { steps: ['rock'] },
  movement: { steps: ['rock'] },
  lamp: { made: ['sensor', 'sensor-lead', 'sensor-output'], judged: ['tone-ring'], steps: ['final-look'] },
  smoke: { judged: ['cups-and-rollers', 'unit-hub-bearing', 'shaft-bearing', 'shaft-journal'] },
  'hub-warmer': {
    judged: ['cups-and-rollers', 'unit-hub-bearing', 'shaft-bearing', 'shaft-journal'],
    steps: ['hub-heat'],
  },
  'oil-on-tyre': { made: ['seal', 'shaft-seal-in', 'seal-home', 'oil-level', 'axle-level', 'cap-square'] },
  'dry-stain': {
    made: ['seal', 'shaft-seal-in', 'seal-home', 'oil-level', 'axle-level'],
    steps: ['final-look'],
  },
  'weep-at-cap': { made: ['fill'], steps: ['final-look'] },
  'oil-on-lining': { made: ['brakes-back'], judged: ['lining'] },
  'cap-missing': { made: ['fill', 'oil-level'] },
  'grease-cap-missing': { made: ['fill'] },
  'oil-hub-open': { made: ['fill', 'oil-level'] },
  'metal-in-cap': { judged: ['cups-and-rollers'] },
  cracked: {},
  'nuts-missing': { made: ['wheel-nuts'] },
};

function isAnswered({ side, records }: WheelEnd, symptom: Symptom): boolean {
  const { made = [], judged = [], steps = [] } = answers[symptom];
  const parts = judgedParts({ records });
  return (
    made.some((id) => (side.made[id]?.last.seq ?? 0) > 0) ||
    judged.some((id) => parts.has(id)) ||
    steps.some((id) =>
      records.some((r) => r.stepId === id && r.data && !(r.data.kind === 'inspect' && !r.data.ok)),
    )
  );
}

const lastOf = ({ records }: WheelEnd, stepId: string): StepRecord | undefined =>
  records.findLast((r) => r.stepId === stepId && r.data !== null);

/** A rocking that moved: answered by what was set, renewed or found tight after it. */
function rocked(w: WheelEnd): (Finding & { seq: number })[] {
  const rock = lastOf(w, 'rock');
  if (rock?.data?.kind !== 'joint' || rock.data.felt === 'nothing') return [];
  const { knuckleToHub, bearingLimit, axleToKnuckle, kingpinLimit, note = '' } = rock.data;
  const over = (value?: { si: number }, limit?: { si: number }) =>
    value && limit && value.si > limit.si + 1e-9;
  const bearing = over(knuckleToHub, bearingLimit);
  const kingpin = over(axleToKnuckle, kingpinLimit);
  if (!bearing && !kingpin && knuckleToHub) return [];
  const after = (id: string) => (w.side.made[id]?.last.seq ?? 0) > rock.seq;
  const set = ['end-play', 'drag', 'unit-hub-on', 'shaft-movement'].some(after);
  const pin = ['stub-on', 'swivel-preload'].some(after);
  const open = (bearing && !set) || (kingpin && !pin) || (!bearing && !kingpin && !set && !pin);
  return open
    ? [{ id: 'rock', guard: bearing || kingpin ? 'never' : 'supervisor', note, seq: rock.seq }]
    : [];
}

/** The other side of the axle was hot after the road: its own finding, told where it was measured. */
function otherSideHot(w: WheelEnd): (Finding & { seq: number })[] {
  const heat = lastOf(w, 'hub-heat');
  if (heat?.data?.kind !== 'heat') return [];
  const { here, other, air } = heat.data;
  const { verdict } = hubHeat({ here: other, other: here, ...(air ? { air } : {}) }, w.sheet.heat);
  if (verdict === 'fine') return [];
  const guard = verdict === 'not-released' ? 'never' : 'supervisor';
  return [{ id: 'other-side-hot', guard, note: '', seq: heat.seq }];
}

/** Findings of a wheel end that nothing has answered yet, nor a supervisor. Empty for a job of the first build. */
export function openFindings(w: WheelEnd): Finding[] {
  const grave = (s: Symptom) => driveVerdict([s]).verdict === 'do-not-move';
  const symptoms = w.symptoms
    .filter((s) => !isAnswered(w, s))
    .map((s) => ({
      ...{ id: `symptom:${s}`, note: '', seq: 0 },
      guard: grave(s) ? ('never' as const) : ('supervisor' as const),
    }));
  const left = w.began?.left;
  const leftSo = left
    ? [{ id: 'left-out-of-service', guard: 'never' as const, note: left.reason, seq: 0 }]
    : [];
  return [...leftSo, ...symptoms, ...rocked(w), ...oilFindings(w), ...otherSideHot(w)]
    .filter(({ id, seq }) => !w.answered.some((a) => a.finding === id && a.seq > seq))
    .map(({ id, guard, note }) => ({ id, guard, note }));
}

/** The most a bearing that is not set may move, mm, where its sheet has no figure. Value from memory. */
const MOVEMENT_MM = 0.127;

/** What a hub that is not adjusted may move by the dial, mm. */
export const movementLimitMm = ({ sheet, plan }: WheelEnd): number | null =>
  layerOf(plan.stack, 'unit-hub') ? (sheet.band ? sheet.band.max.si * 1000 : MOVEMENT_MM) : null;
