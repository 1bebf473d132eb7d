import { z } from 'zod';
import {
  absenceAggregate,
  bookingAggregate,
  jobAggregate,
  meterAggregate,
  orderAggregate,
  personAggregate,
  sheetAggregate,
  stockAggregate,
  toolAggregate,
  unitAggregate,
  type Aggregate,
} from '@lanternwright/core/record';
import { stockRows } from '../stores/rows.ts';
import { asColumns } from './insert-rows.ts';

/** How the states of one kind of stream become rows. */
export interface Kind<S> {
  aggregate: Pick<Aggregate<S, never, never, unknown>, 'stream' | 'upcast' | 'fold' | 'foldAll'>;
  /** Tables its rows stand in, each with the column that names the stream. */
  tables: readonly (readonly [table: string, column: string])[];
  /** Rows by table, as JSON whose members are named as columns are. */
  rowsOf: (states: readonly { id: string; state: S }[]) => Record<string, string>;
}

const kind = <S, C, B, R>(
  aggregate: Aggregate<S, C, B, R>,
  tables: Kind<S>['tables'],
  rowsOf: (id: string, rows: R) => Record<string, readonly object[]>,
): Kind<S> => ({
  aggregate: aggregate as never,
  tables,
  rowsOf(states) {
    const all = states.map(({ id, state }) => rowsOf(id, aggregate.project(state)));
    const named = [...new Set(all.flatMap((rows) => Object.keys(rows)))];
    return Object.fromEntries(
      named.map((table) => [table, asColumns(all.flatMap((rows) => rows[table] ?? []))]),
    );
  },
});

/** Numbers of jobs whose own opening does not name one. */
export const jobsNumberedSchema = z.object({
  kind: z.literal('jobs-numbered'),
  numbers: z.record(z.uuid(), z.int()),
});

/**
 * Every kind of stream that rows follow from.
 * @param numberOf a job's number, where its opening does not name it
 */
export function kindsOf(numberOf: (jobId: string) => number | undefined): Kind<unknown>[] {
  const kinds = [
    kind(
      unitAggregate,
      [
        ['unit', 'id'],
        ['axle', 'unit_id'],
        ['service_told', 'unit_id'],
      ],
      (id, { unit: { owner, name, unitKind, plate, version, duty, remarks }, axles, told }) => ({
        owner: [owner],
        unit: [{ id, ownerId: owner.id, name, kind: unitKind, plate, version, duty, remarks }],
        axle: axles.map((axle) => ({ ...axle, unitId: id })),
        service_told: told.map((t, nth) => ({ ...t, nth, unitId: id })),
      }),
    ),
    kind(
      meterAggregate,
      [
        ['meter_reading', 'unit_id'],
        ['meter_swap', 'unit_id'],
      ],
      (id, { reads, swaps }) => ({
        meter_reading: reads.map((read) => ({ ...read, unitId: id })),
        meter_swap: swaps.map((swap, nth) => ({ ...swap, nth, unitId: id })),
      }),
    ),
    kind(toolAggregate, [['tool', 'id']], (id, tool) => ({ tool: [{ ...tool, id, code: tool.tool.code }] })),
    kind(sheetAggregate, [['sheet_revision', 'sheet_id']], (id, revisions) => ({
      sheet_revision: revisions.map((r) => ({ ...r, sheetId: id, revision: r.sheet.revision })),
    })),
    kind(
      personAggregate,
      [
        ['person', 'id'],
        ['person_owner', 'person_id'],
      ],
      (id, person) => ({
        person: [{ ...person, id }],
        person_owner: person.owners.map((ownerId) => ({ personId: id, ownerId })),
      }),
    ),
    kind(
      jobAggregate,
      [
        ['job', 'id'],
        ['reading', 'job_id'],
        ['follow_up', 'job_id'],
        ['service_done', 'job_id'],
      ],
      (id, { job, readings, followUps, services }) => ({
        job: [{ id, ...job, number: job.number ?? numberOf(id) }],
        reading: readings,
        follow_up: followUps,
        service_done: services,
      }),
    ),
    kind(
      bookingAggregate,
      [
        ['booking_claim', 'booking_id'],
        ['booking', 'id'],
      ],
      (id, { booking: { from, until, ...booking }, claims }) => {
        const during = `[${from},${until})`;
        return {
          booking: [
            {
              ...booking,
              people: `{${booking.people.join()}}`,
              tools: `{${booking.tools.join()}}`,
              id,
              during,
            },
          ],
          booking_claim: claims.map((claim) => ({ ...claim, bookingId: id, during })),
        };
      },
    ),
    kind(
      stockAggregate,
      [
        ['stock_movement', 'part_id'],
        ['reservation', 'part_id'],
        ['stock', 'part_id'],
        ['part_number', 'part_id'],
        ['part', 'id'],
      ],
      stockRows,
    ),
    kind(orderAggregate, [['purchase', 'id']], (id, order) => ({ purchase: [{ ...order, id }] })),
    kind(absenceAggregate, [['absence', 'id']], (id, { from, until, ...absence }) => ({
      absence: [{ ...absence, id, during: `[${from},${until})` }],
    })),
  ];
  return kinds as Kind<unknown>[];
}
