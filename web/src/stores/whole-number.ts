/** A whole number as it is typed, from 0 to `most`; null where it is none. */
export function wholeNumber(text: string, most = 10_000): number | null {
  const typed = text.trim();
  const n = Number(typed);
  return typed !== '' && Number.isInteger(n) && n >= 0 && n <= most ? n : null;
}
