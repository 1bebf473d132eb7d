import { TZDate } from '@date-fns/tz';
import { format, parseISO } from 'date-fns';
import { convert, formatFor, unitDefinition, type ReaderUnits } from '@lanternwright/core/quantity';

export { playDigits, formatPlay } from '@lanternwright/core/end-play';

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

/** The units a field takes, first the one that a bare figure has: "mi or km". */
export function eitherUnit(reader: ReaderUnits, kind: 'distance' | 'temperature'): string {
  const both = kind === 'distance' ? (['km', 'mi'] as const) : (['degC', 'degF'] as const);
  const sorted = reader[kind] === both[0] ? both : [...both].reverse();
  return sorted.map((u) => unitDefinition(u).label).join(' or ');
}

/** A distance in the reader's unit. */
export const formatDistance = (km: number | null, reader: ReaderUnits) =>
  km === null ? '' : formatFor({ value: km, unit: 'km' }, reader);
export const formatHours = (h: number | null) => (h === null ? '' : `${grouped.format(h)} h`);
const isDay = (iso: string) => iso.length === '2026-11-26'.length;
/** A calendar date, or the shop's date of a moment. */
export const formatDate = (iso: string) =>
  format(isDay(iso) ? parseISO(iso) : inShop(parseISO(iso)), 'd MMM yyyy');
/** The shop's date and time of a moment; the year where that is not this one. */
export function formatTime(iso: string): string {
  const moment = inShop(parseISO(iso));
  const isThisYear = format(moment, 'yyyy') === shopToday().slice(0, 4);
  return format(moment, isThisYear ? 'd MMM, HH:mm' : 'd MMM yyyy, HH:mm');
}

/** The shop's time of day of a moment, and the day before it where that is not today. */
export function formatClock(iso: string): string {
  const moment = inShop(parseISO(iso));
  const time = format(moment, 'HH:mm');
  return format(moment, 'yyyy-MM-dd') === shopToday() ? time : `${format(moment, 'EEE d MMM')}, ${time}`;
}

/** From one moment to another; a day that both share is said once. */
export function formatRange(from: string, until: string): string {
  const [a, b] = [inShop(parseISO(from)), inShop(parseISO(until))];
  const sameDay = format(a, 'yyyy-MM-dd') === format(b, 'yyyy-MM-dd');
  return `${formatClock(from)} to ${sameDay ? format(b, 'HH:mm') : formatClock(until)}`;
}

/** The day of the week in the shop now. */
export const formatWeekday = (): string => format(inShop(new Date()), 'EEEE');

/** The moment of a day and a time of day in the shop, as the server takes it. @param day 2026-11-26 @param time 09:30 */
export function momentOf(day: string, time: string): string {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  const [hour = 0, minute = 0] = time.split(':').map(Number);
  const at = shopZone
    ? new TZDate(year, month - 1, date, hour, minute, 0, shopZone)
    : new Date(year, month - 1, date, hour, minute);
  return new Date(at.getTime()).toISOString();
}

/** A moment as the day and the time of day in the shop. */
export const dayAndTime = (iso: string): { day: string; time: string } => {
  const moment = inShop(parseISO(iso));
  return { day: format(moment, 'yyyy-MM-dd'), time: format(moment, 'HH:mm') };
};

/** What a meter says, whichever the unit has. */
export function formatMeter(km: number | null, hours: number | null, reader: ReaderUnits): string {
  return [formatDistance(km, reader), formatHours(hours)].filter(Boolean).join(' · ') || 'no meter';
}

/** How fast a setting grows, to a digit that means something: tenths of a thousandth, or whole micrometres. */
export function formatGrowth(mmPer10000Km: number, reader: ReaderUnits): string {
  const mm = mmPer10000Km * (reader.distance === 'mi' ? convert(1, 'mi', 'km') : 1);
  const moved =
    reader.length === 'in' ? `${convert(mm, 'mm', 'thou').toFixed(1)} thou` : `${mm.toFixed(3)} mm`;
  return `${moved} per 10,000 ${reader.distance}`;
}
