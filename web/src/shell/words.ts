import { format, parseISO } from 'date-fns';
import type { RuleUnit } from '../ui/thou-rule.tsx';

/** End play in the unit of the device: 0.0083 in, 0.211 mm. */
export function sayPlay(mm: number, unit: RuleUnit): string {
  return `${playDigits(mm, unit)} ${unit}`;
}

/** The digits alone. */
export function playDigits(mm: number, unit: RuleUnit): string {
  const text = unit === 'in' ? (mm / 25.4).toFixed(4) : mm.toFixed(3);
  return Number(text) === 0 ? text.replace('-', '') : text;
}

const grouped = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0 });

export const sayKm = (km: number | null) => (km === null ? '' : `${grouped.format(km)} km`);
const sayHours = (h: number | null) => (h === null ? '' : `${grouped.format(h)} h`);
export const sayDate = (iso: string) => format(parseISO(iso), 'd MMM yyyy');
export const sayTime = (iso: string) => format(parseISO(iso), 'd MMM, HH:mm');

/** What a meter says, whichever the unit has. */
export function sayMeter(km: number | null, hours: number | null): string {
  return [sayKm(km), sayHours(hours)].filter(Boolean).join(' · ') || 'no meter';
}
