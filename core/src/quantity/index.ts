export { convertCalculation } from './convert-calculation.ts';
export { formatQuantity, formatTyped, formatValue } from './format.ts';
export { parseQuantity, parseTogether, type Parsed } from './parse.ts';
export {
  amountSchema,
  convert,
  distanceSchema,
  forceSchema,
  hoursSchema,
  placeSchema,
  quantity,
  readingSchema,
  toSi,
  temperatureSchema,
  torqueSchema,
  valueIn,
  type Quantity,
} from './quantity.ts';
export {
  formatBoth,
  formatFor,
  formatTypedFor,
  inchReader,
  metricReader,
  otherReader,
  readerUnitsSchema,
  unitFor,
  usualReader,
  type Reader,
  type ReaderUnits,
} from './reader.ts';
export { unitDefinition, units, type Dimension, type Unit } from './units.ts';
