import type { BodyOf } from './event.ts';
import { playMm } from './progress.ts';
import { refusal, type Refusal } from './refusal.ts';

/** Largest end play of one cycle that a dial can have read by honest work, mm; more is a slip of the hand. */
const LARGEST_PLAY_MM = 12.7;

/** Why a cycle cannot have been read, or null. */
export function impossible(reading: BodyOf<'reading-taken'>): Refusal | null {
  return playMm(reading) > LARGEST_PLAY_MM ? refusal('play-not-possible') : null;
}
