export { duties, dutyShares, saidDutiesSchema, type Duty, type SaidDuty } from './duty.ts';
export { doneWith, unitDue, type Due, type ServiceDone, type UnitPast } from './unit-due.ts';
export { intervalsOf } from './usual-intervals.ts';
