export { distanceUnitIn, guessColumns, listFields, type ListField } from './columns.ts';
export {
  groupOf,
  kindsIn,
  readFleetList,
  type FleetList,
  type ListAnswers,
  type ListedUnit,
  type ListQuestion,
} from './fleet-list.ts';
