export {
  axleAt,
  axleNumber,
  axleSchema,
  axlesSchema,
  firstAxleId,
  numbered,
  oppositeOf,
  placedAxleSchema,
  placedAxlesSchema,
  positionSchema,
  positionsOf,
  unitKindSchema,
  type Axle,
  type PlacedAxle,
  type Position,
} from './axle-plan.ts';
export { layouts, layoutsFor, type Layout } from './layouts.ts';
export { axleRoles, unitKinds, type AxleRole, type UnitKind } from './kinds.ts';
