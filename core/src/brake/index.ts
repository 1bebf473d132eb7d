export { liningWear, liningWearCalculation } from './lining-wear.ts';
export {
  chambers,
  chamberStrokes,
  isMade,
  pushrodStroke,
  pushrodStrokeCalculation,
} from './pushrod-stroke.ts';
export { wearLimit, wearLimitCalculation } from './wear-limit.ts';
export { brakeKinds, liningMinimums, type BrakeKind } from './minimum.ts';
