export { addDays, addMonths, dateOfDay, dayNumber } from './calendar.ts';
export { dueCalculation, serviceDue } from './due.ts';
export {
  dueState,
  forecastDue,
  useOf,
  type DueState,
  type Forecast,
  type Interval,
  type Runs,
  type RunPoint,
} from './forecast.ts';
export { joinMeter, type JoinedPoint, type MeterOf } from './joined-meters.ts';
export {
  retorqueDefaults,
  retorqueDue,
  retorqueDueSchema,
  retorqueState,
  type RetorqueDue,
  type RetorqueRule,
} from './retorque.ts';
