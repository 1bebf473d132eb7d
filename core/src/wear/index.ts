export { wearTrend, wearTrendCalculation } from './wear-trend.ts';
