export { effectOf, mustBeOff, needsLayerOff } from './effects.ts';
export {
  asItCame,
  breakClosures,
  buildDifferently,
  carrySide,
  hearStep,
  releaseSide,
  strikeStep,
  type NotCounted,
} from './fold-side.ts';
export {
  isOn,
  layerAt,
  movedLayers,
  sideSchema,
  unknownSide,
  type LayerAt,
  type Mark,
  type Side,
  type StoredSide,
} from './side.ts';
export { standingOf, type Standing } from './standing.ts';
