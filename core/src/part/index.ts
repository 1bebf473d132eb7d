export {
  lipFacingIds,
  lipFacings,
  measuredIds,
  measures,
  partKindIds,
  partKinds,
  type LipFacing,
  type Measured,
  type PartKind,
} from './kinds.ts';
export { compareByMeasure, sealAdvice, type MeasuredFit, type OldPart } from './by-measure.ts';
export { numberDistance, plainNumber, readNumber, type NumberRead } from './number.ts';
export {
  describePart,
  fitSchema,
  partSchema,
  placeNameSchema,
  priceSchema,
  type Fit,
  type Part,
  type Price,
} from './part.ts';
export { bySize, standOfLine, type LineStand, type PartComing, type StockedPart } from './stand.ts';
export { forecastStock, type PartArrival, type PartDemand, type StockForecast } from './shortage.ts';
