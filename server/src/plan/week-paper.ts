import type { Booked, ToldAbsence } from '@lanternwright/contract/plan';
import { footers, heading, line, MARGIN, openPage, plain, type Paper } from '../exchange/page.ts';

export interface WeekPaper {
  shop: string;
  /** The first day, as it is said. */
  title: string;
  /** Each day as it is said, with what is booked to begin on it. */
  days: readonly { day: string; bookings: readonly Booked[] }[];
  away: readonly ToldAbsence[];
  bayName: (id: string) => string;
  sayTime: (iso: string) => string;
  /** When it was printed. */
  at: Date;
  paper: Paper;
}

/** The week on paper, to hang on the wall: each day with what comes when into which bay, and who is away. */
export function weekPaper({ shop, title, days, away, bayName, sayTime, at, paper }: WeekPaper) {
  const page = openPage(paper, title, at);
  const { doc } = page;
  doc.font('Helvetica-Bold').fontSize(18).text(plain(title), MARGIN);
  doc.font('Helvetica').fontSize(9).text(plain(shop));
  for (const { day, bookings } of days) {
    heading(doc, day);
    if (bookings.length === 0) doc.text('Nothing is booked.');
    for (const b of bookings) {
      const who = b.names.length > 0 ? b.names.join(', ') : 'nobody is named yet';
      line(
        doc,
        `${sayTime(b.from)} to ${sayTime(b.until)}`,
        `${bayName(b.bayId)}: ${b.unit.name}, ${b.unit.owner.name}. ${b.job?.title ?? 'No job is open yet'}. ${who}.`,
        150,
      );
    }
  }
  if (away.length > 0) heading(doc, 'Away');
  for (const a of away) line(doc, `${sayTime(a.from)} to ${sayTime(a.until)}`, `${a.name}: ${a.why}.`, 150);
  footers(doc, `${shop}, as planned ${sayTime(at.toISOString())}.`);
  return page.bytes();
}
