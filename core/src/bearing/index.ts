export { bearingLife, bearingLifeCalculation } from './life.ts';
export { loadDistribution, loadDistributionCalculation } from './load-distribution.ts';
export { bearingPair, bearingPairCalculation } from './pair.ts';
export { settingLife, settingLifeCalculation } from './setting-life.ts';
