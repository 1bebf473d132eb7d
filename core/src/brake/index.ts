export { liningWear, liningWearCalculation } from './lining-wear.ts';
