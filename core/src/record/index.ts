export { replay, StreamError, type Aggregate, type Decided } from './aggregate.ts';
export { canonicalJson, sameJson } from './canonical.ts';
export { program, recorderSchema, streams, type Entry, type Recorder, type StreamKind } from './entry.ts';
export {
  entryOf,
  jobAggregate,
  toStoredEvent,
  type FollowUpRow,
  type JobCommand,
  type JobRows,
  type ReadingRow,
} from './job.ts';
export {
  meterAggregate,
  meterReadSchema,
  type MeterCommand,
  type MeterRead,
  type MeterState,
} from './meter.ts';
export { personAggregate, type PersonCommand, type PersonState } from './person.ts';
export { sheetAggregate, type SheetState } from './sheet.ts';
export { toolAggregate, type ListedToolState } from './tool.ts';
export { unitAggregate, unitFactsSchema, type Unit, type UnitCommand, type UnitFacts } from './unit.ts';
