import { dayBegins, mondayOf, weekLoads } from '@lanternwright/core/work-plan';
import type { WeekLoad } from '@lanternwright/contract/plan';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';
import type { PlanMaker } from './make-plan.ts';
import type { ShopAhead } from './shop-ahead.ts';

const WEEKS = 12;

/** Hours that people have and hours that are asked for, twelve weeks on from this one. */
export async function capacityAhead(
  settings: SettingsService,
  ahead: ShopAhead,
  maker: PlanMaker,
  clock: Clock,
): Promise<WeekLoad[]> {
  const now = ahead.begin();
  const { zone } = settings.current();
  const monday = (nth: number) => mondayOf(clock.today(), nth);
  const weeks = Array.from({ length: WEEKS }, (_, nth) => ({
    from: Math.max(now, dayBegins(monday(nth), zone)),
    until: dayBegins(monday(nth + 1), zone),
  }));
  const end = weeks.at(-1)!.until;
  const [people, away, bookings, visits] = await Promise.all([
    ahead.people(now, end),
    ahead.away(now, end),
    ahead.bookings(now, end),
    maker.plannedVisits(7 * WEEKS),
  ]);
  const hours = ahead.hours(now, end);
  const loads = weekLoads(weeks, {
    hours,
    people: people.map((p) => p.hours ?? hours),
    away: away
      .map((a) => ({ ...a, nth: a.what === 'person' ? people.findIndex((p) => p.id === a.of) : -1 }))
      .filter((a) => a.nth >= 0),
    booked: bookings.map((b) => ({
      ...{ from: Date.parse(b.from), until: Date.parse(b.until) },
      people: b.people.length,
    })),
    due: visits.map(({ visit, time }) => ({
      ...{ at: visit.due, low: time.low / 60, usual: time.usual / 60, high: time.high / 60 },
    })),
  });
  return loads.map((load, nth) => ({
    monday: monday(nth),
    capacity: load.capacityHours,
    booked: load.bookedHours,
    due: load.dueHours,
  }));
}
