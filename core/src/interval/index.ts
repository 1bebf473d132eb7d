export { addDays } from './calendar.ts';
export { dueCalculation, serviceDue } from './due.ts';
export {
  retorqueDefaults,
  retorqueDue,
  retorqueDueSchema,
  retorqueState,
  type RetorqueDue,
  type RetorqueRule,
} from './retorque.ts';
