export { isOffLimit } from './off-limit.ts';
export { sensorState } from './sensor-output.ts';
export { rollingFigure, rollingNm, rollingOff, shimmedMm, shimsOff } from './preload.ts';
export { isPastLimit, strokeFaults, strokeOf, wearOf, whyNoStroke, type StrokeFault } from './brake-wear.ts';
export { measureWay, pullOff, type MeasureWay } from './measure-way.ts';
export { putsBack, type Act, type Guard, type Phase } from './act.ts';
export {
  comparableOf,
  partLines,
  partsToCompareOf,
  partsToJudgeOf,
  closedWith,
  fittedBy,
  partOfLine,
  isUsedUp,
  oldPartIn,
  partTitle,
  plannedParts,
  singleUseOf,
  judgedSince,
  withoutCage,
} from './parts.ts';
export { everyAct, putBackOrder } from './every-act.ts';
export { leakLooks, oilLooks, oilTells } from './oil-acts.ts';
export { secures, LUBRICATE, settingSteps } from './nut-acts.ts';
export { sharedSteps } from './shaft-acts.ts';
export { routeReadiness } from './readiness.ts';
export { routeOf } from './route.ts';
export type { RouteState } from './state.ts';
export { isDeflated, wheelTorqueKey } from './wheel-acts.ts';
export { verifyBy } from './verify-by.ts';
