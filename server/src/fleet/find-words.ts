import { unitKinds } from '@lanternwright/core/axle-plan';

const MOST_WORDS = 8;

/** A pattern for `ilike`: the word wherever it stands; what PostgreSQL would read as a sign is a letter. */
const patternOf = (word: string) => `%${word.replace(/[\\%_]/g, '\\$&')}%`;

/** The words of a text. */
const wordsOf = (text: string): string[] => text.split(/\s+/).filter(Boolean).slice(0, MOST_WORDS);

export const patternsOf = (text: string): string[] => wordsOf(text).map(patternOf);

/**
 * SQL: every word stands in the name or plate of a unit `u`, or is one of its owner's or its kind's. An index would not
 * be used: rows are kept apart by owner before a pattern is looked at.
 * @param bound gives a value its place
 */
export function wordsFound(text: string, bound: (value: unknown) => string): string {
  const conditions = wordsOf(text).map((word) => {
    // Figures are neither large nor small, and looked for many times faster so.
    const like = word.toLowerCase() === word.toUpperCase() ? 'like' : 'ilike';
    const pattern = `${like} ${bound(patternOf(word))} ::text`;
    const kinds = Object.entries(unitKinds).filter(([, said]) =>
      said.toLowerCase().includes(word.toLowerCase()),
    );
    const ofKind = kinds.length > 0 ? `u.kind = any(${bound(kinds.map(([kind]) => kind))} ::text[]) or ` : '';
    return `(${ofKind}u.owner_id in (select id from owner where name ${pattern})
      or (u.name || ' ' || u.plate) ${pattern})`;
  });
  return conditions.length > 0 ? conditions.join(' and ') : 'true';
}
