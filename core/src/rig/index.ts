export {
  answerStep,
  measuredBy,
  plainTechnician,
  plainWrenches,
  soundFindings,
  wrenchFor,
  type Technician,
} from './answer-step.ts';
export { freshSettingMm, newHub, truePlayMm, type Chance, type HubTruth } from './hub-truth.ts';
