export { againstRelease, thinLining, torqueFits } from './against-release.ts';
export { decide, decideOpening } from './decide.ts';
export { type DecideContext, type Decision } from './decision.ts';
export {
  actorSchema,
  commandSchema,
  eventBodySchema,
  followUpKinds,
  jobOpenedSchema,
  meterKm,
  meterSchema,
  ownerAnswers,
  storedEventSchema,
  type Actor,
  type BodyOf,
  type Command,
  type CommandInput,
  type EventBody,
  type FollowUpKind,
  type JobOpened,
  type Meter,
  type OwnerAnswer,
  type StoredEvent,
} from './event.ts';
export { append, fold, FoldError } from './fold.ts';
export {
  AS_FOUND,
  currentRound,
  isClosed,
  lastTrace,
  wheelEndAt,
  type Job,
  type JobMoney,
  type KeptReckoning,
  type Photo,
  type Reading,
  type Round,
  type StepRecord,
  type WheelEnd,
} from './job.ts';
export {
  lastVerdict,
  openQuestions,
  playMm,
  progressOf,
  readingRound,
  readingsOf,
  stageAtHand,
  stageStates,
  stepAtHand,
  verdictOf,
  type OpenQuestion,
  type StageState,
  type StepProgress,
} from './progress.ts';
export { hasKingpin } from './kingpin.ts';
export { partsToCompare } from './parts-to-compare.ts';
export { otherSideDue } from './pair-rule.ts';
export { stageMinutes } from './stage-minutes.ts';
export { sayEvent, sayStepData } from './say.ts';
