export {
  axleIndex,
  axleSchema,
  axlesSchema,
  oppositeOf,
  positionSchema,
  positionsOf,
  unitKindSchema,
  type Axle,
  type Position,
} from './axle-plan.ts';
export { layouts, layoutsFor, type Layout } from './layouts.ts';
export { axleRoles, unitKinds, type AxleRole, type UnitKind } from './kinds.ts';
