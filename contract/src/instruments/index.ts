import { z } from 'zod';
import { instrumentKinds, type InstrumentLetters } from '@lanternwright/core/gauge';
import type { Quantity } from '@lanternwright/core/quantity';
import { defineRoute, okSchema } from '../route/index.ts';

const letters = z.enum(Object.keys(instrumentKinds) as [InstrumentLetters, ...InstrumentLetters[]]);
const instrumentId = z.string().min(1).max(20);

/** Who has an instrument now, and where they use it. */
const holderSchema = z.object({ name: z.string(), where: z.string() });

/**
 * What the stream of the instruments carries: its own name, whether the instruments are there, each one that has
 * spoken with who has it, a reading of one that this stream has taken, or a line nobody can use.
 */
export const instrumentMessageSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('stream'), stream: z.uuid() }),
  z.object({ kind: z.literal('state'), connected: z.boolean() }),
  z.object({
    kind: z.literal('instrument'),
    id: instrumentId,
    letters,
    holder: holderSchema.nullable(),
    /** This stream has it. */
    mine: z.boolean(),
  }),
  z.object({
    kind: z.literal('reading'),
    id: instrumentId,
    letters,
    quantity: z.custom<Quantity>(),
    at: z.iso.datetime(),
  }),
  z.object({ kind: z.literal('fault'), reason: z.string() }),
]);
export type InstrumentMessage = z.output<typeof instrumentMessageSchema>;

export const instrumentsRoutes = {
  live: defineRoute({
    method: 'get',
    path: '/api/instruments/live',
    summary: 'What the instruments say, as a stream of server-sent events',
    access: 'work-on-jobs',
    query: z.object({
      /** Where it is used, in words: wheel end, step and job. */
      where: z.string().trim().max(120).catch(''),
    }),
    answer: instrumentMessageSchema,
  }),
  take: defineRoute({
    method: 'post',
    path: '/api/instruments/take',
    summary:
      'Take an instrument for the step that an open stream belongs to; it is let go when the stream ends',
    access: 'work-on-jobs',
    body: z.object({ stream: z.uuid(), id: instrumentId }),
    answer: okSchema,
  }),
};
