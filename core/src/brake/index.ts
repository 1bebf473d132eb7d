export { liningWear, liningWearCalculation } from './lining-wear.ts';
export { brakeKinds, liningMinimums, type BrakeKind } from './minimum.ts';
