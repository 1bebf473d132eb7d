export { adviseSetting, type Advice, type Remedy } from './advise.ts';
export { lockPositions, lockSchema, type Lock } from './lock.ts';
export { formatTurn } from './format-turn.ts';
export {
  nutSettingCalculation,
  planNutSetting,
  type NutOption,
  type NutSetting,
  type NutState,
} from './setting.ts';
export { nutTravel, nutTravelCalculation, pitchOf } from './travel.ts';
