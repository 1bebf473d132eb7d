import {
  bearingLifeCalculation,
  bearingPairCalculation,
  loadDistributionCalculation,
  settingLifeCalculation,
} from '../bearing/index.ts';
import { liningWearCalculation, pushrodStrokeCalculation, wearLimitCalculation } from '../brake/index.ts';
import type { Calculation } from '../calculation/index.ts';
import { jobCostCalculation } from '../cost/index.ts';
import { endPlayCalculation } from '../end-play/index.ts';
import { kingpinFitCalculation, shimChoiceCalculation, spindleFitCalculation } from '../fit/index.ts';
import { controlChartCalculation, gaugeStudyCalculation } from '../gauge/index.ts';
import { whichJointCalculation } from '../inspection/index.ts';
import { dueCalculation } from '../interval/index.ts';
import { greaseFillCalculation } from '../lubricant/index.ts';
import { nutSettingCalculation, nutTravelCalculation } from '../nut/index.ts';
import { convertCalculation } from '../quantity/index.ts';
import {
  competingRisksCalculation,
  logRankCalculation,
  replacementAgeCalculation,
  survivalCalculation,
  weibullFitCalculation,
} from '../reliability/index.ts';
import { sealSeatCalculation, sealSpeedCalculation } from '../seal/index.ts';
import {
  clampLoadCalculation,
  rollingTorqueCalculation,
  tighteningSequenceCalculation,
  torqueSettingCalculation,
} from '../torque/index.ts';
import { shopPlanCalculation } from '../shop-plan/index.ts';
import { pooledSlopesCalculation, wearTrendCalculation } from '../wear/index.ts';

/** Every calculation, once, in the order of the work. */
export const calculations = [
  whichJointCalculation,
  kingpinFitCalculation,
  shopPlanCalculation,
  jobCostCalculation,
  sealSeatCalculation,
  sealSpeedCalculation,
  greaseFillCalculation,
  torqueSettingCalculation,
  nutTravelCalculation,
  endPlayCalculation,
  nutSettingCalculation,
  shimChoiceCalculation,
  rollingTorqueCalculation,
  spindleFitCalculation,
  pushrodStrokeCalculation,
  wearLimitCalculation,
  liningWearCalculation,
  tighteningSequenceCalculation,
  clampLoadCalculation,
  dueCalculation,
  wearTrendCalculation,
  pooledSlopesCalculation,
  bearingLifeCalculation,
  bearingPairCalculation,
  loadDistributionCalculation,
  settingLifeCalculation,
  weibullFitCalculation,
  survivalCalculation,
  competingRisksCalculation,
  logRankCalculation,
  replacementAgeCalculation,
  gaugeStudyCalculation,
  controlChartCalculation,
  convertCalculation,
] as unknown as readonly Calculation[];
