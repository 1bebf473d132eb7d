/**
 * JSON in one way of writing only: members sorted by name, none that is undefined, no spaces. A value read back from
 * the database gives the same text, and so the same hash.
 * @source RFC 8259 for the values; the order of members is by UTF-16 code units, as in RFC 8785
 */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (value === null || typeof value !== 'object') return JSON.stringify(value);
  const members = Object.entries(value)
    .filter(([, v]) => v !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([k, v]) => `${JSON.stringify(k)}:${canonicalJson(v)}`);
  return `{${members.join(',')}}`;
}

/** Whether two values are written alike. */
export const sameJson = (a: unknown, b: unknown): boolean => canonicalJson(a) === canonicalJson(b);
