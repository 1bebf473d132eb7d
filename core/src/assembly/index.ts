export { effectOf, mustBeOff, needsLayerOff } from './effects.ts';
export {
  asItCame,
  asItStands,
  breakClosures,
  buildDifferently,
  carrySide,
  hearStep,
  releaseSide,
  strikeStep,
  whatCannotStand,
  type NotCounted,
  type Stands,
} from './fold-side.ts';
export {
  isOn,
  layerAt,
  movedLayers,
  sideSchema,
  unknownSide,
  wasPinOut,
  type LayerAt,
  type Mark,
  type Side,
  type StoredSide,
} from './side.ts';
export { standingOf, type Standing } from './standing.ts';
