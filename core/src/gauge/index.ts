export { controlChart, controlChartCalculation } from './control-chart.ts';
export { gaugeStudy, gaugeStudyCalculation } from './gauge-study.ts';
export {
  instrumentKinds,
  readInstrumentLine,
  type InstrumentLetters,
  type InstrumentLine,
} from './instrument-line.ts';
