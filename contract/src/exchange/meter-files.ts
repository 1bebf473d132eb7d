import { z } from 'zod';
import { defineRoute, idParams } from '../route/index.ts';

/** Longest file of meter readings, in characters: some two million lines. */
export const METER_FILE_MOST = 100_000_000;

const badLineSchema = z.object({ line: z.int(), text: z.string(), reason: z.string() });

/** What a file would come to, or came to. */
const meterReportSchema = z.object({
  /** Readings that are new; those, of these and from before, that then fit no others; those that were known already. */
  kept: z.int(),
  doubtful: z.int(),
  known: z.int(),
  units: z.int(),
  distanceIn: z.enum(['km', 'mi']),
  from: z.iso.date().nullable(),
  until: z.iso.date().nullable(),
  badCount: z.int(),
  /** The first of them. */
  bad: z.array(badLineSchema),
});
export type MeterReport = z.infer<typeof meterReportSchema>;

const meterFileSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  sentAt: z.iso.datetime(),
  /** Being read, waiting to be taken, refused as no such file, being taken, taken; or it went wrong, and nothing was kept. */
  state: z.enum(['reading', 'read', 'refused', 'taking', 'taken', 'failed']),
  /** How far it is, 0 to 1. */
  done: z.number(),
  report: meterReportSchema.nullable(),
  /** Why it was refused, or failed. */
  reason: z.string().nullable(),
});
export type MeterFile = z.infer<typeof meterFileSchema>;

const path = '/api/exchange/meters';
const answer = z.object({ id: z.uuid() });

export const meterFileRoutes = {
  send: defineRoute({
    method: 'post',
    path,
    summary:
      'Send a CSV file of meter readings (text/csv); it is read in the background and nothing is kept yet',
    access: 'change-fleet',
    query: z.object({ name: z.string().trim().min(1).max(120).default('meters.csv') }),
    body: z.string().min(1, 'the file is empty').max(METER_FILE_MOST),
    answer,
  }),
  one: defineRoute({
    method: 'get',
    path: `${path}/:id` as const,
    summary: 'How far a file of meter readings is, and what it would come to',
    access: 'change-fleet',
    params: idParams,
    answer: meterFileSchema,
  }),
  bad: defineRoute({
    method: 'get',
    path: `${path}/:id/bad.csv` as const,
    summary: 'The lines of a file that cannot be taken, each with why, as CSV',
    access: 'change-fleet',
    params: idParams,
    answer: z.string(),
  }),
  take: defineRoute({
    method: 'post',
    path: `${path}/:id/take` as const,
    summary: 'Bring the good readings of a file in, all of them or none',
    access: 'change-fleet',
    params: idParams,
    answer,
  }),
  drop: defineRoute({
    method: 'post',
    path: `${path}/:id/drop` as const,
    summary: 'Put a file away that is not wanted; one that is being taken is stopped and nothing of it kept',
    access: 'change-fleet',
    params: idParams,
    answer,
  }),
};
