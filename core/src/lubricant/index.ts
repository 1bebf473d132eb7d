export { greaseFill, greaseFillCalculation } from './grease-fill.ts';
export {
  agreementOf,
  greaseChange,
  thickenerIds,
  thickenerIn,
  thickeners,
  type Thickener,
} from './thickener.ts';
