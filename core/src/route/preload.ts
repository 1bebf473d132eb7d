import { rollingTorque } from '../torque/index.ts';
import type { Sheet, StepData, TorqueFigure } from '../procedure/index.ts';

type DataOf<K extends StepData['kind']> = Extract<StepData, { kind: K }>;
type Side = 'light' | 'heavy';

/** What the sheet asks the rolling torque of such bearings to be; null where it has no figure. */
export const rollingFigure = (
  sheet: Pick<Sheet, 'rollingNew' | 'rollingRunIn'>,
  { bearings }: Pick<DataOf<'rolling'>, 'bearings'>,
): TorqueFigure | null => (bearings === 'new' ? sheet.rollingNew : sheet.rollingRunIn);

/**
 * Torque at which the bearings turn, N·m: as a gauge read it, or pull times radius less what the seal drags.
 * @throws BadInput when the seal alone would drag more than was pulled
 */
export function rollingNm({ torque, pull, radius, sealDrag }: DataOf<'rolling'>): number {
  const sealDragNm = sealDrag?.si ?? 0;
  if (torque) return torque.si - sealDragNm;
  return rollingTorque({ pullN: pull!.si, radiusMm: radius!.si * 1000, sealDragNm }).torqueNm;
}

/** The side of its figure on which a rolling torque lies; null where it fits, or nothing says what it should be. */
export function rollingOff(figure: TorqueFigure | null, data: DataOf<'rolling'>): Side | null {
  const [least, most] = figure ? [figure.min, figure.max] : [data.asked?.least, data.asked?.most];
  if (!least || !most) return null;
  const nm = rollingNm(data);
  if (nm < least.si - SLACK_NM) return 'light';
  return nm > most.si + SLACK_NM ? 'heavy' : null;
}
const SLACK_NM = 1e-9;

/** What a recorded set of shims leaves, mm: end play over zero, preload under it. Geometry: it follows the stack one to one. */
export function shimmedMm({ current, play, chosen, thicker }: DataOf<'shims'>): number {
  const by = (chosen.si - current.si) * 1000;
  return play.si * 1000 + (thicker === 'looser' ? by : -by);
}

/** The side of the preload that is asked for on which shims lie; null where they fit. */
export function shimsOff(data: DataOf<'shims'>): Side | null {
  const preloadMm = -shimmedMm(data);
  if (preloadMm < data.preload.least.si * 1000 - SLACK_MM) return 'light';
  return preloadMm > data.preload.most.si * 1000 + SLACK_MM ? 'heavy' : null;
}
/** Micrometers read to a thousandth of a millimetre, mm. */
const SLACK_MM = 0.001;
