export { controlChart, controlChartCalculation } from './control-chart.ts';
export { gaugeStudy, gaugeStudyCalculation } from './gauge-study.ts';
