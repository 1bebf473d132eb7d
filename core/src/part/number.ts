import { distance } from 'fastest-levenshtein';

/** The longest part number that is taken. */
export const LONGEST_NUMBER = 40;

/** Letters and figures that are taken for one another on a worn part, each with the one it is compared as. */
const alike: Record<string, string> = { O: '0', Q: '0', I: '1', L: '1', S: '5', Z: '2', B: '8' };

/**
 * A part number as numbers are compared: capitals and figures alone, since spaces, dashes and points are written or
 * left out as it comes.
 */
export const plainNumber = (text: string): string =>
  text
    .normalize('NFKC')
    .toUpperCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/** What was read off an old part: what of it is plain, with the places that could not be read. */
export interface NumberRead {
  /** Capitals and figures; `?` for one sign that cannot be read, `*` for any number of them. */
  pattern: string;
  /** Whether a sign could not be read. */
  hasGaps: boolean;
  /** How many signs could be read. */
  read: number;
}

/** Reads a number with gaps: `47?5` and `47*12`; other signs fall away. */
export function readNumber(text: string): NumberRead {
  const pattern = text
    .normalize('NFKC')
    .toUpperCase()
    .replace(/[^\p{L}\p{N}?*]/gu, '')
    .replace(/\*+/g, '*')
    .slice(0, LONGEST_NUMBER);
  const read = pattern.replace(/[?*]/g, '').length;
  return { pattern, hasGaps: pattern.length > read, read };
}

const asSeen = (plain: string) => plain.replace(/[A-Z]/g, (letter) => alike[letter] ?? letter);

/**
 * How far a number lies from what was read: signs to change, add or drop; signs that look alike on a worn part (8 and B,
 * 0 and O) count for a half.
 * @returns 0 for the same number
 * @source Levenshtein's distance
 */
export function numberDistance(read: string, number: string): number {
  const exact = distance(read, number);
  return exact === 0 ? 0 : (exact + distance(asSeen(read), asSeen(number))) / 2;
}
