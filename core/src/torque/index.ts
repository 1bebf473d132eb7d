export { clampLoad, clampLoadCalculation } from './clamp-load.ts';
export { tighteningSequence, tighteningSequenceCalculation } from './tightening-sequence.ts';
export { torqueSetting, torqueSettingCalculation } from './torque-setting.ts';
