import Papa from 'papaparse';
import type { Booked, DueUnit } from '@lanternwright/contract/plan';
import { works } from '@lanternwright/core/stack';
import { csvCell } from '../exchange/csv-cell.ts';

const write = (columns: string[], rows: readonly (string | null)[][]) =>
  Papa.unparse(
    { fields: columns, data: rows.map((row) => row.map((c) => csvCell(c ?? ''))) },
    { newline: '\r\n' },
  ) + '\r\n';

/** What is due, a line for each work on each wheel end. */
export function dueCsv(rows: readonly DueUnit[]): string {
  return write(
    ['owner', 'unit', 'wheel_end', 'work', 'due_on', 'earliest', 'latest', 'state', 'booked_from'],
    rows.flatMap((r) =>
      r.due.map((d) => [
        ...[
          r.unit.owner.name,
          r.unit.name,
          d.position,
          works[d.work],
          d.dueOn,
          d.earliest,
          d.latest,
          d.state,
        ],
        r.bookedFrom,
      ]),
    ),
  );
}

/** Bookings, a line each; times are ISO 8601, UTC. @param bayName of an id */
export function bookingsCsv(rows: readonly Booked[], bayName: (id: string) => string): string {
  return write(
    ['from', 'until', 'bay', 'owner', 'unit', 'job', 'title', 'people'],
    rows.map((b) => [
      ...[b.from, b.until, bayName(b.bayId), b.unit.owner.name, b.unit.name],
      ...[b.job ? String(b.job.number) : '', b.job?.title ?? '', b.names.join(', ')],
    ]),
  );
}
