import { HttpProblem } from './problem.ts';

/** Deeper than anything a form of ours sends. */
const DEEPEST = 40;

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

function cleanText(text: string, path: readonly string[]): string {
  if (text.includes('\0')) throw unfit(path, 'holds a NUL, which no text has');
  if (/\p{Surrogate}/u.test(text)) throw unfit(path, 'holds half a character: type it again');
  return uuid.test(text) ? text.toLowerCase() : text.normalize('NFC');
}

/**
 * A check of a text or a list asks for these and compares what it gets: that is a figure, a word, or an object that can
 * be compared, as a quantity.
 */
const measured = new Set(['length', 'size']);
const compares = (value: unknown) =>
  typeof value !== 'object' ||
  value === null ||
  !(Array.isArray(value) || Object.hasOwn(value, 'toString') || Object.hasOwn(value, 'valueOf'));

function unfit(path: readonly string[], message: string): HttpProblem {
  const at = path.join('.');
  return new HttpProblem(422, 'Some fields do not fit', at ? `${at}: ${message}` : message, {
    issues: [{ path: at, message }],
  });
}

/**
 * What came from outside as the rest of the server may rely on it: every text is whole Unicode without NUL and in
 * one normal form, every id in lower case, as the database gives it back, and nothing passes for a text or a list that is
 * none. Nothing else is changed.
 * @throws HttpProblem 422 that names the field
 */
export function cleanInput(value: unknown, path: readonly string[] = []): unknown {
  if (typeof value === 'string') return cleanText(value, path);
  if (typeof value !== 'object' || value === null) return value;
  if (path.length >= DEEPEST) throw unfit(path.slice(0, 3), 'is nested too deeply');
  if (Array.isArray(value)) return value.map((v, i) => cleanInput(v, [...path, String(i)]));
  return Object.fromEntries(
    Object.entries(value).map(([key, v]) => {
      if (measured.has(key) && !compares(v)) throw unfit([...path, key], 'is a figure, a word or a quantity');
      return [cleanText(key, path), cleanInput(v, [...path, key])];
    }),
  );
}
