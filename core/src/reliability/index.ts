export { competingRisks, competingRisksCalculation } from './competing-risks.ts';
export { logRank, logRankCalculation } from './log-rank.ts';
export { costRateAt, replacementAge, replacementAgeCalculation } from './replacement-age.ts';
export { survivalCalculation, survivalCurve } from './survival.ts';
export { fitWeibull, weibullFitCalculation } from './weibull-fit.ts';
