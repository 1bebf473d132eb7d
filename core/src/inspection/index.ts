export {
  componentOf,
  conditionOf,
  decisionsOn,
  components,
  dispose,
  dispositions,
  dispositionSchema,
  PLANNED,
  type Component,
  type Disposition,
  type UnitPressure,
} from './dispositions.ts';
export {
  driveActs,
  driveVerdict,
  driveVerdicts,
  symptoms,
  symptomSchema,
  type DriveAct,
  type DriveVerdict,
  type Symptom,
} from './drive-verdict.ts';
export { compareRocking, tiltMmPerM, tipPlaces, type TipPlace } from './rocking.ts';
export { BEARING_LIMIT_MM, whichJoint, whichJointCalculation } from './which-joint.ts';
