import { format, parseISO } from 'date-fns';

export { playDigits, sayPlay } from '@lanternwright/core/end-play';

const grouped = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0 });

export const sayKm = (km: number | null) => (km === null ? '' : `${grouped.format(km)} km`);
const sayHours = (h: number | null) => (h === null ? '' : `${grouped.format(h)} h`);
export const sayDate = (iso: string) => format(parseISO(iso), 'd MMM yyyy');
export const sayTime = (iso: string) => format(parseISO(iso), 'd MMM, HH:mm');

/** What a meter says, whichever the unit has. */
export function sayMeter(km: number | null, hours: number | null): string {
  return [sayKm(km), sayHours(hours)].filter(Boolean).join(' · ') || 'no meter';
}
