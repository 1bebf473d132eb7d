export { costRateAt, replacementAge, replacementAgeCalculation } from './replacement-age.ts';
export { survivalCalculation, survivalCurve } from './survival.ts';
export { fitWeibull, weibullFitCalculation } from './weibull-fit.ts';
