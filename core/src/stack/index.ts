export { layerIds, layerTitles, type LayerId } from './layer-id.ts';
export { alsoUndone, alsoUndoneIds, type AlsoUndone } from './also-undone.ts';
export {
  layerSchema,
  nutKinds,
  studClasses,
  wheelThreads,
  type Layer,
  type LayerOf,
  type NutKind,
} from './layer.ts';
export { describeLayer } from './describe-layer.ts';
export {
  allNeedsOff,
  layerOf,
  needsOff,
  needsOffFor,
  stackSchema,
  takeOffOrder,
  type Stack,
} from './stack.ts';
export { usualStack, type BuiltAxle } from './usual-stack.ts';
export { reachOf, missesOilLevel, targetOf, worksOf, type Reach, type Reached } from './work.ts';
export { workSchema } from './work-schema.ts';
export { works, type Work } from './works.ts';
