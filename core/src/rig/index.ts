export { answerStep, measuredBy, plainTechnician, soundFindings, type Technician } from './answer-step.ts';
export { freshSettingMm, newHub, truePlayMm, type Chance, type HubTruth } from './hub-truth.ts';
