export { holdsBoth, readDate, readMeter, type DateOrder, type NumberStyle } from './cells.ts';
export {
  distanceUnitIn,
  guessColumns,
  headRowIn,
  listFields,
  listedWorks,
  type LastField,
  type ListedWork,
  type ListField,
} from './columns.ts';
export {
  groupOf,
  kindsIn,
  openStyles,
  readFleetList,
  type BadRow,
  type FleetList,
  type ListAnswers,
  type ListedUnit,
  type ListQuestion,
  type ListRow,
  type StyleQuestion,
} from './fleet-list.ts';
