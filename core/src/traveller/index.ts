export { actorSchema, recordedBy, sentOn, type Actor } from '../access/index.ts';
export { deferredWorks, type DeferredWork } from './deferred.ts';
export { followUpKinds, type FollowUpKind } from './follow-up-kinds.ts';
export {
  againstRelease,
  figureFor,
  inSpiteOfPlay,
  mayStayLoose,
  thinLining,
  torqueFits,
} from './against-release.ts';
export { brakeKindsOf } from './brake-kind.ts';
export { decide, decideJoining, decideOpening } from './decide.ts';
export { type DecideContext, type Decision } from './decision.ts';
export {
  commandSchema,
  eventBodySchema,
  jobOpenedSchema,
  meterKm,
  meterSchema,
  ownerAnswers,
  storedEventSchema,
  type BodyOf,
  type Command,
  type CommandInput,
  type EventBody,
  type JobOpened,
  type Meter,
  type OwnerAnswer,
  type StoredEvent,
} from './event.ts';
export { append, fold } from './fold.ts';
export { FoldError } from './fold-error.ts';
export {
  AS_FOUND,
  currentRound,
  isClosed,
  isPriced,
  lastTrace,
  wheelEndAt,
  wheelEndEver,
  wheelEndsEver,
  type Job,
  type JobMoney,
  type RecordedReckoning,
  type Photo,
  type Plan,
  type Reading,
  type Round,
  type StepRecord,
  type WheelEnd,
} from './job.ts';
export {
  lastVerdict,
  lateRecords,
  openQuestions,
  playMm,
  progressOf,
  readingRound,
  readingsOf,
  stageAtHand,
  stageStates,
  stepAtHand,
  stepTitled,
  verdictOf,
  type OpenQuestion,
  type StageState,
  lockSteps,
  stepsOfKind,
  type StepProgress,
} from './progress.ts';
export { decidedOn, judgedParts, readyLines, renewedParts } from './findings.ts';
export { HEAT_LIMITS, hubHeat, type HeatVerdict } from './hub-heat.ts';
export { readOnly } from './first-build.ts';
export { hasKingpin } from './kingpin.ts';
export { otherSideDue } from './pair-rule.ts';
export { beganCorrected } from './began-corrected.ts';
export { waitsFor } from './waits-for.ts';
export { meanwhile, whatWaits, type Waiting } from './meanwhile.ts';
export { describeParts } from './describe-parts.ts';
export { describeRefusal } from './describe-refusal.ts';
export { describeRouteRefusal } from './route-refusal.ts';
export type { Refusal } from './refusal.ts';
export { worksWanted } from './open-again.ts';
export { whatIsLeft } from './what-is-left.ts';
export { isAsFound } from './is-as-found.ts';
export { closuresOf, layersToOpen } from './route-progress.ts';
export { canBeOpen, layersLost } from './decide-route.ts';
export { stageMinutes } from './stage-minutes.ts';
export { makersFigures } from './makers-figures.ts';
export { layerStates, plannedLayers, type LayerState } from './layer-states.ts';
export { linesToAnswer, partsPlanned, partsToJudge } from './check-step-data.ts';
export { objectionSchema, type Objection } from './objection.ts';
export { lackedLines, linesToSay } from './ready-words.ts';
export { linesOfWork, partsByWork, partsToKeep, partsWanted } from './lines-of-work.ts';
export { openParts, readinessLines, routeStateOf } from './route-progress.ts';
export { describeEvent, describeStepData } from './describe.ts';
export { describeLayers, layerStateWords } from './describe-layers.ts';
export {
  describeOff,
  describeStopped,
  describeYardOnly,
  mayRollInYard,
  stoppedWords,
} from './describe-stopped.ts';
export { describeNotCounted } from './describe-not-counted.ts';
export { describeFinding } from './describe-finding.ts';
export { openFindings, type Finding } from './open-findings.ts';
export { describeObjection } from './describe-objection.ts';
export { upcast } from './upcast.ts';
export { whyNoRoute, whyNotWorkable } from './why-no-route.ts';
