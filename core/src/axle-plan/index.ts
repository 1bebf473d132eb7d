export {
  axleIndex,
  axleRoles,
  axleSchema,
  axlesSchema,
  oppositeOf,
  positionSchema,
  positionsOf,
  unitKinds,
  unitKindSchema,
  type Axle,
  type AxleRole,
  type Position,
  type UnitKind,
} from './axle-plan.ts';
export { layouts, layoutsFor, type Layout } from './layouts.ts';
