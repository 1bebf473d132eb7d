import { z } from 'zod';

/** Jobs of a day, and parts to count, that are shown. */
export const PICKS_SHOWN = 60;
export const COUNTS_SHOWN = 12;
/** A part is counted twice a year. @source common practice, no source */
export const COUNT_AFTER_DAYS = 182;

const pickSchema = z.object({
  bookingId: z.uuid(),
  /** Null where its job is not opened yet: nothing is kept for it so far. */
  jobId: z.uuid().nullable(),
  jobNumber: z.int().nullable(),
  unit: z.string(),
  bayId: z.string(),
  from: z.iso.datetime(),
  /** What is kept for it and was not used yet. */
  lines: z.array(
    z.object({
      partId: z.uuid(),
      number: z.string(),
      title: z.string(),
      positions: z.array(z.string()),
      quantity: z.int(),
      /** In the store, wherever: fewer than are wanted where they are short. */
      onHand: z.int(),
      places: z.array(z.object({ place: z.string(), quantity: z.int() })),
    }),
  ),
});

const comesSchema = z.object({
  orderId: z.uuid(),
  orderNumber: z.int(),
  supplier: z.string(),
  expected: z.iso.date(),
  late: z.boolean(),
  /** What of it is still to come. */
  lines: z.array(z.object({ partId: z.uuid(), number: z.string(), quantity: z.int() })),
  /** Open jobs for which one of its parts is kept and not here. */
  waiting: z.array(z.object({ jobId: z.uuid(), jobNumber: z.int(), unit: z.string() })),
});

export const storeDaySchema = z.object({
  picks: z.array(pickSchema),
  comes: z.array(comesSchema),
  /** Parts that were not counted for long, those first that were counted longest ago. */
  counts: z.array(
    z.object({
      partId: z.uuid(),
      number: z.string(),
      title: z.string(),
      onHand: z.int(),
      countedOn: z.iso.date().nullable(),
    }),
  ),
  /** How many there are to count, shown or not. */
  toCount: z.int(),
});
export type StoreDay = z.output<typeof storeDaySchema>;
