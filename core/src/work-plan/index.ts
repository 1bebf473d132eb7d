export { weekLoads, type WeekLoad } from './capacity.ts';
export { endOfMoved } from './lanes.ts';
export { describeBecause, describeMove, describeWorks, type NotBefore } from './describe-because.ts';
export {
  heaviest,
  IN_AND_OUT_MIN,
  visitTime,
  workTime,
  type MeasuredTime,
  type WorkTime,
} from './durations.ts';
export {
  dayBegins,
  holidaySchema,
  mondayOf,
  weekSchema,
  hoursTogether,
  workedIn,
  workSpans,
  type ShopHours,
  type TimeSpan,
  type Week,
} from './hours.ts';
export {
  ANY,
  momentOfMinute,
  placeOf,
  shopPlanInputOf,
  type Claimed,
  type PlanShop,
  type Taken,
  type Visit,
} from './propose.ts';
