import { z } from 'zod';
import { distanceSchema } from '../quantity/index.ts';
import { refuse, StreamError, type Aggregate } from './aggregate.ts';

/** A unit's meters as they were read on a day, and where that is known from. */
export const meterReadSchema = z
  .object({
    date: z.iso.date(),
    /** As it was typed, beside km. */
    distance: distanceSchema.nullable(),
    km: z.number().min(0).nullable(),
    hours: z.number().min(0).nullable(),
    source: z.enum(['by-hand', 'job', 'file', 'taken-over']),
  })
  .refine((r) => r.km !== null || r.hours !== null, 'neither distance nor hours were read');
export type MeterRead = z.output<typeof meterReadSchema>;

const meterBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('meter-read'), read: meterReadSchema }),
  /** Readings from before meters had a record. */
  z.object({ kind: z.literal('meters-taken-over'), reads: z.array(meterReadSchema).min(1) }),
  /** A reading was wrong; `right` stands in its place, or nothing does. */
  z.object({ kind: z.literal('meter-corrected'), nth: z.int().min(0), right: meterReadSchema.nullable() }),
]);
export type MeterBody = z.output<typeof meterBodySchema>;

export interface MeterState {
  version: number;
  /** In the order they were told; null where one was struck out. */
  reads: (MeterRead | null)[];
}

export type MeterCommand =
  | { kind: 'read'; read: MeterRead }
  /** @property nth place among the readings, from 0 */
  | { kind: 'correct'; nth: number; right: MeterRead | null };

/** The meters of a unit: readings are appended, a wrong one is corrected by a correction. */
export const meterAggregate: Aggregate<MeterState, MeterCommand, MeterBody, (MeterRead & { nth: number })[]> =
  {
    stream: 'meter',
    upcast: (body) => meterBodySchema.parse(body),

    decide(state, command) {
      if (command.kind === 'read') return { ok: true, bodies: [{ kind: 'meter-read', read: command.read }] };
      if (!state?.reads[command.nth]) return refuse('There is no such reading');
      return { ok: true, bodies: [{ kind: 'meter-corrected', nth: command.nth, right: command.right }] };
    },

    fold(state, { version, body }) {
      const reads = state?.reads ?? [];
      if (body.kind === 'meter-read') return { version, reads: [...reads, body.read] };
      if (body.kind === 'meters-taken-over') return { version, reads: [...reads, ...body.reads] };
      if (!reads[body.nth]) throw new StreamError('What was corrected is not there');
      return { version, reads: reads.map((r, i) => (i === body.nth ? body.right : r)) };
    },

    project: ({ reads }) => reads.flatMap((read, nth) => (read ? [{ ...read, nth }] : [])),
  };
