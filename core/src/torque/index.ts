export { clampLoad, clampLoadCalculation } from './clamp-load.ts';
export { rollingTorque, rollingTorqueCalculation } from './rolling-torque.ts';
export { tighteningSequence, tighteningSequenceCalculation } from './tightening-sequence.ts';
export {
  torqueSetting,
  torqueSettingCalculation,
  torqueViaSchema,
  type TorqueVia,
} from './torque-setting.ts';
