export { convertCalculation } from './convert-calculation.ts';
export { formatQuantity, formatTyped, formatValue } from './format.ts';
export { parseNumber, typedNumber, type ReadNumber } from './number.ts';
export { parseQuantity, parseTogether, type Parsed } from './parse.ts';
export { convert, quantity, toSi, valueIn, type Quantity } from './quantity.ts';
export {
  amountSchema,
  dimensionSchema,
  distanceSchema,
  forceSchema,
  voltageSchema,
  hoursSchema,
  placeSchema,
  readingSchema,
  sizeSchema,
  temperatureSchema,
  torqueSchema,
} from './quantity-schemas.ts';
export { readerUnitsSchema, type ReaderUnits } from './reader-units.ts';
export {
  formatBoth,
  formatFor,
  formatTypedFor,
  inchReader,
  metricReader,
  otherReader,
  unitFor,
  usualReader,
  type Reader,
} from './reader.ts';
export { unitDefinition, units, type Dimension, type Unit } from './units.ts';
