import type { Booked, ToldAbsence } from '@lanternwright/contract/plan';
import { letterhead } from './head.ts';
import { figures, heading, MUTED, printed, table, words, type PaperSize } from './paper.ts';

export interface WeekPaper {
  shop: { name: string; address: string };
  /** The first day, as it is said. */
  title: string;
  /** Each day as it is said, with what is booked to begin on it. */
  days: readonly { day: string; bookings: readonly Booked[] }[];
  away: readonly ToldAbsence[];
  bays: readonly { id: string; name: string }[];
  formatTime: (iso: string) => string;
  /** When it was printed. */
  at: Date;
  size: PaperSize;
}

/** The week on paper, to hang on the wall: each day with what comes when into which bay, and who is away. */
export function weekPaper({
  shop,
  title,
  days,
  away,
  bays,
  formatTime,
  at,
  size,
}: WeekPaper): Promise<Uint8Array<ArrayBuffer>> {
  const said = formatTime(at.toISOString());
  const time = (of: { from: string; until: string }) =>
    figures(`${formatTime(of.from)} to ${formatTime(of.until)}`, { fontSize: 7.5 });
  return printed(
    [
      letterhead(shop, title, `As planned ${said}`),
      ...days.flatMap(({ day, bookings }) => [
        heading(day),
        bookings.length === 0
          ? words('Nothing is booked.', { color: MUTED })
          : table(
              [],
              bookings.map((b) => [
                time(b),
                words(bays.find((bay) => bay.id === b.bayId)?.name ?? '', { bold: true }),
                words(`${b.unit.name}, ${b.unit.owner.name}`),
                words(b.job?.title ?? 'No job is open yet'),
                words(b.names.length > 0 ? b.names.join(', ') : 'nobody is named yet'),
              ]),
              [105, 70, '*', '*', 100],
            ),
      ]),
      ...(away.length > 0
        ? [
            heading('Away'),
            table(
              [],
              away.map((a) => [time(a), words(`${a.name}: ${a.why}`)]),
              [105, '*'],
            ),
          ]
        : []),
    ],
    { size, title, date: at, foot: `${shop.name}, as planned ${said}.` },
  );
}
