export {
  endPlayCalculation,
  judgeEndPlay,
  LEAST_CYCLES,
  REPEAT_WITHIN_MM,
  verdictSchema,
  type EndPlayResult,
  type Verdict,
} from './end-play.ts';
export { sideOfBand, type BandSide } from './judge.ts';
export { playDigits, formatPlay, type LengthUnit } from './format-play.ts';
