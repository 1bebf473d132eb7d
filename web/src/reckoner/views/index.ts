import type { ComponentType } from 'react';
import { EndPlayView, NutSettingView } from './adjust-views.tsx';
import {
  ControlChartView,
  DueView,
  GaugeStudyView,
  LiningView,
  ReplacementView,
  SettingLifeView,
  TrendView,
} from './finding-views.tsx';
import {
  KingpinFitView,
  PushrodView,
  RollingTorqueView,
  ShimView,
  SpindleFitView,
  WearLimitView,
} from './fit-views.tsx';
import { CompetingRisksView, LogRankView, PooledSlopesView, SurvivalView } from './life-views.tsx';
import { BearingPairView } from './pair-view.tsx';
import { ShopPlanView } from './plan-view.tsx';
import type { ViewProps } from './types.ts';
import { GreaseView, SealView, SequenceView, TorqueView, WhichJointView } from './wheel-views.tsx';

/** Purpose-made views by the name of their sum; the others show their figures in a table. */
export const views = {
  'nut-setting': NutSettingView,
  'end-play': EndPlayView,
  'tightening-sequence': SequenceView,
  'torque-setting': TorqueView,
  'which-joint': WhichJointView,
  'seal-seat': SealView,
  'grease-fill': GreaseView,
  'setting-life': SettingLifeView,
  'shim-choice': ShimView,
  'rolling-torque': RollingTorqueView,
  'spindle-fit': SpindleFitView,
  'kingpin-fit': KingpinFitView,
  'pushrod-stroke': PushrodView,
  'wear-limit': WearLimitView,
  'lining-wear': LiningView,
  'wear-trend': TrendView,
  'control-chart': ControlChartView,
  'gauge-study': GaugeStudyView,
  'replacement-age': ReplacementView,
  survival: SurvivalView,
  'log-rank': LogRankView,
  'competing-risks': CompetingRisksView,
  'pooled-slopes': PooledSlopesView,
  due: DueView,
  'bearing-pair': BearingPairView,
  'shop-plan': ShopPlanView,
} as unknown as Record<string, ComponentType<ViewProps<unknown, unknown>> | undefined>;
