import { TZDate } from '@date-fns/tz';
import { format, parseISO } from 'date-fns';

export { playDigits, sayPlay } from '@lanternwright/core/end-play';

const grouped = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0 });

/** The shop's one clock: until it is known, this device's. */
let shopZone: string | undefined;

/** Sets the zone that moments are said in, an IANA name. */
export function setShopZone(zone: string): void {
  shopZone = zone;
}

const inShop = (moment: Date) => (shopZone ? new TZDate(moment, shopZone) : moment);

/** The calendar date in the shop now, as 2026-11-26. */
export const shopToday = (): string => format(inShop(new Date()), 'yyyy-MM-dd');

export const sayKm = (km: number | null) => (km === null ? '' : `${grouped.format(km)} km`);
const sayHours = (h: number | null) => (h === null ? '' : `${grouped.format(h)} h`);
const isDay = (iso: string) => iso.length === '2026-11-26'.length;
/** A calendar date, or the shop's date of a moment. */
export const sayDate = (iso: string) =>
  format(isDay(iso) ? parseISO(iso) : inShop(parseISO(iso)), 'd MMM yyyy');
export const sayTime = (iso: string) => format(inShop(parseISO(iso)), 'd MMM, HH:mm');

/** What a meter says, whichever the unit has. */
export function sayMeter(km: number | null, hours: number | null): string {
  return [sayKm(km), sayHours(hours)].filter(Boolean).join(' · ') || 'no meter';
}
