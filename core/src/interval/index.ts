export {
  addDays,
  retorqueDefaults,
  retorqueDue,
  retorqueDueSchema,
  retorqueState,
  type RetorqueDue,
} from './retorque.ts';
