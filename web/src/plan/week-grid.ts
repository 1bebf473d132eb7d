import { addDays } from '@lanternwright/core/interval';
import { momentOf, dayAndTime } from '../shell/words.ts';
import type { ShopSettings } from '@lanternwright/contract/shop';

const SLOT_MIN = 30;

/** Days of a week side by side, each from its first to its last hour of work. Places are in parts of a day's width. */
export interface WeekGrid {
  days: readonly string[];
  /** Minutes after midnight. */
  open: number;
  close: number;
}

const minutesOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
export const clockOf = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

/** The days of a week on which the shop works; from eight to four where the settings do not say. */
export function weekGrid(monday: string, { week }: Pick<ShopSettings, 'week'>): WeekGrid {
  const spans = week.flat();
  const all = Array.from({ length: 7 }, (_, i) => addDays(monday, i));
  if (spans.length === 0) return { days: all.slice(0, 5), open: 8 * 60, close: 16 * 60 };
  return {
    days: all.filter((_, i) => week[i]!.length > 0),
    open: Math.min(...spans.map((s) => minutesOf(s.from))),
    close: Math.max(...spans.map((s) => minutesOf(s.until))),
  };
}

/** A week from its Monday to the next, as moments of the shop. */
export const weekSpan = (monday: string) => ({
  from: momentOf(monday, '00:00'),
  until: momentOf(addDays(monday, 7), '00:00'),
});

/** Where a moment stands, in widths of a day; before the first or after the last day it is at the edge. */
export function placeOf({ days, open, close }: WeekGrid, iso: string): number {
  const { day, time } = dayAndTime(iso);
  const nth = days.findIndex((d) => d >= day);
  if (nth < 0) return days.length;
  if (days[nth] !== day) return nth;
  return nth + Math.min(1, Math.max(0, (minutesOf(time) - open) / (close - open)));
}

/** The moment at a place, to the nearest half hour; never before the first or after the last slot of its day. */
export function momentAt({ days, open, close }: WeekGrid, place: number): string {
  const nth = Math.min(days.length - 1, Math.max(0, Math.floor(place + 1e-6)));
  const minutes = open + (place - nth) * (close - open);
  const slots = Math.round((minutes - open) / SLOT_MIN);
  const last = Math.floor((close - open) / SLOT_MIN) - 1;
  return momentOf(days[nth]!, clockOf(open + Math.min(last, Math.max(0, slots)) * SLOT_MIN));
}

/** How wide a slot is, in widths of a day. */
export const slotWidth = ({ open, close }: WeekGrid) => SLOT_MIN / (close - open);
