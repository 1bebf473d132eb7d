export { absenceAggregate, absenceSchema, type Absence, type AbsenceState } from './absence.ts';
export { replay, StreamError, type Aggregate, type Decided } from './aggregate.ts';
export {
  bookingAggregate,
  bookingSchema,
  type Booking,
  type BookingCommand,
  type BookingState,
} from './booking.ts';
export {
  broughtReadsSchema,
  readsOf,
  replayMeters,
  withReads,
  withoutRepeats,
  type BroughtReads,
} from './brought-reads.ts';
export { canonicalJson, sameJson } from './canonical.ts';
export { carriedOver, ownFigures } from './carry-sheet.ts';
export { program, recorderSchema, streams, type Entry, type Recorder, type StreamKind } from './entry.ts';
export {
  entryOf,
  jobAggregate,
  servicesOf,
  toStoredEvent,
  type FollowUpRow,
  type JobCommand,
  type JobRows,
  type ReadingRow,
  type ServiceRow,
} from './job.ts';
export {
  MOST_KM_A_DAY,
  meterAggregate,
  meterReadSchema,
  meterSources,
  meterSourceSchema,
  meterSwapSchema,
  type MeterCommand,
  type MeterRead,
  type MeterRow,
  type MeterState,
  type MeterSwap,
} from './meter.ts';
export {
  openOf,
  paidFor,
  orderAggregate,
  orderStates,
  type OrderCommand,
  type OrderLine,
  type OrderState,
  type OrderStatus,
  type OrderBody,
} from './order.ts';
export { personAggregate, type PersonCommand, type PersonState } from './person.ts';
export { sheetAggregate, type SheetState } from './sheet.ts';
export {
  freeOf,
  movementSchema,
  onHand,
  reservationSchema,
  stockAggregate,
  stockMoves,
  type Movement,
  type Reservation,
  type StockBody,
  type StockCommand,
  type StockMove,
  type StockMovement,
  type StockState,
} from './stock.ts';
export {
  toolAggregate,
  type Holder,
  type KeptCertificate,
  type ListedToolState,
  type Missing,
  type Recall,
} from './tool.ts';
export {
  LONGEST_REMARKS,
  toldOfAll,
  toldSchema,
  unitAggregate,
  unitFactsSchema,
  worksOfNone,
  type Unit,
  type UnitCommand,
  type UnitFacts,
} from './unit.ts';
