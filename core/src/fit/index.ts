export { kingpinFit, kingpinFitCalculation } from './kingpin-fit.ts';
export { shimChoice, shimChoiceCalculation } from './shim-choice.ts';
export { spindleFit, spindleFitCalculation } from './spindle-fit.ts';
