import { Router } from 'express';
import { dayBegins } from '@lanternwright/core/work-plan';
import { DUE_A_PAGE, planRoutes, type DueUnit } from '@lanternwright/contract/plan';
import { serve } from '../http/serve.ts';
import { askingBy } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { WeekLoad } from '@lanternwright/contract/plan';
import type { AbsencesService } from './absences.ts';
import type { BookingsService } from './bookings.ts';
import type { CalendarsService } from './calendars.ts';
import type { FloorService } from './floor.ts';
import { bookingsCsv, dueCsv } from './lists-csv.ts';
import type { WorkPool } from '../pool/pool.ts';
import type { SettingsService } from '../shop/settings.ts';
import type { ProposalsService } from './proposals.ts';
import type { ShopAhead } from './shop-ahead.ts';

/** A list goes to a file whole, up to so many pages. */
const MOST_PAGES = 250;

interface Services {
  floor: FloorService;
  bookings: BookingsService;
  absences: AbsencesService;
  proposals: ProposalsService;
  calendars: CalendarsService;
  settings: SettingsService;
  pool: WorkPool;
  ahead: ShopAhead;
  capacity: () => Promise<WeekLoad[]>;
}

export function planRouter(
  { floor, bookings, absences, proposals, calendars, settings, ahead, capacity, pool }: Services,
  clock: Clock,
): Router {
  const asking = askingBy(clock);
  const bayName = (id: string) => settings.current().bays.find((b) => b.id === id)?.name ?? '';
  const router = Router();
  serve(router, planRoutes.floor, ({ viewer }) => floor.floor(viewer));
  serve(router, planRoutes.due, ({ query }) => floor.due(query));
  serve(router, planRoutes.bookings, ({ query }) => bookings.between(query.from, query.until));
  serve(router, planRoutes.book, ({ body, viewer }) => bookings.book(body, asking(viewer)));
  serve(router, planRoutes.move, ({ params, body, viewer }) =>
    bookings.move(params.id, body, asking(viewer)),
  );
  serve(router, planRoutes.sayWhere, ({ params, body, viewer }) =>
    bookings.sayWhere(params.id, body, asking(viewer)),
  );
  serve(router, planRoutes.cancel, ({ params, body, viewer }) =>
    bookings.cancel(params.id, body, asking(viewer)),
  );
  serve(router, planRoutes.lock, ({ params, body, viewer }) =>
    bookings.lock(params.id, body.seenVersion, body.locked, asking(viewer)),
  );
  serve(router, planRoutes.absences, ({ query }) => absences.between(query.from, query.until));
  serve(router, planRoutes.tellAbsence, ({ body, viewer }) => absences.tell(body, asking(viewer)));
  serve(router, planRoutes.cancelAbsence, ({ params, body, viewer }) =>
    absences.cancel(params.id, body.seenVersion, asking(viewer)),
  );
  serve(router, planRoutes.shifts, () => ahead.shifts());
  serve(router, planRoutes.changeShift, ({ params, body }) => ahead.changeShift(params.id, body));
  serve(router, planRoutes.ask, ({ body, viewer }) => proposals.ask(body, viewer));
  serve(router, planRoutes.proposal, ({ params }) => proposals.one(params.id));
  serve(router, planRoutes.stop, ({ params }) => proposals.stop(params.id));
  serve(router, planRoutes.accept, ({ params, body, viewer }) =>
    proposals.accept(params.id, body.units, asking(viewer)),
  );
  serve(router, planRoutes.capacity, capacity);
  serve(router, planRoutes.dueCsv, async ({ query, res }) => {
    const rows: DueUnit[] = [];
    for (let page = 1; ; page++) {
      const part = await floor.due({ ...query, page });
      rows.push(...part.rows);
      if (part.rows.length < DUE_A_PAGE || page === MOST_PAGES) break;
    }
    res.type('text/csv; charset=utf-8').attachment('due.csv');
    return dueCsv(rows);
  });
  serve(router, planRoutes.bookingsCsv, async ({ query, res }) => {
    const rows = await bookings.between(query.from, query.until);
    res.type('text/csv; charset=utf-8').attachment('booked.csv');
    return bookingsCsv(rows, bayName);
  });
  serve(router, planRoutes.weekPdf, async ({ params, viewer, res }) => {
    const { name, address, paper: size, zone, bays } = settings.current();
    const day = (nth: number) => dayBegins(params.monday, zone, nth);
    const [from, until] = [new Date(day(0)).toISOString(), new Date(day(7)).toISOString()];
    const [booked, away] = await Promise.all([bookings.between(from, until), absences.between(from, until)]);
    const said = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      weekday: 'long',
      day: 'numeric',
      month: 'long',
    });
    const days = Array.from({ length: 7 }, (_, nth) => {
      const [begin, end] = [day(nth), day(nth + 1)];
      return {
        day: said.format(begin),
        bookings: booked.filter((b) => {
          const at = Date.parse(b.from);
          // What began before the week stands under its first day.
          return at < end && (at >= begin || nth === 0);
        }),
      };
    });
    res.type('application/pdf').attachment(`week-${params.monday}.pdf`);
    const week = {
      ...{ shop: { name, address }, title: `Week of ${said.format(day(0))}`, days, away, bays, size },
      ...{ zone, at: clock.now() },
    };
    return pool.run('paper', { kind: 'week', week }, { person: viewer.person.id, takes: 'short' });
  });
  serve(router, planRoutes.calendars, () => calendars.list());
  serve(router, planRoutes.makeCalendar, ({ body, viewer }) => calendars.make(body, viewer));
  serve(router, planRoutes.revokeCalendar, ({ params }) => calendars.revoke(params.id));
  serve(router, planRoutes.calendar, async ({ params, res }) => {
    const feed = await calendars.feed(params.secret);
    res.type('text/calendar; charset=utf-8').set('Cache-Control', 'private, max-age=300');
    return feed;
  });
  return router;
}
