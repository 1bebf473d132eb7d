import type { UnitKind } from '@lanternwright/core/axle-plan';
import { intervalFigureSchema, type IntervalFigure } from '@lanternwright/core/procedure';
import { quantity } from '@lanternwright/core/quantity';
import type { Work } from '@lanternwright/core/stack';

const ours = (work: Work, limits: Partial<IntervalFigure>) =>
  intervalFigureSchema.parse({ work, mark: 'shop', source: 'Marrowbank’s own', ...limits });
const km = (value: number) => quantity(value, 'km');
const hours = (value: number) => quantity(value, 'h');

const road = [
  ours('check', { distance: km(200_000), months: 20 }),
  ours('brakes', { distance: km(500_000), months: 60 }),
  ours('seal', { distance: km(700_000), months: 66 }),
];
const field = [
  ours('check', { hours: hours(900), months: 18 }),
  ours('seal', { hours: hours(3_000), months: 48 }),
];

/** How often the demo shop wants each work; null where it keeps to what is usual. */
export const demoIntervals: Partial<Record<UnitKind, readonly IntervalFigure[]>> = {
  rigid: road,
  tractor: road,
  'semi-trailer': road,
  bus: road,
  'farm-tractor': field,
  'work-machine': field,
};
