export { alsoUndone, alsoUndoneIds, type AlsoUndone } from './also-undone.ts';
export {
  layerIds,
  layerSchema,
  layerTitles,
  nutKinds,
  type Layer,
  type LayerId,
  type LayerOf,
  type NutKind,
} from './layer.ts';
export { describeLayer } from './describe-layer.ts';
export { allNeedsOff, layerOf, needsOff, stackSchema, takeOffOrder, type Stack } from './stack.ts';
export { usualStack, type BuiltAxle } from './usual-stack.ts';
export { reachOf, works, worksOf, workSchema, type Reach, type Reached, type Work } from './work.ts';
