export { effectOf, isAfterPutOn, mustBeOff, needsLayerOff } from './effects.ts';
export { asItCame, asItStands, buildDifferently, whatCannotStand, type Stands } from './as-said.ts';
export { carrySide, releaseSide } from './carry-side.ts';
export { hearStep, strikeStep, type NotCounted } from './fold-side.ts';
export { breakClosures } from './moves.ts';
export {
  isOn,
  layerAt,
  movedLayers,
  placeSchema,
  sideSchema,
  unknownSide,
  wasPinOut,
  type LayerAt,
  type LayerPlace,
  type Mark,
  type Side,
  type StoredSide,
  type YardOnly,
} from './side.ts';
export { standingOf, type Standing } from './standing.ts';
