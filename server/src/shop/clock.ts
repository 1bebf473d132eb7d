import { addDays } from '@lanternwright/core/interval';

const saidDay = new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', dateStyle: 'medium' });

/** The shop's one clock. */
export interface Clock {
  /** The shop's zone, an IANA name. */
  zone: () => string;
  now: () => Date;
  /** The calendar date in the shop's zone. */
  today: () => string;
  /** The calendar date of a moment in the shop's zone. */
  dayOf: (iso: string) => string;
  /** A moment as people in the shop say it. */
  say: (iso: string) => string;
  /** The calendar date so many days after that of a moment, as people in the shop say it. */
  sayDay: (iso: string, daysAfter: number) => string;
}

/** @param zone the shop's zone as it is set now, an IANA name */
export function shopClock(zone: () => string): Clock {
  const formats = new Map<string, { date: Intl.DateTimeFormat; moment: Intl.DateTimeFormat }>();
  function format() {
    const timeZone = zone();
    const known = formats.get(timeZone);
    if (known) return known;
    const made = {
      date: new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }),
      moment: new Intl.DateTimeFormat('en-GB', { timeZone, dateStyle: 'medium', timeStyle: 'short' }),
    };
    formats.set(timeZone, made);
    return made;
  }
  const dayOf = (iso: string) => format().date.format(new Date(iso));
  return {
    zone,
    now: () => new Date(),
    today: () => format().date.format(new Date()),
    dayOf,
    say: (iso) => format().moment.format(new Date(iso)),
    sayDay: (iso, daysAfter) => saidDay.format(new Date(`${addDays(dayOf(iso), daysAfter)}T12:00:00Z`)),
  };
}
