import { z } from 'zod';
import { instrumentKinds, type InstrumentLetters } from '@lanternwright/core/gauge';
import type { Quantity } from '@lanternwright/core/quantity';

const letters = z.enum(Object.keys(instrumentKinds) as [InstrumentLetters, ...InstrumentLetters[]]);

/** What the stream of the instruments carries: whether they are there, a reading, or a line nobody can use. */
export const instrumentMessageSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('state'), connected: z.boolean() }),
  z.object({
    kind: z.literal('reading'),
    id: z.string(),
    letters,
    quantity: z.custom<Quantity>(),
    at: z.iso.datetime(),
  }),
  z.object({ kind: z.literal('fault'), reason: z.string() }),
]);
export type InstrumentMessage = z.output<typeof instrumentMessageSchema>;
