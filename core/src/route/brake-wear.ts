import { pushrodStroke, pushrodStrokeCalculation, wearLimit } from '../brake/index.ts';
import type { Step, StepData } from '../procedure/index.ts';

type DataOf<K extends StepData['kind']> = Extract<StepData, { kind: K }>;
type Wear = Extract<Step, { kind: 'wear' }>;

const inMm = ({ si }: { si: number }) => si * 1000;

/** How a drum or a rotor stands as it was measured, mm. */
export function wearOf(
  { part }: Pick<Wear, 'part'>,
  { measured, discard, runout, runoutLimit }: DataOf<'wear'>,
) {
  return wearLimit({
    ...{ part, measuredMm: measured.map(inMm), discardMm: inMm(discard) },
    ...(runout && runoutLimit ? { runoutMm: inMm(runout), runoutLimitMm: inMm(runoutLimit) } : {}),
  });
}

const asCalculated = ({ released, applied, chamber, stroke, marked }: DataOf<'stroke'>) => ({
  measuredMm: inMm(applied) - inMm(released),
  ...(chamber === undefined ? {} : { chamber }),
  ...(stroke === undefined ? {} : { stroke }),
  ...(marked === undefined ? {} : { markedStrokeMm: inMm(marked) }),
});

/** What a stroke can have against it, in words. */
export const strokeFaults = {
  'applied-under-released': 'The applied reading is under the released one: check both',
  'no-chamber': 'Choose the chamber and its stroke, or enter the stroke marked on one that is not listed',
} as const;
export type StrokeFault = keyof typeof strokeFaults;

/** Why a stroke cannot be held against a limit, or null. */
export function whyNoStroke(data: DataOf<'stroke'>): StrokeFault | null {
  if (data.applied.si < data.released.si) return 'applied-under-released';
  return pushrodStrokeCalculation.inputSchema.safeParse(asCalculated(data)).success ? null : 'no-chamber';
}

/** How the pushrod's stroke stands, mm. @throws ZodError for a stroke that `whyNoStroke` refuses */
export function strokeOf(data: DataOf<'stroke'>) {
  const input = pushrodStrokeCalculation.inputSchema.parse(asCalculated(data));
  return { ...pushrodStroke(input), strokeMm: input.measuredMm };
}

/** Whether a brake's measurement is past its limit: it stays on record and does not count. */
export function isPastLimit(step: Step, data: StepData): boolean {
  if (data.kind === 'stroke') return strokeOf(data).state === 'out';
  if (data.kind !== 'wear' || step.kind !== 'wear') return false;
  const { state } = wearOf(step, data);
  return state === 'discard' || state === 'runout';
}
