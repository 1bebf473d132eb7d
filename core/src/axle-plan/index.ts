export {
  axleSchema,
  axlesSchema,
  firstAxleId,
  placedAxleSchema,
  placedAxlesSchema,
  positionSchema,
  unitKindSchema,
  type Axle,
  type PlacedAxle,
} from './axle-plan.ts';
export { axleAt, axleNumber, numbered, oppositeOf, positionsOf, type Position } from './positions.ts';
export { layouts, layoutsFor, type Layout } from './layouts.ts';
export { axleRoles, unitKinds, type AxleRole, type UnitKind } from './kinds.ts';
