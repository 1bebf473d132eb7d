/** Whether lengths are shown in inches or in millimetres. */
export type LengthUnit = 'in' | 'mm';

/** End play in a unit: `0.0083 in`, `0.211 mm`. */
export function formatPlay(mm: number, unit: LengthUnit): string {
  return `${playDigits(mm, unit)} ${unit}`;
}

/** The digits alone: to 0.0001 in or 0.001 mm. */
export function playDigits(mm: number, unit: LengthUnit): string {
  const text = unit === 'in' ? (mm / 25.4).toFixed(4) : mm.toFixed(3);
  return Number(text) === 0 ? text.replace('-', '') : text;
}
