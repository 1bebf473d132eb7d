export { pooledSlopes, pooledSlopesCalculation } from './pooled-slopes.ts';
export { sinceSet, usualGrowth, type PlayAt, type SinceSet } from './since-set.ts';
export { wearTrend, wearTrendCalculation } from './wear-trend.ts';
