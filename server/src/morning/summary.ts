import type { JobSummary, ShopFollowUps } from '@lanternwright/contract/jobs';
import type { Booked, DueUnit, Floor, ToldAbsence } from '@lanternwright/contract/plan';
import { stages } from '@lanternwright/core/procedure';
import { followUpKinds } from '@lanternwright/core/traveller';
import { describeWorks } from '@lanternwright/core/work-plan';

/** What a morning is told from. */
export interface Morning {
  shop: string;
  /** The day in words. */
  day: string;
  bays: readonly { id: string; name: string }[];
  floor: Pick<Floor, 'bookings' | 'jobs' | 'doubted'>;
  followUps: ShopFollowUps;
  /** What is due first, and how many units are overdue in all. */
  due: { overdue: number; rows: readonly DueUnit[] };
  away: readonly ToldAbsence[];
  now: string;
  /** The calendar date. */
  today: string;
  /** A date in words. */
  formatDay: (date: string) => string;
  /** A moment as a time of the shop's clock, with its day where that is not today. */
  formatClock: (iso: string) => string;
  /** Where the shop's pages are; null where nobody has said. */
  address: string | null;
}

const MOST_LINES = 12;
const followUpWords: Record<string, string> = {
  retorque: 'Retorque',
  'out-of-service': 'Out of service',
  ...followUpKinds,
};

function decisions({ jobs, doubted }: Morning['floor']): string[] {
  return [
    ...jobs.flatMap((job) =>
      job.wheelEnds.flatMap((w) =>
        w.asks.map((q) => `Judge: ${q.title}, ${job.unit.name} ${w.position}. ${q.seen} (${q.askedBy})`),
      ),
    ),
    ...jobs.flatMap((job) => {
      const ends = job.wheelEnds.filter((w) => !w.released && w.waitsForRelease);
      return ends.length > 0 && !job.stopped
        ? [`Release: ${job.unit.name} ${ends.map((w) => w.position).join(' ')}`]
        : [];
    }),
    ...jobs
      .filter((j) => j.estimate === 'asks')
      .map((j) => `Estimate of ${j.unit.name}: ${j.unit.owner.name} has not answered`),
    ...doubted.map((d) => `Meter of ${d.unit.name}: what it read on ${d.date} does not fit`),
  ];
}

/** How the wheel end that is farthest behind stands. */
function stands({ wheelEnds }: JobSummary): string {
  const end = wheelEnds.find((w) => w.trouble && !w.released) ?? wheelEnds.find((w) => !w.released);
  if (!end) return 'all released';
  const stage = (stages.find((s) => s.id === end.stage)?.title ?? end.stage).toLowerCase();
  return `${end.position} ${stage}${end.trouble ? `, ${end.trouble}` : ''}${end.who ? ` (${end.who})` : ''}`;
}

function inBays({ bays, floor, now, formatClock }: Morning): string[] {
  return bays.map((bay) => {
    const here = floor.bookings.find((b) => b.bayId === bay.id && b.from <= now && b.until > now);
    if (!here) {
      const next = floor.bookings.find((b) => b.bayId === bay.id && b.from > now);
      return `${bay.name}: free${next ? ` until ${formatClock(next.from)}, then ${next.unit.name}` : ''}`;
    }
    const job = floor.jobs.find((j) => j.id === here.jobId);
    return `${bay.name}: ${here.unit.name}, ${job ? stands(job) : 'no job is open on it yet'}`;
  });
}

/** What is overdue to follow up, of one kind on one unit in one line. */
function lateLines({ rows }: ShopFollowUps): string[] {
  const lines = new Map<string, string[]>();
  for (const { kind, unit, position, state } of rows) {
    if (state !== 'overdue') continue;
    const head = `${followUpWords[kind]}, ${unit.name}`;
    lines.set(head, [...(lines.get(head) ?? []), position]);
  }
  return [...lines].map(([head, positions]) => `${head} ${positions.sort().join(' ')}`);
}

const comes = (b: Booked, formatClock: Morning['formatClock']) =>
  `${formatClock(b.from)}: ${b.unit.name}${b.job ? `, ${b.job.title}` : ', no job opened'}` +
  `. ${b.names.length > 0 ? b.names.join(', ') : 'No technician assigned'}`;

function part(title: string, lines: readonly string[], none: string): string {
  const shown = lines.slice(0, MOST_LINES).map((line) => `- ${line}`);
  if (lines.length > MOST_LINES) shown.push(`- and ${lines.length - MOST_LINES} more`);
  return [title, ...(shown.length > 0 ? shown : [none])].join('\n');
}

/** The morning in plain words, as a mail says it. */
export function morningText(morning: Morning): string {
  const { shop, day, floor, followUps, due, away, now, today, formatClock, formatDay, address } = morning;
  const coming = floor.bookings.filter((b) => b.from > now);
  const waiting = due.rows.filter((r) => r.bookedFrom === null && r.openJobId === null);
  return `${[
    `${shop}, ${day}`,
    part('DECIDE', decisions(floor), 'Nothing waits for a decision.'),
    part('IN THE BAYS', inBays(morning), 'No bays are named yet.'),
    part(
      'COMING IN, TODAY AND TOMORROW',
      coming.map((b) => comes(b, formatClock)),
      'Nothing is booked.',
    ),
    part(
      `FOLLOW UP: ${followUps.total} OPEN, ${followUps.overdue} OVERDUE`,
      lateLines(followUps),
      'None is overdue.',
    ),
    part(
      `DUE AND NOT BOOKED: ${due.overdue} UNITS OVERDUE`,
      waiting.map(
        (r) =>
          `${r.unit.name}, ${r.unit.owner.name}: ${describeWorks(r.due)}, ${r.dueOn! < today ? 'since' : 'by'} ${formatDay(r.dueOn!)}`,
      ),
      'None.',
    ),
    part(
      'AWAY TODAY',
      away.map((a) => `${a.name}${a.why ? `, ${a.why}` : ''}`),
      'Nobody.',
    ),
    ...(address ? [`${address}/floor`] : []),
  ].join('\n\n')}\n`;
}
