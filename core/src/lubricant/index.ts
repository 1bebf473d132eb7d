export { greaseFill, greaseFillCalculation } from './grease-fill.ts';
